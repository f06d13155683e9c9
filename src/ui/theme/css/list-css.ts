/* Lists: rows parted by hairlines on the paper where there is room, cards on a phone. */

import { PHONE } from './media';

/** More columns than this no list has. */
const MAX_COLUMNS = 12;

const columns = Array.from({ length: MAX_COLUMNS }, (_, i) => i + 1);
const numeric = Object.fromEntries(
  columns.map((n) => [
    `.list[data-numeric~="${n}"] > * > tr > :nth-child(${n})`,
    { textAlign: 'right', whiteSpace: 'nowrap' },
  ]),
);
/** On a card each value stands beside its head, which the table gives as a property; figures stand where words do. */
const named = Object.fromEntries(
  columns.slice(1).map((n) => [`.list > tbody > tr > td:nth-child(${n})::before`, { content: `var(--head-${n}, "")` }]),
);

export const listCss = {
  // What scrolls must be reached by keyboard too.
  '.list-frame': { position: 'relative', overflowX: 'auto', mb: '4' },
  '.list': {
    w: '100%',
    textAlign: 'start',
    '& > thead > tr > th, & > tbody > tr > td': {
      px: '2',
      py: '2',
      textAlign: 'start',
      borderBottom: '1px solid',
      borderColor: 'hair',
    },
    '& > thead > tr > th': { color: 'soft', fontSize: 'sm', fontWeight: '400', verticalAlign: 'bottom' },
    '& > tbody > tr > td': { fontSize: 'sm', verticalAlign: 'top' },
    '& > tbody > tr': { breakInside: 'avoid' },
    '& > tbody > tr > .or-none:empty::after': { content: '"–"', color: 'soft' },
    // Where an address names a row.
    '& > tbody > tr:target': { bg: 'tint' },
    '&[data-dense] > tbody > tr > td': { py: '1.5' },
  },
  '.list[data-wide]': { minW: { base: '0', sm: '760px' } },
  ...numeric,
  [PHONE]: {
    '.list:not([data-keep])': {
      '&, & > tbody': { display: 'block' },
      '& > thead': { display: 'none' },
      '& > tbody > tr': { display: 'block', py: '3', borderBottom: '1px solid', borderColor: 'line' },
      '& > tbody > tr > td': {
        display: 'block',
        minH: '24px',
        border: 'none',
        p: '0',
        pl: '112px',
        fontSize: '15px',
        textAlign: 'start !important',
        whiteSpace: 'normal',
      },
      '& > tbody > tr > td:first-child': { pl: '0', fontSize: '17px', mb: '1', '&::before': { display: 'none' } },
      '& > tbody > tr > td:empty': { display: 'none' },
      // Beside its value, and as high as it is where it breaks.
      '& > tbody > tr > td::before': {
        display: 'inline-block',
        verticalAlign: 'top',
        w: '104px',
        ml: '-112px',
        mr: '2',
        color: 'soft',
        fontSize: '14px',
        fontWeight: '400',
        whiteSpace: 'normal',
      },
    },
    ...named,
  },
} as const;
