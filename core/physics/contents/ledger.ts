import { AGREES_WITHIN_SD } from '../measuring/errors.js';
import type { RinseLiquid } from '../../machine/liquids/rinsing.js';
import type { Volume } from '../../machine/loop-file/volume.js';

/** What a liquid is to the book: what stood inside, water, cleaner, or the coolant that stays. */
export type LedgerLiquid = 'old' | 'water' | 'cleaner' | 'coolant';

export interface Flow {
  readonly eventId: string;
  readonly at: string;
  /** `emptied`: taken apart, so that nothing is inside any more */
  readonly way: 'in' | 'out' | 'lost' | 'emptied';
  readonly liquid: LedgerLiquid;
  readonly volumeMl: number;
}

/** What the twin's figures are off by, against a book kept by hand (estimates). */
export const LEDGER = {
  /** share of the loop that clings to walls and fins even where everything runs out: old liquid is never quite gone */
  filmShare: 0.02,
  /** mL and share by which the twin's figure for what stays may be off: foam, tilt, films on walls */
  leftSdMl: 25,
  leftSdShare: 0.15,
} as const;

export const RINSE_AS: Readonly<Record<RinseLiquid, LedgerLiquid>> = {
  distilled: 'water',
  mains: 'water',
  cleaner: 'cleaner',
  'spare-coolant': 'coolant',
};

/** What flowed, and what is in the mix. */
export interface Tally {
  readonly inMl: number;
  readonly outMl: number;
  readonly lostMl: number;
  /** the loop was taken apart: what is inside now went in since */
  readonly emptied: boolean;
  /** mL by the book that nobody saw leave before it was taken apart: on towels, in parts; negative: more came than was in */
  readonly unseenMl: number;
  /** share of each liquid in what is inside, as if every rinse mixed through; all 0 when empty */
  readonly shares: Readonly<Record<LedgerLiquid, number>>;
}

/** The tally beside how much is inside, which the live book alone knows. */
export interface Ledger extends Tally {
  /** below nothing: more came out than was in; null where nobody knows what stood inside */
  readonly insideMl: number | null;
  readonly sdMl: number;
}

/** mL that more went in than left. */
export const netMl = (flows: readonly Flow[]): number =>
  flows.reduce((so, { way, volumeMl }) => so + (way === 'in' ? volumeMl : way === 'emptied' ? 0 : -volumeMl), 0);

/**
 * What stood inside, what came out, what went in. Liquids are taken as mixed through, which the pump does in a minute;
 * rinses that were not pumped round carry more over.
 * @param start mL that stood inside; null where nobody knows, then only in, out and lost are told
 * @param flows in the order they happened
 */
export function keepTally(start: Volume | null, flows: readonly Flow[]): Tally {
  const sum = (way: Flow['way']): number => flows.filter((flow) => flow.way === way).reduce((so, { volumeMl }) => so + volumeMl, 0);
  const contents: Record<LedgerLiquid, number> = { old: start?.volumeMl ?? 0, water: 0, cleaner: 0, coolant: 0 };
  const liquids = Object.keys(contents) as LedgerLiquid[];
  const filmMl = LEDGER.filmShare * (start?.volumeMl ?? 0);
  const whole = (): number => liquids.reduce((so, liquid) => so + contents[liquid], 0);
  for (const { way, liquid, volumeMl } of flows) {
    if (way === 'emptied') for (const each of liquids) contents[each] = 0;
    else if (way === 'in') contents[liquid] += volumeMl;
    else {
      const before = whole();
      const stays = Math.max(before - volumeMl, Math.min(before, filmMl));
      const keeps = before <= 0 ? 0 : stays / before;
      for (const each of liquids) contents[each] *= keeps;
    }
  }
  const all = whole();
  const emptiedAt = flows.findLastIndex(({ way }) => way === 'emptied');
  return {
    inMl: sum('in'),
    outMl: sum('out'),
    lostMl: sum('lost'),
    emptied: emptiedAt >= 0,
    unseenMl: emptiedAt >= 0 && start ? start.volumeMl + netMl(flows.slice(0, emptiedAt)) : 0,
    shares: Object.fromEntries(liquids.map((liquid) => [liquid, all > 0 ? contents[liquid] / all : 0])) as Record<LedgerLiquid, number>,
  };
}

/** mL that the twin's own figure for what stays may be off. */
export const twinLeftSdMl = (leftMl: number): number => Math.hypot(LEDGER.leftSdMl, LEDGER.leftSdShare * leftMl);

/**
 * mL of the old coolant that stand in this job's own jug: what came out before anything else went in, less what was put
 * back. What came out behind a rinse is water with a rest of it, and no coolant any more.
 */
export function ownJugMl(flows: readonly Flow[]): number {
  const rinsedAt = flows.findIndex(({ way, liquid }) => way === 'in' && (liquid === 'water' || liquid === 'cleaner'));
  const before = rinsedAt < 0 ? flows : flows.slice(0, rinsedAt);
  const cameMl = before.reduce((sum, { way, liquid, volumeMl }) => (way === 'out' && liquid === 'old' ? sum + volumeMl : sum), 0);
  const backMl = flows.reduce((sum, { way, liquid, volumeMl }) => (way === 'in' && liquid === 'old' ? sum + volumeMl : sum), 0);
  return Math.max(0, cameMl - backMl);
}

/** How the book and the twin agree. `ml`: what is inside, or by how much they are apart; `slackMl`: two standard deviations. */
export interface LedgerVerdict {
  readonly kind: 'cannot-tell' | 'inside' | 'balances' | 'more-out-than-in' | 'more-left-than-predicted' | 'less-left-than-predicted';
  readonly ml: number;
  readonly slackMl: number;
}

/**
 * Whether the book balances: nobody can take out more than was in, and what is left should be what the twin says stays.
 * @param predicted mL that stay inside after the planned stands, by the twin and this loop's own drains; null before the last of them
 */
export function judgeLedger({ insideMl, sdMl }: Pick<Ledger, 'insideMl' | 'sdMl'>, predicted: Volume | null): LedgerVerdict {
  if (insideMl === null) return { kind: 'cannot-tell', ml: 0, slackMl: 0 };
  const slackMl = AGREES_WITHIN_SD * sdMl;
  if (insideMl < -slackMl) return { kind: 'more-out-than-in', ml: -insideMl, slackMl };
  const left = Math.max(0, insideMl);
  if (predicted === null) return { kind: 'inside', ml: left, slackMl };
  const apart = insideMl - predicted.volumeMl;
  const sd = Math.hypot(sdMl, predicted.sdMl);
  if (apart > AGREES_WITHIN_SD * sd) return { kind: 'more-left-than-predicted', ml: apart, slackMl };
  if (apart < -AGREES_WITHIN_SD * sd) return { kind: 'less-left-than-predicted', ml: -apart, slackMl };
  return { kind: 'balances', ml: left, slackMl };
}
