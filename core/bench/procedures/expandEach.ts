import type { FanStacks } from '../../machine/shop-sums/fanScrews.js';
import { say, sayWord } from '../../base/words/say.js';
import { shortName } from '../../machine/catalogue/names.js';
import { unusedPorts } from '../../machine/loop-file/fittings.js';
import { type LoopFile } from '../../machine/loop-file/loopFile.js';
import { STANDING_WORDS } from '../../machine/loop-file/orientation.js';
import {
  drainsDownTo,
  openingIn,
  runsOverRim,
  type DrainStand,
  type LoopFacts,
  type ServiceFacts,
  type TakeOutFacts,
} from '../runs/facts.js';
import type { CheckItem } from '../runs/procedure.js';
import { type EachKey } from '../runs/template.js';
import { JOB_KINDS } from '../../workshop/job-kinds/kinds.js';
import { assemblyChecks } from './expandAssembly.js';
import { aloneChecks, returnChecks } from './expandAlone.js';
import { cardChecks, changeChecks } from './expandChange.js';
import { backChecks, pulledChecks, type ConnectorsOf } from './expandConnectors.js';

/** What the loop and the school put into a template's texts and lists. */
export interface ExpandWith extends ConnectorsOf {
  readonly service: ServiceFacts | undefined;
  readonly bottles: number | null;
  readonly coolantName: string | null;
  readonly facts: LoopFacts;
  readonly dry: boolean;
  /** parts are tested on their own first */
  readonly parts: boolean;
  /** pumps that were tested with their reservoir before the build began */
  readonly testedAlone: readonly string[];
  /** the loop is nothing but a unit out of its case */
  readonly isUnit: boolean;
  readonly holdMinutes: number;
  readonly wetSeconds: number | null;
  /** runs whose joints were opened, where only those are looked at; null: all */
  readonly onlyJoints: readonly string[] | null;
  /** what was missing in earlier jobs of this kind */
  readonly kitLearned: readonly string[];
  /** screws of the fans, radiator by radiator, where somebody measured */
  readonly fanStacks: FanStacks | undefined;
}

const CLOSURE_WORDS: Record<string, string> = { plug: 'Plug in', cap: 'Cap on' };

function closures(loop: LoopFile): CheckItem[] {
  return loop.components.flatMap((component) =>
    unusedPorts(loop, component).map((port): CheckItem => {
      const closure = component.closures?.[port] ?? 'plug';
      const text =
        closure === 'valve'
          ? say('Valve shut, handle across the pipe: {shortName}', { shortName: shortName(component) })
          : say('{say}: {shortName}, port {port}', {
              say: sayWord(CLOSURE_WORDS[closure]) ?? say('Plug in'),
              shortName: shortName(component),
              port,
            });
      return { id: `closed:${component.id}:${port}`, text, place: `${component.id}.${port}`, beforePower: true };
    }),
  );
}

/** Ports without a tube, looked at where they are and as they are: nothing is undone for it. */
const plugs = (loop: LoopFile): CheckItem[] =>
  loop.components.flatMap((component) =>
    unusedPorts(loop, component).map((port): CheckItem => ({
      id: `looked:${component.id}:${port}`,
      text: say('Dry, seated, no crust: {shortName}, port {port}', { shortName: shortName(component), port }),
      place: `${component.id}.${port}`,
    })),
  );

/** A long run is looked at three times, a short one twice; the first look names every run. */
function rounds({ facts, wetSeconds, onlyJoints }: ExpandWith): CheckItem[] {
  const runs = facts.joints.filter(({ id }) => onlyJoints === null || onlyJoints.includes(id));
  const text = say('All {length} joints dry, towels dry', { length: runs.length * 2 });
  const isLong = (wetSeconds ?? 0) > 3600;
  return [
    ...runs.map(({ id, name }): CheckItem => ({
      id: `dry-joint:${id}`,
      text: say('Dry: {name}', { name }),
      place: id,
      group: say('Inspected at the start'),
      after: 'clock-begins',
    })),
    // what closes a port leaks like a joint; of joints that were opened alone nobody said anything about plugs
    ...(onlyJoints === null ? (facts.seals ?? []) : []).map(({ id, name }): CheckItem => ({
      id: `dry-seal:${id}`,
      text: say('Dry: {name}', { name }),
      place: id,
      group: say('Inspected at the start'),
      after: 'clock-begins',
    })),
    ...(isLong ? [{ id: 'round:hour', text, group: say('Inspected after an hour'), after: 'hour' } as const] : []),
    { id: 'round:end', text, group: isLong ? say('Inspected at the end, warm') : say('Inspected at the end'), after: 'clock-ends' },
  ];
}

/** The advised plan, stand by stand, as the hands do it; down to the part where only that is changed. */
function stands(given: ExpandWith): CheckItem[] {
  const { service } = given;
  if (!service) return [];
  const downTo = drainsDownTo(service);
  if (service.change?.drain === 'none' && !downTo) return [];
  return downTo ? downToPart(service, downTo) : service.stands.flatMap((stand, index) => oneStand({ ...given, service }, stand, index));
}

function oneStand(
  { service, facts }: ExpandWith & { readonly service: ServiceFacts },
  { standing, drain, airs, airsFollow, capFirst, mayRun, drainedMl }: DrainStand,
  index: number,
): CheckItem[] {
  const isJoint = (opening: string): boolean => !facts.ports.some(({ name }) => name === opening);
  const runs = (each: string): number => mayRun?.find(({ opening }) => opening === each)?.volumeMl ?? 0;
  const list = (openings: readonly string[]): string =>
    openings
      .map(
        (each) =>
          `${openingIn(service, each)}${runs(each) > 0 ? say(' (over a jug: up to {ceil} mL come here if the stand before ran short)', { ceil: Math.ceil(runs(each) / 5) * 5 }) : ''}`,
      )
      .join(', ');
  const before = service.stands[index - 1]?.standing ?? 'upright';
  const group = `${index + 1}. ${standing !== before ? say('Turned {standing}', { standing: sayWord(STANDING_WORDS[standing]) }) : index === 0 ? say('As it stands') : say('Still in this stand')}`;
  const [caps, madeUp] = [capFirst.filter((each) => !isJoint(each)), capFirst.filter(isJoint)];
  const id = (what: string): string => `stand-${index}:${what}`;
  const inlet: CheckItem = {
    id: id('air'),
    ...(airs[0] === undefined ? {} : { place: placeOf(facts, airs[0]) }),
    text: airsFollow
      ? say('Once it has stopped, air inlet open (opened before, it would run): {list}', { list: list(airs) })
      : say('Air inlet open: {list}', { list: list(airs) }),
    group,
  };
  const comes = say('about {drainedMl} mL come', { drainedMl: Math.round(drainedMl / 5) * 5 });
  const opening = openingIn(service, drain);
  const runsOver = runsOverRim(facts, { standing, drain });
  const drained: CheckItem = {
    id: id('drain'),
    place: placeOf(facts, drain),
    text: isJoint(drain)
      ? say('Towels and a jug under both sides of {opening}, undone; {comes}', { opening, comes })
      : runsOver
        ? say('Scrap tube on {opening}, tight, its end low in a jug: what comes would run over the rim; {comes}', { opening, comes })
        : say('Jug under {opening}, opened; {comes}', { opening, comes }),
    group,
  };
  return [
    ...(caps.length > 0
      ? [{ id: id('cap'), text: say('Closed before the turn: {list}', { list: list(caps) }), place: caps[0] as string, group }]
      : []),
    ...(madeUp.length > 0
      ? [{ id: id('made-up'), text: say('Made up again with a new ring: {list}', { list: list(madeUp) }), group }]
      : []),
    // a tube is on before air lets anything come
    ...(airsFollow || (runsOver && airs.length > 0) ? [drained, inlet] : airs.length > 0 ? [inlet, drained] : [drained]),
    isJoint(drain) && index === service.stands.length - 1
      ? {
          id: id('shut'),
          text: say('Made up again with a new ring, tested before it is powered: {openingIn}', { openingIn: openingIn(service, drain) }),
          group,
        }
      : { id: id('shut'), text: say('Valve shut, air inlet shut'), group },
  ];
}

/** An opening on the picture: a port where it is, a joint at its tube ("tube.from", "tube.to"). */
const placeOf = ({ ports }: LoopFacts, opening: string): string =>
  ports.some(({ name }) => name === opening) ? opening : opening.slice(0, opening.lastIndexOf('.'));

const drawnAt = (service: ServiceFacts, drawAt: string | null | undefined): string =>
  drawAt === null
    ? say('out of the reservoir by hose')
    : say('at {openingIn}, then shut', { openingIn: drawAt === undefined ? say('the valve') : openingIn(service, drawAt) });

function downToPart(service: ServiceFacts, { name, drawFirstMl, drawAt, airs, joints, hangsMl = 0, insideMl }: TakeOutFacts): CheckItem[] {
  const runsMl = joints.reduce((sum, { volumeMl }) => sum + volumeMl, hangsMl);
  const group = say('Down to {name}', { name });
  return [
    // where every port would run, air comes in at the joints
    ...(airs.length > 0
      ? [
          {
            id: 'part:air',
            text: say('Air inlet open: {map}', { map: airs.map((each) => openingIn(service, each)).join(', then ') }),
            group,
          },
        ]
      : []),
    ...(drawFirstMl >= 5
      ? [
          {
            id: 'part:draw',
            text: say('About {drawFirstMl} mL drawn {drawnAt}', {
              drawFirstMl: Math.round(drawFirstMl / 5) * 5,
              drawnAt: drawnAt(service, drawAt),
            }),
            group,
          },
        ]
      : []),
    {
      // volumes are estimates: a jug stands there even where the sums say that nothing comes
      id: 'part:level',
      text: say('Level seen below the joints of {name}, towels and a jug under both{say}', {
        name,
        say:
          runsMl >= 5
            ? say(': about {runsMl} mL hang above them and run there, whatever was drawn', { runsMl: Math.round(runsMl / 5) * 5 })
            : '',
      }),
      group,
    },
    {
      id: 'part:out',
      text: say('Joints undone over the jug; {say} in the part', {
        say: insideMl < 5 ? say('hardly any stays') : say('about {insideMl} mL stay', { insideMl: Math.round(insideMl / 5) * 5 }),
      }),
      group,
    },
  ];
}

/** Of a job about one part only that one, where it is a card's block. */
const cardsAt = ({ loop, service }: ExpandWith): LoopFile['components'] => {
  const out = service?.takeOut ? (service.takeOut.parts ?? [service.takeOut.part]) : null;
  return out === null ? loop.components : loop.components.filter(({ id }) => out.includes(id));
};

/** What a check is repeated over, of this very loop. */
export const EXPAND: Record<EachKey, (given: ExpandWith) => CheckItem[]> = {
  flushable: ({ loop }) =>
    loop.components
      .filter(({ kind }) => kind === 'radiator' || kind === 'block')
      .map((component) => ({
        id: `flushed:${component.id}`,
        text: say('Flushed: {shortName}', { shortName: shortName(component) }),
        place: component.id,
        mayNotApply: true,
      })),
  joints: ({ facts, onlyJoints }) =>
    facts.joints
      .filter(({ id }) => onlyJoints === null || onlyJoints.includes(id))
      .map(({ id, name }) => ({ id: `joint:${id}`, text: say('Both joints tight: {name}', { name }), place: id })),
  closures: ({ loop }) => closures(loop),
  plugs: ({ loop }) => plugs(loop),
  alone: ({ loop, testedAlone }) => aloneChecks(loop, testedAlone),
  'alone-return': ({ loop }) => returnChecks(loop),
  assembly: assemblyChecks,
  'rinsed-out': ({ loop }) =>
    loop.components.map((part) => ({
      id: `rinsed:${part.id}`,
      text: say('Rinsed with distilled water until clear, run out: {shortName}', { shortName: shortName(part) }),
      place: part.id,
      mayNotApply: true,
    })),
  pulled: pulledChecks,
  back: backChecks,
  rounds,
  stands,
  cards: (given) => cardChecks(cardsAt(given), ['apart', 'together']),
  'cards-apart': ({ loop }) => cardChecks(loop.components, ['apart']),
  'cards-together': ({ loop }) => cardChecks(loop.components, ['together']),
  changes: ({ service }) => (service?.change ? changeChecks(service.change, JOB_KINDS[service.kind].opens === 'whole') : []),
  reverse: ({ loop }) =>
    loop.components
      .filter(({ kind }) => kind === 'radiator')
      .flatMap((part) => [
        { id: `reverse:${part.id}:back`, text: say('Backward until clear: {shortName}', { shortName: shortName(part) }), place: part.id },
        { id: `reverse:${part.id}:forth`, text: say('Forward until clear: {shortName}', { shortName: shortName(part) }), place: part.id },
      ]),
  soaked: ({ loop }) =>
    loop.components
      .filter(({ kind }) => kind !== 'radiator')
      .map((part) => ({
        id: `soaked:${part.id}`,
        text: say('Rinsed, where it needs it soaked and brushed, smooth: {shortName}', { shortName: shortName(part) }),
        place: part.id,
        mayNotApply: true,
      })),
  'bottle-turns': ({ facts: { gravity } }) =>
    (gravity?.turns ?? []).map(({ orientation, pouredMl }, index) => ({
      id: `bottle-turn:${index}`,
      text: say('{say}{say2}: about {pouredMl} mL go in', {
        say: index === 0 ? say('Bottle on {label}. ', { label: gravity?.label ?? 'its port' }) : '',
        say2:
          orientation === 'upright' ? say('Upright') : say('Turned {orientation}', { orientation: sayWord(STANDING_WORDS[orientation]) }),
        pouredMl: Math.round(pouredMl / 5) * 5,
      }),
    })),
  towels: ({ facts, onlyJoints }) =>
    [...facts.joints, ...(onlyJoints === null ? (facts.seals ?? []) : [])].map(({ id, name }) => ({
      id: `towel:${id}`,
      text: say('Towel out and read, no spot: {name}', { name }),
      place: id,
      beforePower: true,
    })),
};
