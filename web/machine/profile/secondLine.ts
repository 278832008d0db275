import { isStoredUnit, shownIn } from '@core/base/units/shown.js';

/** A figure at each "component.port", drawn beside the heights with a scale of its own. */
export interface SecondLine {
  readonly unit: string;
  readonly at: ReadonlyMap<string, number>;
  /** values the scale must hold besides its own, so that two drawings can be compared */
  readonly beside?: readonly number[];
}

/** steps of a scale, in the unit of its reader */
const STEPS = [0.5, 1, 2, 5, 10, 20, 50];
const MOST_TICKS = 6;

/** The line and its ticks, in the unit of its reader. @param ports of what is drawn: where each stands, px @returns null: nothing to draw */
export function drawSecondLine(
  { unit, at, beside = [] }: SecondLine,
  ports: readonly { readonly name: string; readonly x: number }[],
  height: number,
): { d: string; ticks: { value: number; y: number }[] } | null {
  const asRead = (value: number): number => (isStoredUnit(unit) ? shownIn(unit, value) : value);
  const found = ports
    .flatMap(({ name, x }) => (at.has(name) ? [{ x, value: asRead(at.get(name) as number) }] : []))
    .sort((a, b) => a.x - b.x);
  if (found.length === 0) return null;
  const values = [...found.map(({ value }) => value), ...beside.map(asRead)];
  // pressure is read from zero; temperatures from just below the coolest
  const low = unit === 'kPa' ? Math.min(0, ...values) : Math.floor(Math.min(...values));
  const high = Math.max(low + 1, ...values);
  const y = (value: number): number => height - 20 - ((value - low) / (high - low)) * (height - 54);
  const step = STEPS.find((each) => (high - low) / each <= MOST_TICKS) ?? 100;
  const ticks = Array.from({ length: Math.floor(high / step) - Math.ceil(low / step) + 1 }, (_, index) => {
    const value = (Math.ceil(low / step) + index) * step;
    return { value, y: y(value) };
  });
  return { d: `M${found.map(({ x, value }) => `${x.toFixed(1)} ${y(value).toFixed(1)}`).join('L')}`, ticks };
}
