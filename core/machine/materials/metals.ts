import { grouped } from '../../base/units/display.js';
import { say } from '../../base/words/say.js';
/**
 * Anodic index in V: how far two wetted metals stand apart in a conducting liquid (practice after MIL-STD-889;
 * figures of the handbook). It does not see porous plating: findings on plugs and plates add to it.
 */
export const ANODIC_INDEX_V = {
  aluminium: -0.9,
  zinc: -1.25,
  'tin-lead solder': -0.65,
  'chromium plate': -0.6,
  stainless: -0.5,
  brass: -0.4,
  copper: -0.35,
  nickel: -0.3,
  silver: -0.15,
} as const;

export type Metal = keyof typeof ANODIC_INDEX_V;
/** metals as people read them */
export const METAL_WORDS: Readonly<Record<Metal, string>> = {
  aluminium: 'aluminium',
  zinc: 'zinc',
  'tin-lead solder': 'tin-lead solder',
  'chromium plate': 'chromium plate',
  stainless: 'stainless steel',
  brass: 'brass',
  copper: 'copper',
  nickel: 'nickel',
  silver: 'silver',
};
export const METAL_KEYS = Object.keys(ANODIC_INDEX_V) as Metal[];

export const METAL_LIMITS_V = {
  /** V apart; fine in any coolant */
  fine: 0.15,
  /** V apart; fine while the inhibitor holds */
  withInhibitor: 0.25,
} as const;

export type PairVerdict = 'fine' | 'with-inhibitor' | 'warn' | 'refuse';

export interface MetalPair {
  readonly nobler: Metal;
  readonly baser: Metal;
  readonly apartV: number;
  readonly verdict: PairVerdict;
  readonly why: string;
}

export const isMetal = (material: string): material is Metal => Object.hasOwn(ANODIC_INDEX_V, material);

const COPPER_ALLOYS: ReadonlySet<Metal> = new Set(['copper', 'brass']);

export function judgePair(a: Metal, b: Metal): MetalPair {
  const [baser, nobler] = ANODIC_INDEX_V[a] <= ANODIC_INDEX_V[b] ? [a, b] : [b, a];
  const apartV = ANODIC_INDEX_V[nobler] - ANODIC_INDEX_V[baser];
  const pair = { nobler, baser, apartV };
  const apart = say('{apartV} V apart', { apartV: grouped(apartV, 2) });
  if (baser === 'aluminium' && COPPER_ALLOYS.has(nobler)) {
    return {
      ...pair,
      verdict: 'refuse',
      why: say('{apart}: aluminium dissolves and copper plates out, unless the coolant’s sheet allows the pair', { apart }),
    };
  }
  if (a !== b && (a === 'silver' || b === 'silver') && (a === 'nickel' || b === 'nickel')) {
    return { ...pair, verdict: 'warn', why: say('{apart}: silver strips nickel plating', { apart }) };
  }
  // solder lies inside the radiator's own copper: what it meets first is that, whatever else the loop holds
  if (baser === 'tin-lead solder') {
    return {
      ...pair,
      verdict: 'with-inhibitor',
      why: say('{apart}: usual inside a soldered radiator, while the inhibitor holds', { apart }),
    };
  }
  if (apartV <= METAL_LIMITS_V.fine + 1e-9) return { ...pair, verdict: 'fine', why: apart };
  if (apartV <= METAL_LIMITS_V.withInhibitor + 1e-9)
    return { ...pair, verdict: 'with-inhibitor', why: say('{apart}: needs an inhibitor', { apart }) };
  return { ...pair, verdict: 'warn', why: say('{apart}: {baser} is eaten where the coolant conducts', { apart, baser }) };
}

const SEVERITY: Record<PairVerdict, number> = { refuse: 0, warn: 1, 'with-inhibitor': 2, fine: 3 };

/** Every pair of wetted metals, the worst first. Materials that are no metal of the table are left out. */
export function judgeMetals(materials: readonly string[]): MetalPair[] {
  const metals = [...new Set(materials.filter(isMetal))];
  return metals
    .flatMap((a, index) => metals.slice(index + 1).map((b) => judgePair(a, b)))
    .sort((a, b) => SEVERITY[a.verdict] - SEVERITY[b.verdict] || b.apartV - a.apartV);
}
