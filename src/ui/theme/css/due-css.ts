/* The due list, and the ring of life used that stands in every line of it. */

import { DESK, PHONE, TABLET } from './media';

const heats = Object.fromEntries(
  [0, 1, 2, 3, 4, 5].map((heat) => [
    `.ring[data-heat="${heat}"]`,
    { '& > circle:nth-of-type(2)': { stroke: `ramp.${heat}` }, '& > circle:nth-of-type(3)': { fill: `ramp.${heat}` } },
  ]),
);

const areas = Object.fromEntries(
  ['vehicle', 'order', 'due', 'life', 'limit', 'pressure', 'depot', 'odometer', 'sure'].map((area) => [
    `& > tbody > tr > .due-${area}`,
    { gridArea: area },
  ]),
);

/** A line of the list as a card: what stands where, and how wide. */
const card = (gridTemplateColumns: string, gridTemplateAreas: string) =>
  ({
    '&, & > tbody': { display: 'block' },
    '& > thead': { display: 'none' },
    '& > tbody > tr': {
      display: 'grid',
      gridTemplateColumns,
      gridTemplateAreas,
      columnGap: '3',
      rowGap: '1',
      py: '3',
      borderBottom: '1px solid',
      borderColor: 'line',
    },
    '& > tbody > tr > td': {
      p: '0 !important',
      border: 'none',
      minW: '0 !important',
      whiteSpace: 'normal !important',
    },
    ...areas,
    '& > tbody > tr > .due-vehicle': { gridArea: 'vehicle', fontSize: '17px' },
    '& > tbody > tr > .due-order': { gridArea: 'order', textAlign: 'right' },
    '& > tbody > tr > .due-odometer': { gridArea: 'odometer', textAlign: 'right' },
    '& > tbody > tr > .due-depot, & > tbody > tr > .due-limit, & > tbody > tr > .due-odometer, & > tbody > tr > .due-pressure, & > tbody > tr > .due-sure':
      { color: 'soft', fontSize: '14px' },
    '& .due-depot > .second': { display: 'inline', ml: '1.5' },
  }) as const;

export const dueCss = {
  '.filters': {
    display: 'flex',
    flexWrap: 'wrap',
    gap: '3',
    alignItems: 'center',
    mb: '2',
    '& > .field': { flex: { base: '1 1 0', sm: '0 0 190px' } },
    '& > div:last-of-type': { display: 'flex', flexWrap: 'wrap', gap: '2', alignItems: 'center' },
    '& .nativeSelect__root': { w: 'auto' },
    '& select': { w: 'auto', maxW: '168px' },
    [PHONE]: { '&:not([data-open]) > div:last-of-type': { display: 'none' } },
  },
  '.filter-day': {
    display: 'flex',
    alignItems: 'center',
    gap: '1.5',
    color: 'soft',
    '& .date-control': { w: '160px' },
  },
  '.filters-fold': { display: { base: 'inline-flex', sm: 'none' } },
  '.tick': { display: 'flex', gap: '2', alignItems: 'center', minH: '28px' },
  '.ring': {
    display: 'inline-block',
    flexShrink: 0,
    verticalAlign: 'middle',
    '& > circle': { fill: 'none', strokeWidth: '4' },
    '& > circle:first-of-type': { stroke: 'hair' },
    '& > circle:nth-of-type(3)': { stroke: 'none !important' },
  },
  ...heats,
  // A calculation as with a pencil: a line over what is summed up.
  '.sum': {
    maxW: '560px',
    '& > div': { display: 'flex', justifyContent: 'space-between', gap: '4', py: '0.5', color: 'soft' },
    '& > div > dd': { color: 'ink', whiteSpace: 'nowrap' },
    '& > div[data-total]': { color: 'ink', fontWeight: '650', borderTop: '1px solid', borderColor: 'line' },
  },
  '.second': { display: 'block', color: 'soft', fontSize: 'sm' },
  '.due-list': {
    '& > tbody > tr > td, & > thead > tr > th': { whiteSpace: 'nowrap' },
    '& > tbody > tr > td': { fontSize: '15px' },
    '& > tbody > tr > .due-life': { minW: '84px', '& > span': { ml: '2' } },
    '& > tbody > tr > .due-vehicle': { minW: '200px', whiteSpace: 'normal' },
    '& > tbody > tr > .due-sure': { minW: '150px', whiteSpace: 'normal', fontSize: 'sm' },
    '& > tbody > tr > .due-due': { minW: '220px', maxW: '320px', whiteSpace: 'normal' },
    '& > tbody > tr > .due-limit': { minW: '110px', whiteSpace: 'normal' },
    '& > tbody > tr > .due-odometer > .doubtful': { display: 'block', fontSize: 'sm' },
    '& > * > tr > .due-pressure, & > * > tr > .due-odometer': { textAlign: 'right' },
    // One line a vehicle: what does not fit ends in dots, and is whole in the title and with two lines.
    [DESK]: {
      '&[data-dense] > tbody > tr': {
        h: '40px',
        '& > td': {
          minW: '0',
          maxW: '112px',
          py: '0',
          verticalAlign: 'middle',
          whiteSpace: 'nowrap',
          overflow: 'hidden',
          textOverflow: 'ellipsis',
        },
        '& > .due-vehicle': { minW: '0', maxW: '185px' },
        '& > .due-due': { minW: '0', maxW: '286px' },
        '& > .due-sure': { minW: '0', maxW: '96px' },
        '& > .due-order': { maxW: '140px' },
        '& .second': { display: 'inline', ml: '2' },
        '& > .due-vehicle > .second, & > .due-depot > .second, & > .due-due > .second ~ .second': { display: 'none' },
        '& .button': { minH: '32px' },
      },
    },
    [TABLET]: {
      ...card(
        '92px minmax(0, 5fr) minmax(0, 4fr) 132px',
        '"life vehicle due order" "life limit pressure odometer" "life depot sure sure"',
      ),
      '& > tbody > tr > .due-pressure': { textAlign: 'start' },
    },
    [PHONE]: {
      ...card('minmax(0, 1fr) auto', '"vehicle order" "due life" "limit pressure" "depot odometer" "sure sure"'),
      '& > tbody > tr > .due-life, & > tbody > tr > .due-pressure': { textAlign: 'right' },
      '& .button': { minH: '44px', px: '4' },
    },
  },
} as const;
