import { formatIn, grouped } from '../../base/units/display.js';
import { DAYS_PER_MONTH } from '../../base/units/calendar.js';
import { say, sayWord } from '../../base/words/say.js';
import { colourVerdict } from '../../machine/liquids/colourDifference.js';
import { suspensionOf } from '../../machine/liquids/suspensions.js';
import { COOLANT_CLASSES, type CoolantClass } from '../../machine/liquids/classes.js';
import type { FalloutStage } from '../due-dates/facts.js';
import { JOB_KINDS, type JobKind } from '../job-kinds/kinds.js';

/** What eyes, hands and noses notice before anything is opened. */
export const SIGNS = {
  'colour-differs': 'Colour differs from the retained sample',
  cloud: 'Cloudy',
  flakes: 'Flakes or strings in the liquid',
  'settles-back': 'Settles when off, comes back when it runs',
  layer: 'A layer on the reservoir floor, settled when off',
  bits: 'Bits in the liquid after a refill',
  deposit: 'Green or black deposit in a block',
  foam: 'Foam that stays',
  smell: 'It smells',
  'instant-hot': 'Hot at once under light load',
  'slow-creep': 'Temperatures crept up over months',
  bubble: 'A bubble stands in a block',
  'level-falling': 'The level falls',
  'tube-milky': 'Tube yellow or milky',
  dust: 'Dust on the fins',
  'paste-old': 'Paste is old, one chip hotter than its neighbours',
  leak: 'A drop, a spot, a wet joint',
  noise: 'The pump sounds of air or of wear',
} as const;
export type Sign = keyof typeof SIGNS;
export const SIGN_KEYS = Object.keys(SIGNS) as Sign[];

/** The same in as few words as a tile has room for. */
export const SIGN_TILES: Readonly<Record<Sign, string>> = {
  'colour-differs': 'Another colour',
  cloud: 'Cloudy',
  flakes: 'Flakes, strings',
  'settles-back': 'Settles, comes back',
  layer: 'Layer on the floor',
  bits: 'Bits after a refill',
  deposit: 'Deposit in a block',
  foam: 'Foam that stays',
  smell: 'It smells',
  'instant-hot': 'Hot at once',
  'slow-creep': 'Crept up over months',
  bubble: 'Bubble in a block',
  'level-falling': 'The level falls',
  'tube-milky': 'Milky tube',
  dust: 'Dust on the fins',
  'paste-old': 'Old paste',
  leak: 'Drop, wet joint',
  noise: 'Noisy pump',
};

/** Where one looks: signs that are noticed together stand together. */
export const SIGN_PLACES = {
  liquid: 'In the liquid',
  settled: 'On floor, blocks and tube',
  warm: 'Warmer than it was',
  air: 'Air, leaks, noise',
} as const;
export type SignPlace = keyof typeof SIGN_PLACES;
export const signsAt: Readonly<Record<SignPlace, readonly Sign[]>> = {
  liquid: ['colour-differs', 'cloud', 'flakes', 'foam', 'smell'],
  settled: ['settles-back', 'layer', 'bits', 'deposit', 'tube-milky'],
  warm: ['instant-hot', 'slow-creep', 'dust', 'paste-old'],
  air: ['level-falling', 'bubble', 'leak', 'noise'],
};

/** Why a coming date speaks for changing the coolant now. */
export type DueSoon = 'over' | 'month' | 'hot';

export interface ScopeInput {
  readonly coolantClass: CoolantClass | null;
  /** days since the fill; null where nobody knows */
  readonly ageDays: number | null;
  /** months this coolant may stay, by sheet or class */
  readonly lifeMonths: number | null;
  /** flow now over flow at the baseline, same pump setting; null where either is missing */
  readonly flowRatio: number | null;
  /** K that the part that rose most stands above its best days, by its newest reading whoever took it, same load; null where not comparable */
  readonly risenK: number | null;
  readonly signs: readonly Sign[];
  /** the heaviest stage of fallout that was written down since the fill; null or missing: none was */
  readonly fallout?: FalloutStage | null;
  /** liquid and retained sample on one photograph; null or missing: nobody compared them so */
  readonly colour?: { readonly deltaE: number } | null;
  /** what is inside is known, and the same product, or one of the same base and inhibitor, follows */
  readonly sameCoolantFollows: boolean;
  /** another coolant was asked for, whatever speaks for a change; missing: it was not */
  readonly otherAsked?: boolean;
  /** its coolant’s date comes within a month, or in the hot months that come next; null: neither, or no date */
  readonly dueSoon: DueSoon | null;
}

/** Where a figure asks for a heavier job (workshop practice; a loop's own history goes before them). */
export const SCOPE = {
  /** share of the baseline flow below which particles sit in the fins */
  chokedFlow: 0.7,
  /** share below which a rinse is worth it */
  weakFlow: 0.88,
  /** K above the baseline that a dusty radiator or old paste explains at most */
  explainedRiseK: 4,
} as const;

type Ladder = 'closed-loop' | 'top-up' | 'drain-refill' | 'flush-refill' | 'strip-clean';
const LADDER: readonly Ladder[] = ['closed-loop', 'top-up', 'drain-refill', 'flush-refill', 'strip-clean'];

interface Evidence {
  readonly asksFor: Ladder;
  readonly words: string;
}

const BY_SIGN: Partial<Record<Sign, Evidence>> = {
  flakes: { asksFor: 'strip-clean', words: 'flakes do not rinse out of fins' },
  'settles-back': { asksFor: 'drain-refill', words: 'it settles at rest and still comes back: changed before it does not' },
  bits: { asksFor: 'strip-clean', words: 'bits after a refill: what stayed inside comes loose, rinsing did not lift it' },
  layer: { asksFor: 'strip-clean', words: 'what lies on the floor lies in the blocks as well; rinsing alone does not lift it' },
  deposit: { asksFor: 'strip-clean', words: 'deposit in a block must be brushed off' },
  'instant-hot': { asksFor: 'strip-clean', words: 'hot at once under light load: fins are choked' },
  cloud: { asksFor: 'flush-refill', words: 'cloud: something grows or falls out, it must be diluted away' },
  'colour-differs': { asksFor: 'flush-refill', words: 'its colour left that of the retained sample' },
  foam: { asksFor: 'flush-refill', words: 'foam stays: a detergent or a spent additive is inside' },
  smell: { asksFor: 'flush-refill', words: 'a smell means growth' },
  'level-falling': { asksFor: 'top-up', words: 'the level falls: top up, then find out whether it is vapour or a leak' },
  bubble: { asksFor: 'top-up', words: 'a bubble stands: top up and bleed, then measure the flow' },
  'tube-milky': { asksFor: 'closed-loop', words: 'a milky tube alone says nothing of the liquid: look at that in glass or acrylic' },
  'slow-creep': { asksFor: 'closed-loop', words: 'a slow creep is dust or paste before it is coolant' },
  dust: { asksFor: 'closed-loop', words: 'dust comes off with the loop closed' },
  'paste-old': { asksFor: 'closed-loop', words: 'a block on soft tube swings aside for paste' },
};

/** The stage of fallout that a sign tells of. */
export const SIGN_OF_STAGE = { 'comes-back': 'settles-back', stays: 'layer', bits: 'bits' } as const satisfies Record<FalloutStage, Sign>;

/** What is seen in the liquid itself: beside it a milky tube is plasticiser that went in. */
const IN_LIQUID: readonly Sign[] = ['cloud', 'colour-differs', 'flakes', 'foam', 'smell'];
const MILKY_AND_LIQUID: Evidence = { asksFor: 'flush-refill', words: 'milky tube: plasticiser in the liquid; renew the tube as well' };

/** What makes a part hotter with the loop as it was: it goes first, and is measured again before anything is opened. */
const EXPLAINS_HEAT: readonly Sign[] = ['dust', 'paste-old'];
const explainsHeat = ({ signs, flowRatio }: ScopeInput): boolean =>
  signs.some((sign) => EXPLAINS_HEAT.includes(sign)) && (flowRatio === null || flowRatio >= SCOPE.weakFlow);

/** A sign in words; one that dust or paste explains asks for no more than those. */
function bySign(sign: Sign, input: ScopeInput): Evidence[] {
  const { signs, flowRatio } = input;
  if (sign === 'tube-milky' && signs.some((each) => IN_LIQUID.includes(each))) return [MILKY_AND_LIQUID];
  // paste that left its chip is hot at once as well; choked fins would show in the flow
  if (sign === 'instant-hot' && signs.includes('paste-old') && flowRatio !== null && flowRatio >= SCOPE.weakFlow)
    return [{ asksFor: 'closed-loop', words: say('hot at once with the flow as it was: paste first, then measured again') }];
  return BY_SIGN[sign] ? [BY_SIGN[sign]] : [];
}

function byRise(input: ScopeInput): Evidence[] {
  const { risenK } = input;
  if (risenK === null || risenK <= SCOPE.explainedRiseK) return [];
  const values = { rise: formatIn('K', risenK, 1) };
  return explainsHeat(input)
    ? [{ asksFor: 'closed-loop', words: say('{rise} hotter than it was: dust and paste go first, then it is measured again before anything is opened', values) }] // prettier-ignore
    : [{ asksFor: 'flush-refill', words: say('{rise} hotter than its baseline: more than dust usually explains', values) }];
}

/** What a coming date asks for, so that the machine need not come in again. */
function byDate({ dueSoon, coolantClass, sameCoolantFollows }: ScopeInput, suspension: boolean): Evidence[] {
  if (dueSoon === null) return [];
  const over = {
    over: say('its coolant’s date is over'),
    month: say('its coolant is due within a month: changed now, it need not come in again'),
    hot: say('its coolant is due in the hot weeks: changed now, it is fresh when it is needed most'),
  }[dueSoon];
  const asksFor = suspension || !sameCoolantFollows ? 'flush-refill' : 'drain-refill';
  return [{ asksFor, words: coolantClass === null ? say('{over}; nobody knows what is inside, so it is rinsed out', { over }) : over }];
}

function evidenceOf(input: ScopeInput): Evidence[] {
  const { coolantClass, ageDays, lifeMonths, flowRatio, signs, sameCoolantFollows, fallout = null } = input;
  // what was written down of its liquid since the fill counts like a sign of today
  const seen = fallout === null ? signs : [...new Set([...signs, SIGN_OF_STAGE[fallout]])];
  const found = [...seen.flatMap((sign) => bySign(sign, input)), ...byRise(input)];
  if (flowRatio !== null && flowRatio < SCOPE.chokedFlow)
    found.push({
      asksFor: 'strip-clean',
      words: say('flow is down to {flowRatio} % of its baseline', { flowRatio: Math.round(100 * flowRatio) }),
    });
  else if (flowRatio !== null && flowRatio < SCOPE.weakFlow)
    found.push({
      asksFor: 'flush-refill',
      words: say('flow is down to {flowRatio} % of its baseline', { flowRatio: Math.round(100 * flowRatio) }),
    });
  if (input.colour && colourVerdict(input.colour.deltaE) === 'changed' && !signs.includes('colour-differs'))
    found.push({
      asksFor: 'flush-refill',
      words: say('its colour left that of the retained sample: ΔE₀₀ {deltaE}', { deltaE: grouped(input.colour.deltaE, 1) }),
    });
  const suspension = coolantClass !== null && suspensionOf(coolantClass) !== null;
  const isOver = ageDays !== null && lifeMonths !== null && ageDays >= lifeMonths * DAYS_PER_MONTH;
  if (!isOver) found.push(...byDate(input, suspension));
  if (input.otherAsked)
    found.push({ asksFor: 'flush-refill', words: say('another coolant follows: what the drain leaves is rinsed out first') });
  if (isOver) {
    const over = say('its {lifeMonths} months are over', { lifeMonths });
    if (suspension)
      found.push({
        asksFor: 'flush-refill',
        words: say('{over}, and {label} leaves particles behind', { over, label: sayWord(COOLANT_CLASSES[coolantClass].label) }),
      });
    else if (sameCoolantFollows)
      found.push({ asksFor: 'drain-refill', words: say('{over}; the same coolant follows, a little of the old one is fine', { over }) });
    else found.push({ asksFor: 'flush-refill', words: say('{over}, and another coolant follows', { over }) });
  }
  return found;
}

export interface ScopeAdvice {
  readonly kind: JobKind;
  /** what asks for at least this much */
  readonly reasons: readonly string[];
  readonly lighter: { readonly kind: JobKind; readonly words: string } | null;
  readonly heavier: { readonly kind: JobKind; readonly words: string } | null;
  /** what would make the advice surer */
  readonly unknown: readonly string[];
}

const rung = (kind: Ladder): number => LADDER.indexOf(kind);

/** The lightest job that is safe, with what speaks for and against its neighbours on the ladder. */
export function adviseScope(input: ScopeInput): ScopeAdvice {
  const unknown = unknowns(input);
  if (input.signs.includes('leak'))
    return {
      kind: 'leak-repair',
      reasons: [say('a leak goes before everything: isolate, dry, find')],
      lighter: { kind: 'top-up', words: say('a top-up hides it; the next drop may meet electronics') },
      heavier: null,
      unknown,
    };
  const evidence = evidenceOf(input);
  const kind = evidence.reduce<Ladder>((so, { asksFor }) => (rung(asksFor) > rung(so) ? asksFor : so), 'closed-loop');
  const decisive = evidence.filter(({ asksFor }) => asksFor === kind).map(({ words }) => words);
  const lighter = LADDER[rung(kind) - 1];
  const heavier = LADDER[rung(kind) + 1];
  return {
    kind,
    reasons: decisive.length > 0 ? decisive : [say('nothing speaks for opening the loop: look, dust, measure')],
    lighter: lighter ? { kind: lighter, words: say('would leave it as it is: {join}', { join: decisive.join('; ') }) } : null,
    heavier: heavier ? { kind: heavier, words: againstHeavier(heavier, input) } : null,
    unknown,
  };
}

function againstHeavier(heavier: Ladder, { flowRatio, coolantClass }: ScopeInput): string {
  const costs = say('{soft} h instead', { soft: JOB_KINDS[heavier].hours.soft });
  if (heavier === 'strip-clean')
    return flowRatio !== null && flowRatio >= SCOPE.weakFlow
      ? say('not needed: flow is as it was, nothing sits in the fins; {costs}', { costs })
      : say('not shown to be needed, but the flow was not compared{say}; {costs}', {
          say: coolantClass === 'opaque' ? say(', and this coolant carries particles') : '',
          costs,
        });
  if (heavier === 'flush-refill') return say('not needed while the liquid is clean and the same coolant follows; {costs}', { costs });
  if (heavier === 'drain-refill') return say('the coolant’s time is not over; {costs}', { costs });
  return say('the level stands; {costs}', { costs });
}

function unknowns({ ageDays, flowRatio, risenK, coolantClass, signs }: ScopeInput): string[] {
  return [
    ...(coolantClass === null ? [say('which coolant is inside')] : []),
    ...(signs.includes('tube-milky') && !signs.some((sign) => IN_LIQUID.includes(sign))
      ? [say('the liquid seen in glass or acrylic')]
      : []),
    ...(ageDays === null ? [say('when it was filled')] : []),
    ...(flowRatio === null ? [say('the flow at the baseline’s pump setting')] : []),
    ...(risenK === null ? [say('a temperature under the baseline’s conditions')] : []),
  ];
}
