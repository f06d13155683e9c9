import { describe, expect, it } from 'vitest';
import { boostFromText, boostText } from './boost';

const read = (text: string) => {
  const bands = boostFromText(text);
  return bands.ok ? bands.value : bands.error;
};

describe('boostFromText', () => {
  it('reads bands in any order and writes them back as they stood', () => {
    const text = '210 kPa: 0.50 to 0.60 mm | 180 kPa: .024-.028 in';
    const bands = read(text);
    expect(bands).toMatchObject([
      { upToKpa: 180, minMm: 0.6096, maxMm: 0.7112 },
      { upToKpa: 210, minMm: 0.5, maxMm: 0.6 },
    ]);
    expect(boostFromText(typeof bands === 'string' ? '' : boostText(bands))).toEqual({ ok: true, value: bands });
    expect(read('')).toEqual([]);
  });

  it.each([
    ['1.8 bar: 0.6 to 0.7 mm', 'cannot be read'],
    ['180 kPa: 0.65 mm', 'is no range'],
    ['900 kPa: 0.6 to 0.7 mm', 'cannot be read'],
    ['180 kPa: 0.6 to 0.7 mm | 180 kPa: 0.5 to 0.6 mm', 'twice'],
  ])('says what is wrong with %s', (text, why) => {
    expect(read(text)).toContain(why);
  });
});
