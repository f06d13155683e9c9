import { createSystem, defaultBaseConfig } from '@chakra-ui/react';
import createCache from '@emotion/cache';
import { css } from '@emotion/react';
import { baseCss } from './css/base-css';
import { dueCss } from './css/due-css';
import { floorCss } from './css/floor-css';
import { frameCss } from './css/frame-css';
import { listCss } from './css/list-css';
import { misfireCss } from './css/misfire-css';
import { pageCss } from './css/page-css';
import { partCss } from './css/part-css';
import { planCss } from './css/plan-css';
import { pressureCss } from './css/pressure-css';
import { config } from './system';

/**
 * The sheet that every page shares, as text: tokens, what all elements start from, and the classes of plain elements. It is
 * written when the app is built, so that a page carries none of it and a browser keeps it.
 */
export function stylesheet(): string {
  const globalCss = {
    ...baseCss,
    ...pageCss,
    ...partCss,
    ...listCss,
    ...frameCss,
    ...dueCss,
    ...pressureCss,
    ...planCss,
    ...misfireCss,
    ...floorCss,
  };
  const system = createSystem(defaultBaseConfig, config, { preflight: true, globalCss });
  const cache = createCache({ key: 'sheet' });
  // As on the server: what is inserted comes back as text.
  cache.compat = true;
  const textOf = (styles: Parameters<typeof css>[0]) => {
    const serialized = css(styles);
    return String(cache.insert('', serialized, cache.sheet, false) ?? '');
  };
  return `${system.layers.atRule}\n${textOf(system._global as Parameters<typeof css>[0])}`;
}
