/** Conditions and values of one baseline measurement. Temperatures in °C. */
export interface BaselineReading {
  readonly setting: string;
  readonly workload: string;
  readonly durationMinutes: number;
  readonly powerW: number | null;
  readonly sensor: string;
  readonly statistic: 'peak' | 'mean of the last five minutes' | 'last value';
  readonly panels: 'on' | 'off';
  readonly pumpPercent: number;
  readonly fanPercent: number;
  readonly roomC: number;
  readonly partC: number;
  readonly coolantC: number | null;
  readonly flowLph: number | null;
  readonly levelMm: number | null;
  /** where its curve would have ended, where it was read before its end; missing: nobody watched it warm */
  readonly warming?: { readonly reachedFraction: number; readonly endsC: number; readonly endsSdK: number };
}
