import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { formatKg } from '../../../base/units/display.js';
import { BENCH_C, scaleSdG } from '../../../physics/measuring/errors.js';
import { liquidAt, WATER } from '../../../machine/liquids/fluids.js';
import { WEIGHED } from '../checkIds.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { Procedure } from '../procedure.js';
import type { RunState } from '../state.js';
import { oneOf } from './fields.js';

/** The whole machine on a scale, before the first pour and once the last one is in. */
export type WeighedWhen = 'before' | 'after';
export const WEIGHED_WHEN: readonly WeighedWhen[] = ['before', 'after'];

export interface WeighedEntry {
  readonly type: 'weighed';
  readonly when: WeighedWhen;
  /** g */
  readonly massG: number;
}

/** g; more stands on no bench */
const MOST_G = 150_000;

/** g/mL of what is poured, at the bench. */
const densityGPerMl = ({ twin }: Procedure): number => liquidAt(twin?.liquid ?? WATER, BENCH_C).densityKgM3 / 1000;

/** mL inside by the two weights, what was inside at the first one included; null until both are known. */
export function insideByWeight(
  procedure: Procedure,
  { weights: { before, after } }: Pick<RunState, 'weights'>,
): { volumeMl: number; sdMl: number } | null {
  if (before === null || after === null || before.insideMl === null) return null;
  const perMl = densityGPerMl(procedure);
  return {
    volumeMl: before.insideMl + (after.massG - before.massG) / perMl,
    sdMl: Math.hypot(before.insideSdMl, Math.hypot(scaleSdG(before.massG), scaleSdG(after.massG)) / perMl),
  };
}

export const weighed: EntryDefinition<WeighedEntry> = {
  schema: { when: oneOf(WEIGHED_WHEN).required(), massG: finite().greater(0).max(MOST_G).required() },
  belongs: { kind: 'fill' },
  refuse: ({ when, massG }, { state: { weights } }) =>
    when === 'after' && weights.before !== null && massG < weights.before.massG - 2 * scaleSdG(massG)
      ? refusal('unsafe', { why: 'lighter-than-before', beforeG: weights.before.massG })
      : null,
  moves: (book, { when, massG }, { weights }, procedure) => {
    const inside = when === 'after' ? insideByWeight(procedure, { weights: { ...weights, after: { massG } } }) : null;
    if (inside) book.weighed(inside.volumeMl, inside.sdMl);
  },
  apply: (state, { when, massG }, { at, by }) => {
    const { insideMl, insideSdMl } = state.contents;
    if (when === 'before') state.weights.before = { massG, insideMl, insideSdMl };
    else state.weights.after = { massG };
    const id = say(WEIGHED[when]);
    for (const step of state.steps) if (step.kind === 'fill') step.checks[id] = { mark: 'done', reason: null, at, by };
  },
  reads: ({ when, massG }) =>
    say('Machine weighed {say}: {formatKg}', { say: when === 'before' ? say('before the fill') : 'filled', formatKg: formatKg(massG) }),
};
