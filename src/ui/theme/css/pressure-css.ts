/* The pressure chart and the ranked list beside it. */

export const pressureCss = {
  '.chart': { position: 'relative', cursor: 'crosshair', touchAction: 'pan-y' },
  '.chart-layer': { position: 'absolute', inset: '0', userSelect: 'none' },
  '.chart-tools': { display: 'flex', flexWrap: 'wrap', gap: '2', alignItems: 'center', fontSize: 'sm', color: 'soft' },
  '.ranked': {
    display: 'flex',
    gap: '2',
    alignItems: 'center',
    py: '1',
    pl: '1',
    borderBottom: '1px solid',
    borderColor: 'hair',
    '&[data-active]': { bg: 'sheet' },
    '&[data-selected]': { bg: 'tint' },
    '& > input': { w: '18px', h: '18px', flexShrink: 0 },
    '& > div:first-of-type': {
      flex: '1',
      minW: '0',
      '& > div': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
    },
  },
} as const;
