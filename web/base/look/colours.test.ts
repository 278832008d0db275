import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

/** The tokens of one look, as the page has them. */
function tokensOf(look: 'day' | 'night'): Record<string, string> {
  const css = readFileSync('web/base/look/tokens.css', 'utf8');
  const [day = '', night = ''] = css.split('.v-theme--night');
  const read = (part: string) =>
    [...part.matchAll(/--([a-z-]+):\s*(#[0-9a-f]{6})/g)].map(([, name, hex]) => [name as string, hex as string]);
  return Object.fromEntries([...read(day), ...(look === 'night' ? read(night) : [])]) as Record<string, string>;
}
const channels = (hex: string): number[] =>
  [1, 3, 5].map((at) => {
    const share = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
/** relative luminance and contrast, WCAG 2.2 */
const luminance = (hex: string): number =>
  channels(hex).reduce((sum, each, index) => sum + each * ([0.2126, 0.7152, 0.0722][index] as number), 0);
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}
/** CIE L*a*b* under D65, and the distance of two colours in it (CIE 1976) */
function lab(hex: string): [number, number, number] {
  const [r, g, b] = channels(hex) as [number, number, number];
  const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t) / 116 + 16 / 116);
  const [x, y, z] = [(0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.95047, 0.2126 * r + 0.7152 * g + 0.0722 * b, (0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.08883].map(f) as [number, number, number]; // prettier-ignore
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
const deltaE = (a: string, b: string): number => Math.hypot(...lab(a).map((each, index) => each - (lab(b)[index] as number)));

/** Colours that liquids are sold in: those of the demo, and the ends of what there is. */
const LIQUIDS = [...[...readFileSync('demo/people.ts', 'utf8').matchAll(/colour: '(#[0-9a-f]{6})'/g)].map(([, hex]) => hex as string), '#f4f2ec', '#111111', '#c81e1e', '#2fbf4a']; // prettier-ignore

describe.each(['day', 'night'] as const)('the colours of the %s look', (look) => {
  const token = tokensOf(look);
  const of = (name: string): string => token[name] as string;

  it('let every word be read on every ground', () => {
    for (const ground of ['ground', 'sheet', 'well', 'glass']) {
      expect(contrast(of('ink'), of(ground)), ground).toBeGreaterThanOrEqual(7);
      expect(contrast(of('ink-soft'), of(ground)), ground).toBeGreaterThanOrEqual(4.5);
    }
    expect(contrast(of('ink'), of('danger-ground'))).toBeGreaterThanOrEqual(7);
    expect(contrast(of('danger'), of('danger-ground'))).toBeGreaterThanOrEqual(4.5);
    expect(contrast(of('on-danger'), of('danger'))).toBeGreaterThanOrEqual(4.5);
    expect(contrast(of('on-slab'), of('slab'))).toBeGreaterThanOrEqual(7);
  });

  it('set liquid off from what is empty by an edge and a level line, whatever its own colour is', () => {
    for (const liquid of LIQUIDS) {
      // the line round it stands out from what is outside; the liquid, or its line, from the glass inside
      expect(contrast(of('ink'), of('sheet'))).toBeGreaterThanOrEqual(3);
      expect(Math.max(contrast(liquid, of('glass')), contrast(of('ink'), of('glass'))), liquid).toBeGreaterThanOrEqual(3);
    }
    // the dashed middle of an empty stretch
    expect(contrast(of('ink-soft'), of('glass'))).toBeGreaterThanOrEqual(3);
  });

  it('keep the ground of danger apart from every liquid', () => {
    for (const liquid of LIQUIDS) expect(deltaE(of('danger-ground'), liquid), liquid).toBeGreaterThanOrEqual(10);
  });
});

describe('patterns', () => {
  it('mean one thing: a hatch is predicted, what is over is solid, waste is dotted', () => {
    const style = (file: string): string => readFileSync(file, 'utf8').split('<style')[1] ?? '';
    for (const file of ['web/workshop/machines/LifeRow.vue', 'web/workshop/today/DueRunway.vue', 'web/workshop/waste/WasteShelf.vue', 'web/bench/instruments/InstrumentStrip.vue']) expect(style(file), file).not.toContain('repeating-linear-gradient'); // prettier-ignore
    expect(style('web/workshop/waste/WasteShelf.vue')).toContain('radial-gradient');
  });
});
