import { finite } from '../../../base/checking/fields.js';
import { formatKpa } from '../../../base/units/display.js';
import { MOST_GAUGE_KPA } from '../../../physics/leak-testing/defaults.js';
import { bySource, stamp, type EntryDefinition } from '../entry.js';
import { pressureAgainst } from '../locks.js';
import type { DryReading, ReadingSource } from '../state.js';
import { source } from './fields.js';

export interface DryReadingEntry extends DryReading {
  readonly type: 'dry-reading';
  readonly source?: ReadingSource;
}

export const dryReading: EntryDefinition<DryReadingEntry> = {
  schema: {
    gaugeKpa: finite().min(-20).max(200).required(),
    tempC: finite().min(-10).max(60).required(),
    atmosphereKpa: finite().min(50).max(120),
    source,
  },
  belongs: { kind: 'dry-test' },
  apply: (state, { gaugeKpa, tempC, atmosphereKpa, source: from }, made) =>
    void state.dryReadings.push(stamp(made, { gaugeKpa, tempC, atmosphereKpa }, from)),
  // runs that began before their loop's facts were kept know the cap alone
  locks: ({ gaugeKpa }, { procedure: { facts } }) => pressureAgainst(facts ?? { mostGaugeKpa: MOST_GAUGE_KPA, weakest: null }, gaugeKpa),
  reads: ({ gaugeKpa, tempC, source: from }) => `Gauge ${formatKpa(gaugeKpa)} at ${tempC.toFixed(1)} °C${bySource(from)}`,
};
