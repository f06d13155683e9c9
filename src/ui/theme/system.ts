import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react';
import {
  animationStyles,
  breakpoints,
  cssVarsPrefix,
  cssVarsRoot,
  keyframes,
  layerStyles,
  semanticTokens,
  textStyles,
  tokens,
} from '@chakra-ui/react/theme';

const sans = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif';
const mono = '"Atkinson Hyperlegible Mono Variable", ui-monospace, monospace';
/** Of the palettes that come with the library, those that its buttons and fields use. */
const { transparent, current, black, white, whiteAlpha, blackAlpha, gray, red } = tokens.colors;
const palettes = { transparent, current, black, white, whiteAlpha, blackAlpha, gray, red };
const { bg, fg, border, gray: grays, red: reds } = semanticTokens.colors;
/** Without those that speak of palettes that are not here. */
const plain = <T extends object>({
  warning,
  success,
  info,
  ...rest
}: T & { warning: unknown; success: unknown; info: unknown }) => rest;

const shade = (light: string, dark: string) => ({ value: { base: light, _dark: dark } });

/**
 * Components in use that are one element, and those of several parts. Each carries its class, a part `class__part`, and the page's
 * sheet says how it looks (css/): no style is worked out while a page is drawn, by the server or by the browser.
 */
const ELEMENTS = { button: 'button', input: 'field', skeleton: 'skeleton', textarea: 'field' } as const;
const PARTS = {
  alert: ['root', 'indicator', 'content'],
  breadcrumb: ['root', 'list', 'item', 'separator'],
  checkbox: ['root', 'control', 'label', 'indicator'],
  checkboxCard: ['root', 'label'],
  datePicker: [
    ...['positioner', 'content', 'viewControl', 'prevTrigger', 'nextTrigger', 'viewTrigger', 'rangeText'],
    ...['view', 'table', 'tableHeader', 'tableCell', 'tableCellTrigger'],
  ],
  clipboard: ['root', 'label', 'control', 'input'],
  dataList: ['root', 'item', 'itemLabel', 'itemValue'],
  dialog: ['backdrop', 'positioner', 'content'],
  drawer: ['trigger', 'backdrop', 'positioner', 'content', 'closeTrigger'],
  emptyState: ['root', 'content'],
  field: ['root', 'label', 'helperText', 'errorText'],
  fieldset: ['root', 'legend', 'errorText'],
  fileUpload: [
    ...['root', 'label', 'dropzone', 'itemGroup', 'item', 'itemPreview', 'itemContent', 'itemName'],
    ...['itemSizeText', 'itemDeleteTrigger'],
  ],
  listbox: ['root', 'input', 'content', 'item'],
  menu: ['positioner', 'content', 'item'],
  nativeSelect: ['root', 'field', 'indicator'],
  pagination: ['root', 'item', 'ellipsis', 'prevTrigger', 'nextTrigger'],
  popover: ['trigger', 'positioner', 'content', 'body'],
  progress: ['root', 'track', 'range'],
  qrCode: ['root', 'frame', 'pattern'],
  radioCard: ['root', 'item', 'itemText'],
  toast: ['root', 'title', 'closeTrigger'],
  tooltip: ['positioner', 'content'],
} as const;
const recipes = Object.fromEntries(Object.entries(ELEMENTS).map(([name, className]) => [name, { className }]));
const slotRecipes = Object.fromEntries(
  Object.entries(PARTS).map(([name, slots]) => [name, { className: name, slots: [...slots] }]),
);

/** Paper and ink, one accent, and one ramp from cold to hot instead of traffic lights. */
export const config = defineConfig({
  // The page's own sheet holds all of that: see stylesheet.ts.
  preflight: false,
  cssVarsPrefix,
  cssVarsRoot,
  theme: {
    breakpoints,
    keyframes,
    textStyles,
    layerStyles,
    animationStyles,
    recipes,
    slotRecipes,
    tokens: {
      ...tokens,
      colors: palettes,
      fonts: { ...tokens.fonts, body: { value: sans }, heading: { value: sans }, mono: { value: mono } },
    },
    semanticTokens: {
      ...semanticTokens,
      colors: {
        bg: plain(bg),
        fg: plain(fg),
        border: plain(border),
        gray: grays,
        red: reds,
        paper: shade('#F5F3EC', '#18222B'),
        sheet: shade('#FCFBF7', '#1F2B35'),
        ink: shade('#1B2730', '#E9E6DC'),
        soft: shade('#5A6872', '#A9B5BD'),
        line: shade('#D5D2C6', '#3C4A55'),
        hair: shade('#E6E3D8', '#2E3B46'),
        isobar: shade('#7F9AA8', '#6F8C9B'),
        action: shade('#0E5F66', '#6FC3C9'),
        onAction: shade('#FCFBF7', '#10201F'),
        tint: shade('#DDE8E5', '#25413F'),
        caution: { bg: shade('#F3E9DC', '#3A2F22'), ink: shade('#8A4B12', '#F0B97C') },
        wrong: { bg: shade('#F6E4E8', '#46242F'), ink: shade('#8E1137', '#FFA9BD') },
        ramp: {
          0: shade('#A9C0C8', '#54707C'),
          1: shade('#6F98AC', '#6F98AC'),
          2: shade('#44688F', '#7FA6D6'),
          3: shade('#4A4787', '#A09CE8'),
          4: shade('#7A2A63', '#D882BF'),
          5: shade('#A3143F', '#FF7F9F'),
        },
      },
    },
  },
});

const made = createSystem(defaultBaseConfig, config);
/** Without what stands in the sheet, which is the same on every page and is sent once. */
export const system: typeof made = { ...made, _global: [], layers: { ...made.layers, atRule: '' } };
