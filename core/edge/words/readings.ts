import { say, type Messages } from '../../base/words/say.js';
import { digitsIn, formatDegrees, formatIn, formatPercent, grouped } from '../../base/units/display.js';
import type { BaselineComparison } from '../../physics/diagnosis/compare.js';
import type { CauseCheck, HeatCause } from '../../physics/diagnosis/causes.js';
import type { Evidence } from '../../physics/diagnosis/diagnose.js';
import type { ReadingDifference } from '../../physics/diagnosis/compareReadings.js';

const UNLIKE_WORDS: Messages<'workload' | 'sensor' | 'statistic' | 'panels' | 'profile'> = {
  workload: 'another workload',
  sensor: 'another sensor',
  statistic: 'another statistic',
  panels: 'panels on the one time, off the other',
  profile: 'another profile, and no figures of pump and fans',
};
const CONDITION_WORDS: Messages<'workload' | 'sensor' | 'statistic' | 'panels' | 'pumpSpeed' | 'fanSpeed' | 'coolantC'> = {
  workload: 'the workload',
  sensor: 'the sensor',
  statistic: 'the statistic',
  panels: 'the panels',
  pumpSpeed: 'the pump’s setting',
  fanSpeed: 'the fans’ setting',
  coolantC: 'the coolant’s temperature',
};
const SIDE_WORDS: Messages<'before' | 'after'> = { before: 'before', after: 'after' };

/** One way in which two readings are unlike. */
export function differenceWords(difference: ReadingDifference): string {
  switch (difference.what) {
    case 'unlike':
      return say(UNLIKE_WORDS[difference.condition]);
    case 'setting':
      return say('{condition} differs: {before} and {after}', {
        condition: say(CONDITION_WORDS[difference.condition]),
        before: formatPercent(difference.before),
        after: formatPercent(difference.after),
      });
    case 'missing':
      return say('{condition} is missing {side}', {
        condition: say(CONDITION_WORDS[difference.condition]),
        side: say(SIDE_WORDS[difference.in]),
      });
    case 'not-warm':
      return say('it had come only {reached} of its way {side}', {
        reached: formatPercent(difference.reached),
        side: say(SIDE_WORDS[difference.in]),
      });
    case 'power':
      return say('the power of {part} differs: {before} and {after} W', {
        part: difference.part,
        before: Math.round(difference.beforeW),
        after: Math.round(difference.afterW),
      });
    case 'share-of-heat':
      return say('{part} has another share of the heat, and no coolant was measured', { part: difference.part });
    case 'changed-part':
      return say('{part} was replaced', { part: difference.part });
    case 'no-power':
      return say('{part} has no power in one of them', { part: difference.part });
    case 'part-missing':
      return say('{part} is missing in one of them', { part: difference.part });
  }
}

/** What two baselines come to: kelvin at the same power, give or take one standard deviation, or why it cannot be told. */
export function comparisonWords({ verdict, changeK, sdK, atLeast, differences }: Omit<BaselineComparison, 'powerUnknown'>): string {
  if (changeK === null || sdK === null || verdict === 'not-comparable') {
    const why = differences.filter(({ what }) => what !== 'missing').map(differenceWords);
    return why.length > 0 ? say('not comparable: {why}', { why: why.join('; ') }) : say('not comparable');
  }
  const size = `${digitsIn('K', Math.abs(changeK), 1)} ± ${formatIn('K', sdK, 1)}`;
  if (verdict === 'as-before')
    return say('no difference seen: {change} ± {sd} at the same power', { change: digitsIn('K', changeK, 1), sd: formatIn('K', sdK, 1) });
  if (atLeast)
    return verdict === 'cooler'
      ? say('at least {size} cooler than before: its task was harder', { size })
      : say('at least {size} hotter than before: its task was easier', { size });
  return verdict === 'cooler' ? say('{size} cooler than before', { size }) : say('{size} hotter than before', { size });
}

/** The same per watt: "−0.054 K/W"; empty where nothing can be told, or nobody knew the power. */
export const perWattWords = ({
  changeKPerW,
  powerUnknown = false,
}: {
  readonly changeKPerW: number | null;
  readonly powerUnknown?: boolean;
}): string => (changeKPerW === null || powerUnknown ? '' : `${changeKPerW > 0 ? '+' : ''}${grouped(changeKPerW, 3)} K/W`);

const CAUSE_WORDS: Messages<HeatCause> = {
  nothing: 'nothing: room and load explain it',
  dust: 'dust on {part}',
  fan: 'a slow or still fan at {part}',
  paste: 'dry paste under {part}',
  block: 'choked fins in {part}',
  radiator: '{part} choked inside',
  pump: 'a weak pump',
  kink: 'a kink or a pinched tube',
  'air-inside': 'air inside',
  coolant: 'coolant grown thick',
};
/** @param part its name, where a cause sits at one */
export const causeWords = (cause: HeatCause, part: string | null): string => say(CAUSE_WORDS[cause], { part });

const EVIDENCE: Messages<Evidence['figure']> = {
  flow: 'flow {read}, sound it would be {sound}, with this {shows}',
  coolant: 'coolant {read}, sound it would be {sound}, with this {shows}',
  part: '{part} {read}, sound it would be {sound}, with this {shows}',
};
/** What one figure says of a cause. @param part its name, where it is one */
export function evidenceWords({ figure, read, sound, shows }: Evidence, part: string): string {
  const show = (value: number): string => (figure === 'flow' ? formatIn('L/h', value) : formatDegrees(value));
  return say(EVIDENCE[figure], { part, read: show(read), sound: show(sound), shows: show(shows) });
}

/** Looks at a machine that runs worse, and what they find. */
export const CHECK_WORDS: Readonly<Record<CauseCheck, { readonly look: string; readonly found: string; readonly sound: string }>> = {
  'look-at-fans': { look: 'Look at every fan under load', found: 'one is slow or still', sound: 'all turn alike' },
  'look-at-fins': { look: 'A light behind the fins and filters', found: 'dust between them', sound: 'light comes through' },
  'feel-tubes': { look: 'Two fingers along every tube', found: 'kinked or pinched', sound: 'round all along' },
  'listen-to-pump': { look: 'An ear at the pump', found: 'it rattles or hums unevenly', sound: 'it runs quietly' },
  'look-for-bubbles': { look: 'The return and the level, at full speed', found: 'bubbles come back', sound: 'no bubbles' },
  'look-at-colour': { look: 'The coolant beside its retained sample', found: 'another colour, or cloudy', sound: 'the same' },
  'rinse-the-radiator': {
    look: 'A jug of water through the radiator alone',
    found: 'flakes or dirt come out',
    sound: 'it runs clear and freely',
  },
  'renew-the-paste': { look: 'The cooler off, the paste renewed', found: 'dry, or not all over', sound: 'soft and all over' },
  'open-the-block': { look: 'The block open, its fins under a light', found: 'choked', sound: 'open' },
};
