import { computed, reactive, ref, watch, type ComputedRef, type Ref } from 'vue';
import { latelyRead } from '@core/bench/instruments/latelyRead.js';
import { PART_INSTRUMENTS, type InstrumentKind } from '@core/bench/instruments/kinds.js';
import { streamedNote, warmingOf, type Warming } from '@core/bench/runs/warming.js';
import type { ReadingSource, RunState } from '@core/bench/runs/state.js';
import { compareBaselines } from '@core/physics/diagnosis/compare.js';
import type { AlsoRead, BaselineReading } from '@core/physics/diagnosis/reading.js';
import { PART_KINDS, type PartKind } from '@core/physics/diagnosis/sensors.js';
import { comparisonWords, perWattWords } from '@core/edge/words/readings.js';
import { whenChanged } from '../../base/look/whenChanged.js';
import { useNow } from '../../base/units/now.js';
import { useRunBench } from '../instruments/liveBench.js';

type Nullable<T> = { -readonly [K in keyof T]: T[K] extends number ? number | null : T[K] };
type Conditions = Nullable<Omit<BaselineReading, 'warming' | 'sensor' | 'partC' | 'powerW' | 'dusted' | 'oldCooler'>>;

/** One sensor of the set. */
export interface SensorRow {
  sensor: string;
  partC: number | null;
  powerW: number | null;
}

/** A row with what was read of that sensor before and noted on the way. */
export interface SensorFace {
  readonly row: SensorRow;
  readonly earlier: BaselineReading | null;
  readonly warming: Warming | null;
  /** an instrument notes it by itself */
  readonly streams: boolean;
  /** the difference as it is typed */
  readonly soFar: string | null;
  readonly perWatt: string;
}

const NEEDED: readonly { key: keyof Conditions; word: string }[] = [
  { key: 'workload', word: 'workload' },
  { key: 'durationMinutes', word: 'duration' },
  { key: 'roomC', word: 'room temperature' },
  { key: 'pumpPercent', word: 'pump speed' },
  { key: 'fanPercent', word: 'fan speed' },
];
const isEmpty = (value: unknown): boolean => value === null || value === '';
const tenth = (value: number): number => Math.round(10 * value) / 10;
const CONDITIONS_OF: Readonly<Partial<Record<InstrumentKind, 'roomC' | 'coolantC' | 'flowLph'>>> = {
  'room-temp': 'roomC',
  'coolant-temp': 'coolantC',
  flow: 'flowLph',
};

export interface BaselineForm {
  readonly conditions: Conditions;
  readonly rows: SensorRow[];
  readonly faces: ComputedRef<SensorFace[]>;
  readonly dusted: Ref<boolean>;
  readonly oldCooler: Ref<boolean>;
  /** a machine on the bench says what its parts do, and nobody has watched it warm yet */
  readonly mayWatch: ComputedRef<boolean>;
  readonly liveParts: ComputedRef<readonly PartKind[]>;
  readonly source: ComputedRef<ReadingSource>;
  /** what is still missing, as the field says it */
  missing(): string[];
  /** the whole set; before: nothing is missing */
  whole(): { reading: BaselineReading; others: AlsoRead[] };
}

/** What is typed, or taken from instruments, for one set of conditions with many sensors. */
// eslint-disable-next-line max-lines-per-function -- one form whose parts share what was typed
export function useBaselineForm(props: { readonly state: RunState; readonly before?: boolean }): BaselineForm {
  const bench = useRunBench();
  const now = useNow();
  const dusted = ref(false);
  const oldCooler = ref(false);
  const conditions = reactive<Conditions>({
    setting: 'load, quiet',
    workload: '',
    durationMinutes: 45,
    statistic: 'mean of the last five minutes',
    panels: 'on',
    pumpPercent: 60,
    fanPercent: 40,
    roomC: null,
    coolantC: null,
    flowLph: null,
    levelMm: null,
  });
  const rows = reactive<SensorRow[]>([{ sensor: 'processor package', partC: null, powerW: null }]);
  const before = computed(() => props.before === true);
  const isLive = (kind: InstrumentKind): boolean => bench !== null && bench.value(kind, now.value) !== null;
  const liveParts = computed(() => PART_KINDS.filter((kind) => isLive(PART_INSTRUMENTS[kind].temp)));

  /** what was read before in the same setting, the last of each sensor: its conditions are proposed */
  const earlier = computed(() => {
    if (before.value || oldCooler.value) return new Map<string, BaselineReading>();
    const own = props.state.befores.filter(({ value }) => value.setting === conditions.setting);
    return new Map(own.map(({ value }) => [value.sensor, value]));
  });
  whenChanged(
    () => [...earlier.value.values()],
    (found) => {
      const [first] = found;
      if (!first) return;
      const { workload, statistic, panels, durationMinutes, pumpPercent, fanPercent } = first;
      Object.assign(conditions, { workload, statistic, panels, durationMinutes });
      if (!first.oldCooler) Object.assign(conditions, { pumpPercent, fanPercent });
      // what a hand has typed stays, whatever is proposed around it
      const typed = rows.filter(({ partC }) => partC !== null);
      const proposed = found.filter(({ sensor }) => !typed.some((row) => row.sensor === sensor));
      rows.splice(0, rows.length, ...typed, ...proposed.map(({ sensor, powerW }): SensorRow => ({ sensor, partC: null, powerW })));
    },
    { immediate: true },
  );

  /** what was put into a field by an instrument: a hand that typed something else is not written over */
  const taken = new Map<string, number>();
  function put(key: string, typed: number | null, value: number | null, set: (value: number) => void): void {
    if (value === null || (typed !== null && taken.get(key) !== typed)) return;
    taken.set(key, value);
    set(value);
  }
  watch(
    liveParts,
    (parts) => {
      const missing = parts.map((part) => PART_INSTRUMENTS[part].sensor).filter((sensor) => !rows.some((row) => row.sensor === sensor));
      const [first] = rows;
      // nobody has typed anything yet: the first row is the machine's first part
      if (missing.length > 0 && rows.length === 1 && first?.partC === null && earlier.value.size === 0) rows.splice(0, 1);
      rows.push(...missing.map((sensor): SensorRow => ({ sensor, partC: null, powerW: null })));
    },
    { immediate: true },
  );
  const history = computed(() => bench?.history.value ?? []);
  const read = (kind: InstrumentKind | null): number | null =>
    kind === null || !isLive(kind) ? null : (latelyRead(history.value, kind)?.value ?? null);
  function takeFromInstruments(): void {
    if (liveParts.value.length === 0) return;
    for (const [kind, key] of Object.entries(CONDITIONS_OF) as [InstrumentKind, 'roomC' | 'coolantC' | 'flowLph'][]) {
      const value = read(kind);
      put(
        key,
        conditions[key],
        value === null ? null : kind === 'flow' ? Math.round(value) : tenth(value),
        (each) => (conditions[key] = each),
      );
    }
    for (const part of liveParts.value) {
      const { temp, power, sensor } = PART_INSTRUMENTS[part];
      const row = rows.find((each) => each.sensor === sensor);
      const [partC, powerW] = [read(temp), read(power)];
      if (!row) continue;
      put(`${sensor} °C`, row.partC, partC === null ? null : tenth(partC), (each) => (row.partC = each));
      put(`${sensor} W`, row.powerW, powerW === null ? null : Math.round(powerW), (each) => (row.powerW = each));
      const { from } = warmingOf(props.state, sensor, before.value) ?? {};
      if (from !== undefined) {
        const minutes = Math.max(1, Math.round((now.value - Date.parse(from)) / 60_000));
        put('minutes', taken.has('minutes') ? conditions.durationMinutes : null, minutes, (each) => (conditions.durationMinutes = each));
      }
    }
    const [first] = liveParts.value;
    const isMean = first !== undefined && latelyRead(history.value, PART_INSTRUMENTS[first].temp)?.isMean === true;
    conditions.statistic = isMean ? 'mean of the last five minutes' : 'last value';
  }
  watch(now, takeFromInstruments, { immediate: true });

  const endOf = (warming: Warming | null): BaselineReading['warming'] => {
    const ends = warming?.ends;
    if (!ends || !Number.isFinite(ends.finalSdC)) return undefined;
    return { reachedFraction: ends.reachedFraction, endsC: ends.finalC, endsSdK: ends.finalSdC };
  };
  const conditionsGiven = (): boolean => NEEDED.every(({ key }) => !isEmpty(conditions[key]));
  const asReading = ({ sensor, partC, powerW }: SensorRow, warming: Warming | null): BaselineReading => {
    const end = endOf(warming);
    return {
      ...(conditions as BaselineReading),
      sensor,
      partC: partC as number,
      powerW,
      ...(dusted.value ? { dusted: true } : {}),
      ...(oldCooler.value ? { oldCooler: true } : {}),
      ...(end ? { warming: end } : {}),
    };
  };
  const faces = computed(() =>
    rows.map((row): SensorFace => {
      const known = earlier.value.get(row.sensor) ?? null;
      const warming = warmingOf(props.state, row.sensor, before.value);
      const compared = known && row.partC !== null && conditionsGiven() ? compareBaselines(known, asReading(row, warming)) : null;
      const soFar = compared && comparisonWords(compared);
      return {
        row,
        earlier: known,
        warming,
        soFar,
        perWatt: compared ? perWattWords(compared) : '',
        streams: streamedNote(props.state, row.sensor, before.value) !== null,
      };
    }),
  );

  return {
    conditions,
    rows,
    faces,
    dusted,
    oldCooler,
    liveParts,
    mayWatch: computed(() => liveParts.value.length > 0 && faces.value.every(({ streams }) => !streams)),
    source: computed(() => (liveParts.value.length > 0 ? (bench?.source.value ?? 'hand') : 'hand')),
    missing: () => [
      ...NEEDED.filter(({ key }) => isEmpty(conditions[key])).map(({ word }) => word),
      ...(rows.some(({ partC }) => partC !== null) ? [] : ['part temperature']),
    ],
    whole: () => {
      const [first, ...others] = faces.value.filter(({ row }) => row.partC !== null).map(({ row, warming }) => asReading(row, warming));
      const also = others.map(({ sensor, partC, powerW, warming }): AlsoRead => ({
        sensor,
        partC,
        powerW,
        ...(warming ? { warming } : {}),
      }));
      return { reading: first as BaselineReading, others: also };
    },
  };
}
