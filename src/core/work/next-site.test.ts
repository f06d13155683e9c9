import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import { siteId } from '../engine/model';
import type { FloorSite } from './job-record';
import { gaugeSteps, nextSite } from './next-site';

const sitesOf = (model: Parameters<typeof layoutOf>[0]): readonly FloorSite[] =>
  layoutOf(model).sites.map((site) => ({
    ...site,
    id: siteId(site),
    name: siteId(site),
    where: '',
    expectedNumber: null,
    expectedKeys: null,
    fittedGapMm: null,
    sinceKm: null,
    doneBy: null,
    measured: {},
    fittedWith: null,
    redo: false,
  }));

describe('nextSite', () => {
  it('leads through every site once, one bank after the other, from wherever one begins', () => {
    fc.assert(
      fc.property(anyEngine, fc.nat(), (model, start) => {
        const sites = sitesOf(model);
        const done = new Set<string>();
        let at: FloorSite | null = sites[start % sites.length] ?? null;
        const walked: FloorSite[] = [];
        while (at) {
          walked.push(at);
          done.add(at.id);
          at = nextSite(sites, at.id, (id) => done.has(id));
        }
        expect(new Set(walked.map(({ id }) => id)).size).toBe(sites.length);
        const changes = walked.filter((site, i) => i > 0 && site.bank !== walked[i - 1]?.bank).length;
        expect(changes).toBeLessThanOrEqual(model.banks.length);
      }),
    );
  });

  it('is nothing when all are done', () => {
    fc.assert(fc.property(anyEngine, (model) => nextSite(sitesOf(model), '1A', () => true) === null));
  });
});

describe('gaugeSteps', () => {
  it('are gauges that exist, rising, round what is expected', () => {
    expect(gaugeSteps(1.05, { below: 1, above: 2 })).toEqual([1, 1.05, 1.1, 1.15]);
    fc.assert(
      fc.property(fc.double({ min: 0.4, max: 2, noNaN: true }), fc.nat(9), fc.nat(9), (expected, below, above) => {
        const steps = gaugeSteps(expected, { below, above });
        expect(steps).toEqual([...steps].sort((a, b) => a - b));
        for (const mm of steps) {
          expect(mm).toBeGreaterThanOrEqual(0.4);
          expect(mm).toBeLessThanOrEqual(2);
          expect(Math.abs(mm / 0.05 - Math.round(mm / 0.05))).toBeLessThan(1e-9);
        }
      }),
    );
  });
});
