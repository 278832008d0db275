/** mm */
export interface ScrewStack {
  readonly fanMm: number;
  /** washers and gasket together */
  readonly washersMm: number;
  /** the radiator's threaded flange */
  readonly flangeMm: number;
  /** from behind the flange to the first tube or fin */
  readonly clearanceMm: number;
  /** thread that must hold */
  readonly threadMinMm: number;
}

export const SCREWS = {
  /** mm; three turns of an M3 or 6-32 screw hold a fan (handbook M) */
  threadMinMm: 3,
  /** mm kept between a screw's tip and the radiator's tubes */
  tipGapMm: 1,
} as const;

export interface ScrewChoice {
  readonly minMm: number;
  /** a longer one drives its tip into the radiator's tubes: the leak shows when the radiator is full */
  readonly maxMm: number;
  /** stock lengths that hold and do not reach the tubes, shortest first */
  readonly fits: readonly number[];
}

/** Screw lengths under the head that hold a fan on a radiator without reaching its tubes. */
export function fanScrews({ fanMm, washersMm, flangeMm, clearanceMm, threadMinMm }: ScrewStack, stockMm: readonly number[]): ScrewChoice {
  const minMm = fanMm + washersMm + threadMinMm;
  const maxMm = fanMm + washersMm + flangeMm + clearanceMm - SCREWS.tipGapMm;
  return { minMm, maxMm, fits: stockMm.filter((length) => length >= minMm && length <= maxMm).sort((a, b) => a - b) };
}

/** What the screws of one radiator's fans pass on their way, as it was measured; mm. */
export interface MeasuredStack {
  /** of the case, where the screw goes through it as well */
  readonly panelMm: number;
  /** washers and gasket together */
  readonly washersMm: number;
  readonly spacerMm: number;
  readonly fanMm: number;
  readonly flangeMm: number;
  /** from behind the flange to the first tube or fin, felt with a pin */
  readonly clearanceMm: number;
}
export const STACK_FIELDS = [
  'panelMm',
  'washersMm',
  'spacerMm',
  'fanMm',
  'flangeMm',
  'clearanceMm',
] as const satisfies readonly (keyof MeasuredStack)[];
/** By radiator id; one that is missing was never measured. */
export type FanStacks = Readonly<Record<string, MeasuredStack>>;

/** A usual stack to begin with, never to drive a screw by (workshop practice). */
export const USUAL_STACK: MeasuredStack = { panelMm: 0, washersMm: 1, spacerMm: 0, fanMm: 25, flangeMm: 1.5, clearanceMm: 4 };
/** lengths under the head that are sold, mm: through a panel alone, through a thin fan, through a usual one */
export const STOCK_SCREWS_MM: readonly number[] = [5, 6, 8, 10, 12, 18, 20, 25, 28, 30, 32, 35, 38, 40];

/** The screws that one stack takes. */
export const screwsOfStack = (
  { panelMm, washersMm, spacerMm, fanMm, flangeMm, clearanceMm }: MeasuredStack,
  stockMm: readonly number[] = STOCK_SCREWS_MM,
): ScrewChoice =>
  fanScrews({ fanMm, washersMm: panelMm + washersMm + spacerMm, flangeMm, clearanceMm, threadMinMm: SCREWS.threadMinMm }, stockMm);

/** Stock lengths that fit the fans of one radiator; empty: none does. null: nobody measured its stack. */
export function lengthsFor(stacks: FanStacks | undefined, radiator: string): readonly number[] | null {
  const stack = stacks && Object.hasOwn(stacks, radiator) ? stacks[radiator] : undefined;
  return stack ? screwsOfStack(stack).fits : null;
}
