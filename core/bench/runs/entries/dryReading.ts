import { say } from '../../../base/words/say.js';
import { finite } from '../../../base/checking/fields.js';
import { formatIn, formatKpa } from '../../../base/units/display.js';
import { LET_OUT_KPA, MOST_GAUGE_KPA } from '../../../physics/leak-testing/defaults.js';
import { AIR_OUT } from '../checkIds.js';
import { beginDryTest, judgeDryTest } from '../dryTest.js';
import { isPumpedUp } from '../../../physics/leak-testing/decay.js';
import { bySource, remark, stamp, type EntryDefinition } from '../entry.js';
import { pressureAgainst, sealsAgainst } from '../locks.js';
import type { DryReading, ReadingSource, RunState } from '../state.js';
import { source } from './fields.js';

export interface DryReadingEntry extends DryReading {
  readonly type: 'dry-reading';
  readonly source?: ReadingSource;
}

/** Under pressure again: what was let out before says nothing. */
function openAirCheck(state: RunState): void {
  const step = state.steps.find(({ kind }) => kind === 'dry-test');
  const mark = step?.checks[AIR_OUT];
  if (step && mark?.mark === 'done') step.checks[AIR_OUT] = { ...mark, mark: 'open' };
}

export const dryReading: EntryDefinition<DryReadingEntry> = {
  schema: {
    gaugeKpa: finite().min(-20).max(200).required(),
    tempC: finite().min(-10).max(60).required(),
    atmosphereKpa: finite().min(50).max(120),
    source,
  },
  belongs: { kind: 'dry-test' },
  apply: (state, { gaugeKpa, tempC, atmosphereKpa, source: from }, made, procedure) => {
    const reading = stamp(made, { gaugeKpa, tempC, atmosphereKpa }, from);
    const last = state.dryReadings.at(-1);
    const isOut = gaugeKpa <= LET_OUT_KPA && last !== undefined && last.value.gaugeKpa > LET_OUT_KPA;
    // an instrument goes on reading while the air of a passed test is let out: that is no leak
    if (isOut && judgeDryTest(procedure, state)?.verdict === 'pass') return;
    if (gaugeKpa > LET_OUT_KPA) openAirCheck(state);
    const isLater = last !== undefined && Date.parse(last.at) < Date.parse(made.at);
    if (isLater && isPumpedUp({ tS: 0, ...last.value }, { tS: 1, ...reading.value }))
      beginDryTest(procedure, state, remark(made, say('Pumped up again: a new test begins.')));
    state.dryReadings.push(reading);
  },
  // runs that began before their loop's facts were kept know the cap alone
  locks: ({ gaugeKpa }, { procedure: { facts }, state }) => [
    ...pressureAgainst(facts ?? { mostGaugeKpa: MOST_GAUGE_KPA, weakest: null }, gaugeKpa),
    ...(gaugeKpa > LET_OUT_KPA ? sealsAgainst(state) : []),
  ],
  reads: ({ gaugeKpa, tempC, source: from }) =>
    say('Gauge {formatKpa} at {temp}{bySource}', {
      formatKpa: formatKpa(gaugeKpa),
      temp: formatIn('°C', tempC, 1),
      bySource: bySource(from),
    }),
};
