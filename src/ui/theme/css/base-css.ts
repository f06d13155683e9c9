/* What the whole page starts from, and the few words of look that plain elements are given by class. */

export const baseCss = {
  'html, body': {
    bg: 'paper',
    fontFamily: 'body',
    color: 'ink',
    fontSize: '15px',
    lineHeight: '1.45',
    fontVariantNumeric: 'tabular-nums',
    _print: { bg: 'white', color: 'black', fontSize: '10.5pt' },
  },
  'input[type=checkbox], input[type=radio]': { accentColor: 'action' },
  '*': { borderColor: 'hair', _motionReduce: { animation: 'none !important', transition: 'none !important' } },
  ':focus-visible': { outline: '2px solid', outlineColor: 'action', outlineOffset: '2px' },
  summary: { cursor: 'pointer', color: 'action', py: '1' },
  'dialog::backdrop': { bg: 'rgb(10 18 24 / 0.45)' },
  // What is folded up, and what is asked of a person, is not for paper.
  '[data-no-print], details:not([open])': { _print: { display: 'none !important' } },
  '.soft': { color: 'soft' },
  '.wrong': { color: 'wrong.ink' },
  '.doubtful': { color: 'caution.ink' },
  '.strong': { fontWeight: '650' },
  '.small': { fontSize: 'sm' },
  '.large': { fontSize: 'lg' },
  '.wide': { minW: { base: '0', md: '240px' } },
  '.nowrap': { whiteSpace: 'nowrap' },
  '.right': { textAlign: 'right' },
  // Read aloud, not shown.
  '.aloud': {
    position: 'absolute',
    w: '1px',
    h: '1px',
    overflow: 'hidden',
    clipPath: 'inset(50%)',
    whiteSpace: 'nowrap',
  },
} as const;
