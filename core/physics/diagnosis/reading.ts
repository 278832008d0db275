/** What a figure is of the run that it was read in. */
export const BASELINE_STATISTICS = [
  'mean of the last five minutes',
  'mean of the last ten minutes',
  'mean of the whole run',
  'peak',
  'last value',
] as const;
export type BaselineStatistic = (typeof BASELINE_STATISTICS)[number];

/** Conditions and values of one baseline measurement. Temperatures in °C. */
export interface BaselineReading {
  readonly setting: string;
  readonly workload: string;
  readonly durationMinutes: number;
  readonly powerW: number | null;
  readonly sensor: string;
  readonly statistic: BaselineStatistic;
  readonly panels: 'on' | 'off';
  readonly pumpPercent: number;
  readonly fanPercent: number;
  readonly roomC: number;
  readonly partC: number;
  readonly coolantC: number | null;
  readonly flowLph: number | null;
  readonly levelMm: number | null;
  /** before a service: fins and filters had been cleaned, nothing was opened yet */
  readonly dusted?: boolean;
  /** of a build: what cooled it before the loop did; says nothing of the loop itself */
  readonly oldCooler?: boolean;
  /** where its curve would have ended, where it was read before its end; missing: nobody watched it warm */
  readonly warming?: { readonly reachedFraction: number; readonly endsC: number; readonly endsSdK: number };
}

/** Another sensor read at the same moment, under the same conditions. */
export type AlsoRead = Pick<BaselineReading, 'sensor' | 'partC' | 'powerW' | 'warming'>;

/** One set of conditions with many sensors, as a reading for each. */
export const readingsTogether = (reading: BaselineReading, others: readonly AlsoRead[]): BaselineReading[] => [
  reading,
  // what one sensor's curve said is not said of another
  ...others.map(({ warming, ...other }) => {
    const { warming: _, ...conditions } = reading;
    return { ...conditions, ...other, ...(warming ? { warming } : {}) };
  }),
];
