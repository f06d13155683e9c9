import { ChakraProvider } from '@chakra-ui/react';
import { renderToStaticMarkup } from 'react-dom/server';
import { beforeAll, describe, expect, it } from 'vitest';
import { cylinderText, siteName } from '../../src/core/engine/layout';
import { siteId } from '../../src/core/engine/model';
import { CONDITIONS } from '../../src/core/inspection/vocabulary';
import { capital } from '../../src/core/shared/capital';
import { type EngineListItem, listEngines } from '../../src/server/catalogue/view-engine';
import { EngineDrawing } from '../../src/ui/drawings/engine-drawing';
import { PartDrawing } from '../../src/ui/drawings/part-drawing';
import { system } from '../../src/ui/theme/system';
import { demoWorkspace, value } from '../builders/workspace';

let engines: readonly EngineListItem[] = [];
beforeAll(async () => {
  const w = await demoWorkspace();
  engines = value(await listEngines(w.deps, w.supervisor));
});

const svgOf = (item: EngineListItem, ignition: boolean): string =>
  renderToStaticMarkup(
    <ChakraProvider value={system}>
      <EngineDrawing
        layout={item.layout}
        title={`Engine ${item.family.code}`}
        marks={Object.fromEntries(item.layout.sites.map((s) => [siteId(s), { state: 'plain', href: `#${siteId(s)}` }]))}
        ignition={ignition}
      />
    </ChakraProvider>,
  );
const count = (text: string, pattern: RegExp): number => [...text.matchAll(pattern)].length;

/** Plugs, coils, leads (with the coil lead) and towers that the drawing must show. */
const EXPECTED: Readonly<Record<string, readonly [number, number, number, number]>> = {
  'AG-11T': [3, 3, 0, 0],
  'AG-18': [4, 4, 0, 0],
  'AG-13R': [4, 1, 0, 0],
  'TV-22H': [4, 4, 0, 0],
  'TV-46D': [6, 1, 7, 6],
  'TV-28': [6, 6, 0, 0],
  'PW-38': [6, 6, 0, 0],
  'PW-34M': [6, 6, 0, 0],
  'PW-31W': [6, 3, 6, 0],
  'SX-29B': [12, 6, 12, 0],
  'SX-61T': [16, 8, 0, 0],
  'SX-52L': [8, 8, 0, 0],
  'PW-21F': [4, 4, 0, 0],
};

describe('the drawing of each demo engine', () => {
  it.each(Object.entries(EXPECTED))(
    '%s shows its plugs, coils, leads and towers',
    (code, [plugs, coils, leads, towers]) => {
      const item = engines.find((e) => e.family.code === code);
      if (!item) throw new Error(`no engine ${code}`);
      const svg = svgOf(item, true);
      const banks = item.layout.model.banks.length;
      const cap = towers > 0 ? 1 : 0;
      expect(count(svg, /<a /g)).toBe(plugs);
      for (const site of item.layout.sites)
        expect(svg).toContain(`aria-label="${capital(cylinderText(siteName(item.layout, site)))}"`);
      const rails = item.layout.model.connectorRail ? banks : 0;
      expect(count(svg, /<rect/g)).toBe(banks + coils + rails);
      expect(count(svg, /<circle/g)).toBe(plugs + towers + cap);
      expect(count(svg, /<path/g)).toBe(leads + cap);
      expect(svg).toContain('front of the vehicle');
      expect(svg).not.toMatch(/NaN|Infinity|undefined/);
    },
  );

  it('names its banks where there are two, and leaves the wiring out where it is not asked for', () => {
    for (const item of engines) {
      const svg = svgOf(item, false);
      expect(count(svg, /<rect/g)).toBe(item.layout.model.banks.length);
      for (const bank of item.layout.model.banks) expect(svg.includes(`>${bank.place}<`)).toBe(bank.place !== 'only');
    }
  });
});

describe('the drawing of a part that came out', () => {
  const drawn = (component: 'coil' | 'boot' | 'lead' | 'cap' | 'rotor' | 'seal', words: readonly string[]): string =>
    renderToStaticMarkup(
      <PartDrawing component={component} title="a part" seen={Object.fromEntries(words.map((word) => [word, 2]))} />,
    ).replace(/aria-label="[^"]*"/, '');

  it.each(['coil', 'boot', 'lead', 'cap', 'rotor', 'seal'] as const)(
    'shows every word of a %s, each otherwise',
    (component) => {
      const [normal, ...faults] = CONDITIONS[component];
      const all = [drawn(component, [normal]), ...faults.map((word) => drawn(component, [word]))];
      expect(new Set(all).size).toBe(all.length);
      // Nothing described is not the same as nothing wrong.
      expect(drawn(component, [])).not.toBe(drawn(component, [normal]));
    },
  );

  it('says in words what it shows', () => {
    const svg = renderToStaticMarkup(
      <PartDrawing component="cap" title="distributor cap" seen={{ 'cap cracked': 3 }} />,
    );
    expect(svg).toContain('aria-label="distributor cap: cap cracked"');
  });
});
