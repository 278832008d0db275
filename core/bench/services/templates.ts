import { say } from '../../base/words/say.js';
import { BEFORE, OFF, standard, standardCheck, tick } from '../commissioning/standardSteps.js';
import { PASTE_ON } from '../runs/checkIds.js';
import type { CheckTemplate, ProcedureTemplate, StepTemplate } from '../runs/template.js';
import { NEVER_TOGETHER } from '../../machine/liquids/mixing.js';
import type { JobKind } from '../../workshop/job-kinds/kinds.js';

const OPEN_TOOLS: readonly CheckTemplate[] = [
  tick('supply', 'Supply jumper or separate supply, tested', 'Tools'),
  tick('drivers', 'The hex and cross drivers these screws take', 'Tools'),
  tick('jug', 'Measuring jug or scale, scrap tube for the valve, fill bottle', 'Tools'),
  tick('waste', 'Waste container with room, labelled', 'Bench'),
  tick('towels', 'Towels under every joint, spill kit', 'Bench'),
  tick('gloves', 'Gloves, goggles, safety data sheet of what is inside', 'Bench'),
];
/** Where no pump runs any more there is nothing to bridge. */
const NO_PUMP_TOOLS = OPEN_TOOLS.filter((check) => 'id' in check && check.id !== 'supply');
const KIT: Record<JobKind, readonly CheckTemplate[]> = {
  'closed-loop': [
    tick('brush', 'Brush, low-pressure air, mask and goggles', 'Tools'),
    tick('drivers', 'The hex and cross drivers these screws take', 'Tools'),
    tick('paste', 'Paste and lint-free wipes', 'Parts', { mayNotApply: true }),
    tick('fits', 'New parts checked to fit this very board or card', 'Parts', { mayNotApply: true }),
  ],
  'top-up': [
    tick('bottle', 'Distilled water, and coolant of the same lot', 'Parts'),
    tick('fill-bottle', 'Fill bottle with a thin spout, measuring jug', 'Tools'),
    tick('towels', 'Towel under the fill port', 'Bench'),
  ],
  'drain-refill': [
    tick('coolant', '{bottles}', 'Parts'),
    tick('seals', 'Spare plugs, caps, and rings for: {rings}', 'Parts'),
    ...OPEN_TOOLS,
  ],
  'flush-refill': [
    tick('coolant', '{bottles}', 'Parts'),
    tick('distilled', 'Distilled water for the rinses', 'Parts'),
    tick('seals', 'Spare plugs, caps, and rings for: {rings}', 'Parts'),
    tick('strips', 'pH strips or meter', 'Tools'),
    ...OPEN_TOOLS,
  ],
  'strip-clean': [
    tick('coolant', '{bottles}', 'Parts'),
    tick('distilled', 'Distilled water for bath and last rinse, cleaner with its sheet', 'Parts'),
    tick('seals', 'Plugs, caps, tube, and a ring for every place: {rings}', 'Parts'),
    tick('fits', 'New parts checked to fit this very card or board', 'Parts', { mayNotApply: true }),
    tick('paste', 'Paste by die size, pads by the thickness map', 'Parts', { mayNotApply: true }),
    tick('strips', 'pH strips or meter, soft brush, basin', 'Tools'),
    tick('gauge', 'Hand pump with gauge and relief valve', 'Tools', { onlyDry: true }),
    ...OPEN_TOOLS,
  ],
  'leak-repair': [
    tick('seals', 'O-rings of the sizes in this loop, plugs, caps', 'Parts'),
    tick('coolant', 'Coolant of the same lot for what was lost', 'Parts'),
    tick('rinse', 'Distilled water and isopropanol of 99 % for splashed boards', 'Parts'),
    tick('gauge', 'Hand pump with gauge and relief valve', 'Tools', { onlyDry: true }),
    ...OPEN_TOOLS,
  ],
  'partial-drain': [
    tick('fits', 'The new part checked to fit this very card or board', 'Parts'),
    tick('seals', 'Spare O-rings, caps for both open ends', 'Parts'),
    ...OPEN_TOOLS,
  ],
  'part-replacement': [
    tick('fits', 'The new part checked to fit this very card or board', 'Parts'),
    tick('coolant', '{bottles}', 'Parts'),
    tick('seals', 'Spare plugs, caps, tube, and rings for: {rings}', 'Parts'),
    tick('gauge', 'Hand pump with gauge and relief valve', 'Tools', { onlyDry: true }),
    ...OPEN_TOOLS,
  ],
  'loop-change': [
    tick('fits', 'Each new part checked to fit this very board, card or place', 'Parts'),
    tick('drawing', 'The wanted drawing and its cut list lie here', 'Parts'),
    tick('coolant', '{bottles}', 'Parts'),
    tick('seals', 'A ring for every joint that is made, plugs, caps, tube for every new piece', 'Parts'),
    tick('distilled', 'Distilled water to flush what is new', 'Parts'),
    tick('paste', 'Paste by die size, pads by the thickness map', 'Parts', { mayNotApply: true }),
    tick('gauge', 'Hand pump with gauge and relief valve', 'Tools', { onlyDry: true }),
    ...OPEN_TOOLS,
  ],
  'part-conversion': [
    tick('fits', 'Its own cooler checked to fit this very card or board', 'Parts'),
    tick('seals', 'Rings for the joints that are made, caps for what comes out', 'Parts'),
    tick('coolant', 'Coolant of the same lot for what was lost', 'Parts'),
    tick('paste', 'Paste and pads by the cooler’s own map', 'Parts'),
    tick('gauge', 'Hand pump with gauge and relief valve', 'Tools', { onlyDry: true }),
    ...OPEN_TOOLS,
  ],
  conversion: [
    tick('fits', 'The new cooler checked to fit this very board or card', 'Parts'),
    tick('caps', 'Caps and labels for the parts that come out', 'Parts'),
    tick('paste', 'Paste and lint-free wipes', 'Parts'),
    ...NO_PUMP_TOOLS,
  ],
  retirement: [tick('caps', 'Caps and labels for the parts that come out', 'Parts'), ...NO_PUMP_TOOLS],
};

const kit = (kind: JobKind): StepTemplate => ({
  ...standard('kit'),
  lead: say('Nothing is opened until everything lies here: no job stops half open for a missing tool or a wrong part.'),
  checks: KIT[kind].map((check) => ('mayNotApply' in check && check.mayNotApply ? check : { ...check, together: true })),
});

/** What is read before anything is touched. */
const DUST: StepTemplate = {
  id: 'dust',
  does: ['dusts'],
  kind: 'checks',
  title: 'Dust first',
  lead: 'While the loop is still closed: fans held, filters out, fins from the clean side.',
  cautions: ['Goggles and mask. Hold the fan blades: a spun fan breaks its bearing and feeds the board.'],
  timers: [],
  checks: [tick('fins', 'Fins and fans free of dust', 'Dust'), tick('filters', 'Filters washed and dry', 'Dust', { mayNotApply: true })],
};
/** The loop is let out and comes to pieces; nothing of it is powered any more. */
const OFF_FOR_GOOD: StepTemplate = {
  ...OFF,
  lead: 'The loop is over: nothing of it gets power any more, and nothing is let out of a machine that has some.',
};
/** No pump runs until the machine has its other cooler: there is nothing for a jumper to start. */
const ISOLATE_WITHOUT_PUMP: StepTemplate = {
  ...standard('isolate'),
  title: 'Everything off power',
  lead: 'No pump runs any more: photograph it, then pull what hangs on the board and on the supply.',
  cautions: ['Lead out of the wall before the first plug is pulled.'],
  checks: standard('isolate').checks.filter((check) => !('id' in check) || check.id !== 'jumper'),
};
/** The one step of work that leaves the loop closed. */
export const CLOSED_STEP = 'closed';
const CLOSED: StepTemplate = {
  id: CLOSED_STEP,
  does: ['dusts', 'pastes'],
  kind: 'checks',
  title: 'Work with the loop closed',
  lead: 'A block on soft tube swings aside; a board is swapped with the loop lifted out whole.',
  cautions: ['Check that the tubes reach before you swing a block: a strained joint leaks a week later.'],
  timers: [],
  checks: [
    tick('fins', 'Fins and fans free of dust, fan blades held', 'Dust'),
    tick('filters', 'Filters washed and dry', 'Dust', { mayNotApply: true }),
    tick('reach', 'The tubes reach: nothing pulls, nothing kinks', 'Block swung aside', { mayNotApply: true }),
    tick(PASTE_ON, 'Old paste off, new paste on, screws crosswise', 'Block swung aside', { mayNotApply: true }),
    tick('board', 'Board swapped, loop lifted out and back whole', 'Board or fans', { mayNotApply: true }),
    tick('fans', 'Fans renewed or sound', 'Board or fans', { mayNotApply: true }),
    tick('strain', 'Joints dry and not strained after the move', 'After the move'),
  ],
};
const ON: StepTemplate = {
  id: 'on',
  kind: 'power',
  title: 'Back on the wall',
  lead: 'Nothing was pulled, so nothing is missing; what was swung or moved is looked at once more.',
  cautions: ['No power while anything in the case is wet.'],
  timers: [],
  checks: [
    tick('nothing-loose', 'Nothing left in the case: screws, wipes and tools counted', 'Before the first start', { beforePower: true }),
    tick('moved-back', 'Every plug that was moved back in its place, by the photograph', 'Before the first start', {
      mayNotApply: true,
      beforePower: true,
    }),
    ...standardCheck('power', 'pump-signal', 'fans'),
    tick('temps', 'First minutes watched in firmware: no part runs away', 'First start'),
    tick('joints-warm', 'Joints and bends dry once it is warm, where anything was moved', 'First start', { mayNotApply: true }),
  ],
};
/** No coolant was poured: no sample of it is kept. */
const BASELINE_CLOSED: StepTemplate = { ...standard('baseline'), checks: standardCheck('baseline', 'level-mark') };
const DRAIN: StepTemplate = {
  id: 'drain',
  kind: 'drain',
  title: 'Drain',
  lead: 'Air inlet at the top first, then the valve: liquid leaves only as fast as air replaces it.',
  cautions: [
    'Handle across the pipe is closed, along the pipe is open.',
    'Never blow through with the mouth: coolant is toxic. A hand bulb or low-pressure clean air does it.',
    'A column that hangs may come down when knocked: towels, jug under the valve.',
  ],
  timers: [],
  checks: [{ each: 'stands' }, tick('sample', 'Labelled sample kept for the colour', 'Afterwards', { mayNotApply: true })],
};
const FIND: StepTemplate = {
  id: 'find',
  kind: 'repair',
  title: 'Isolate, dry, find',
  lead: 'Where, when it shows, how much: fill in what was seen with “Something is wrong”.',
  cautions: ['Power stays off until everything is dry; on electronics the drying clock starts after the rinse.'],
  timers: [],
  checks: [
    tick('dried', 'Everything wiped dry, so that the next drop is news', 'Find'),
    tick('photo', 'Photograph taken before anything was loosened', 'Find', { mayNotApply: true }),
  ],
};
const STRIP: StepTemplate = {
  id: 'strip',
  does: ['empties'],
  kind: 'checks',
  title: 'Take it apart',
  lead: 'Part by part in flow order, each over the basin, each with its tube capped or laid out as it was.',
  cautions: [
    'A glued block is prised at its slots, never across the plate.',
    'A part taken out full is capped, labelled and weighed.',
    'Warranty labels: note their state, open them only with the owner’s consent.',
  ],
  timers: [],
  checks: [{ each: 'cards-apart' }, tick('out', 'All parts out, every joint undone', 'Parts'), tick('photos', 'Photographs of what was found', 'Parts', { mayNotApply: true })], // prettier-ignore
};
const INSPECT: StepTemplate = {
  id: 'inspect',
  kind: 'inspect',
  title: 'Inspection sheet',
  lead: 'Every part and plug once before cleaning. Deposit comes off, plating loss does not: the difference decides.',
  cautions: [],
  timers: [],
  checks: [],
};
const CLEAN: StepTemplate = {
  id: 'clean',
  kind: 'clean',
  title: 'Clean',
  lead: 'Reverse flush each radiator both ways; soak, brush, then feel with the finger: gritty is deposit, smooth is done.',
  cautions: [
    NEVER_TOGETHER,
    'Acid into water, not water into acid. Gloves, goggles, air. On plated or aluminium parts only if its sheet allows.',
    'Abrasive paste stays out of fins and off seal faces and acrylic.',
    'Below the lowest rating, {mostKpa} kPa here: mains pressure is far above it, and mains water is never the last rinse.',
  ],
  timers: [],
  checks: [
    { each: 'reverse', group: 'Radiators' },
    { each: 'soaked', group: 'Blocks, pump, reservoir' },
  ],
};
export const RINSE: StepTemplate = {
  id: 'rinse',
  kind: 'rinse',
  title: 'Rinse',
  lead: 'Distilled water in, pump a minute, drain as before, read what comes out. Until it is clear.',
  cautions: ['The pump must not run dry while rinsing.', 'Spent rinses go into the waste container.'],
  timers: [],
  checks: [],
};
const SWAP: StepTemplate = {
  id: 'swap',
  kind: 'swap',
  title: 'Renew and replace',
  lead: 'O-rings first. What comes out gets a place; what goes in is checked against the very part it meets.',
  cautions: ['A reused O-ring is the commonest leak: renew what was opened.'],
  timers: [],
  checks: [{ each: 'cards' }, tick('seals', 'O-rings renewed at every joint that was opened', 'Seals', { mayNotApply: true })],
};
/** What was taken apart goes together again. */
const RENEW: StepTemplate = {
  ...SWAP,
  checks: [{ each: 'cards-together' }, ...SWAP.checks.slice(1)],
};
const MEND: StepTemplate = {
  ...SWAP,
  id: 'mend',
  does: ['mends'],
  title: 'Mend',
  lead: 'Cause, fix, O-ring. A temporary fix is said as one, with its limits of use and what is awaited.',
  cautions: ['A radiator with a hole is scrap.', 'A reused O-ring is the commonest leak: renew what was opened.'],
};

/** Out, cut, in, plugged, each by name; only then is the loop the other one. */
const CHANGE: StepTemplate = {
  id: 'change',
  kind: 'swap',
  does: ['changes-loop'],
  title: 'Change the loop',
  lead: 'By the wanted drawing: what comes out first, each over the jug; nothing goes in that was not flushed.',
  cautions: [
    'A joint that stands below the level runs: look at the level before each is undone.',
    'A part that comes out full is capped at both ends, labelled and weighed.',
    'No screw goes into a radiator before its length was measured at that very stack.',
  ],
  timers: [],
  checks: [{ each: 'changes' }, tick('strain', 'No tube pulls, kinks or leans on a fan', 'In and made')],
};
const CHANGE_TO_COOLER: StepTemplate = {
  ...CHANGE,
  title: 'Take it out of the loop',
  lead: 'The part leaves the loop and gets its own cooler; the tubes beside it are joined past it.',
  checks: [
    ...CHANGE.checks,
    tick('cooler', 'Its own cooler on, paste and pads new, screws crosswise', 'Its own cooler'),
    tick('leads', 'Fans of that cooler on the part’s own headers', 'Its own cooler', { mayNotApply: true }),
    tick('air', 'Nothing stands before its fans: it breathes the case’s air now', 'Its own cooler'),
  ],
};

/** The loop is over: nothing goes back in, and every part of it has a place. */
const PUT_AWAY: StepTemplate = {
  id: 'swap',
  kind: 'swap',
  does: ['puts-away'],
  title: 'Put it away',
  lead: 'Every part that came out is rinsed, labelled and has a place: somebody will ask for it.',
  cautions: [
    'A part that still holds liquid is capped at both ends and stands upright.',
    'A part that is put away wet grows something: it has two weeks to dry, ports open and down.',
  ],
  timers: [],
  checks: [
    { each: 'rinsed-out', group: 'What came out' },
    tick('card-coolers', 'Each card’s own cooler on again, pads by its map, screws crosswise', 'Cards', { mayNotApply: true }),
  ],
};
const COOLER: StepTemplate = {
  ...PUT_AWAY,
  title: 'The new cooler on, the old parts away',
  lead: 'The new cooler on its board or card, screws crosswise; every part that came out is rinsed, labelled and has a place.',
  checks: [
    ...PUT_AWAY.checks,
    tick('cooler', 'New cooler on, screws crosswise, its leads on the headers that it asks for', 'New cooler'),
    tick('headers', 'Fan and pump headers set for it: no stop below its least speed', 'New cooler', { mayNotApply: true }),
  ],
};
/** what a pump, a jumper and joints would be looked at for */
const WITHOUT_LOOP: readonly string[] = ['supply-off-again', 'pump-signal', 'joints-warm', 'bends-warm'];
/** Of the return to power what does not ask for a pump and joints that lie on a shelf. */
const POWER_WITHOUT_LOOP: StepTemplate = {
  ...standard('power'),
  checks: [
    tick('supply-off-again', 'Supply off at the back until everything is back in', 'Before the first start', { beforePower: true }),
    ...standard('power').checks.filter((each) => !('id' in each && WITHOUT_LOOP.includes(each.id))),
    tick('cooler-turns', 'Fans of the new cooler, and its pump where it has one, seen and heard turning', 'First start'),
  ],
};
const BASELINE_WITHOUT_LOOP: StepTemplate = { ...standard('baseline'), checks: [] };

const pick = (...ids: readonly string[]): StepTemplate[] => ids.map(standard);
const REFILL = ['fill', 'wet', 'bleed', 'power', 'baseline', 'sign-off'] as const;

const STEPS: Record<JobKind, readonly StepTemplate[]> = {
  'closed-loop': [BEFORE, OFF, CLOSED, ON, BASELINE_CLOSED, ...pick('sign-off')],
  'top-up': pick('fill', 'sign-off'),
  'drain-refill': [BEFORE, DUST, ...pick('isolate'), DRAIN, ...pick(...REFILL)],
  'flush-refill': [BEFORE, DUST, ...pick('isolate'), DRAIN, RINSE, ...pick(...REFILL)],
  'strip-clean': [
    BEFORE,
    DUST,
    ...pick('isolate'),
    DRAIN,
    STRIP,
    INSPECT,
    CLEAN,
    RENEW,
    ...pick('close', 'dry'),
    RINSE,
    ...pick(...REFILL),
  ],
  'leak-repair': [...pick('isolate'), FIND, DRAIN, MEND, ...pick('close', 'dry', ...REFILL)],
  'partial-drain': [BEFORE, ...pick('isolate'), DRAIN, SWAP, ...pick('close', 'dry', ...REFILL)],
  'part-replacement': [BEFORE, DUST, ...pick('isolate'), DRAIN, SWAP, ...pick('close', 'dry', ...REFILL)],
  'loop-change': [BEFORE, DUST, ...pick('isolate'), DRAIN, CHANGE, ...pick('close', 'dry', ...REFILL)],
  'part-conversion': [BEFORE, DUST, ...pick('isolate'), DRAIN, CHANGE_TO_COOLER, ...pick('close', 'dry', ...REFILL)],
  conversion: [BEFORE, ISOLATE_WITHOUT_PUMP, DRAIN, STRIP, INSPECT, COOLER, POWER_WITHOUT_LOOP, BASELINE_WITHOUT_LOOP, ...pick('sign-off')],
  retirement: [OFF_FOR_GOOD, DRAIN, STRIP, INSPECT, PUT_AWAY, ...pick('sign-off')],
};

/** The led procedure of one kind of job. Its second half is the commissioning's own: refill, leak test, bleed, measure. */
export const serviceTemplate = (kind: JobKind): ProcedureTemplate => ({ steps: [kit(kind), ...STEPS[kind]] });
