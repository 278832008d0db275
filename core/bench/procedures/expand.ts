import { say, sayWord, sayText } from '../../base/words/say.js';
import { findingKey, findingsAtBench } from '../../machine/build-checks/beforeBuilding.js';
import { countFittings } from '../../machine/loop-file/fittings.js';
import { hasReservoir } from '../../machine/loop-file/marks.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { shortName } from '../../machine/catalogue/names.js';
import { partName } from '../../machine/loop-file/loopFile.js';
import { ringWords } from '../../machine/seals/places.js';
import { lengthsFor } from '../../machine/shop-sums/fanScrews.js';
import { SCRAP_MM } from '../../physics/filling/unitAlone.js';
import { TEST_GAUGE_KPA } from '../../physics/leak-testing/defaults.js';
import { formatIn, formatSpan } from '../../base/units/display.js';
import type { CheckItem, ProcedureStep, StepKind } from '../runs/procedure.js';
import {
  isEach,
  ONE_LOOK,
  type CheckTemplate,
  type EachCheck,
  type EachKey,
  type Placeholder,
  type ProcedureTemplate,
  type StepTemplate,
} from '../runs/template.js';
import { tightestRuns } from './expandAssembly.js';
import { fanWords } from './expandConnectors.js';
import { EXPAND, type ExpandWith } from './expandEach.js';

/** share by which coolant grows from the bench to 60 °C (water 1.5 %, a third of glycol 2.3 %; handbook values of density) */
const GROWS_SHARE = 0.02;

/** Lengths for each radiator that was measured; of the others that they were not. */
function screwWords({ loop, fanStacks }: ExpandWith): string {
  const radiators = loop.components.filter(({ kind }) => kind === 'radiator');
  if (radiators.length === 0) return say('no radiator');
  return radiators
    .map((part) => {
      const fits = lengthsFor(fanStacks, part.id);
      const name = shortName(part);
      if (fits === null) return say('{name} not measured yet: parts and cuts say how', { name });
      return fits.length > 0
        ? say('{name} {lengths} mm', { name, lengths: fits.join(say(' or ')) })
        : say('{name} no stock length fits', { name });
    })
    .join('; ');
}

function words(given: ExpandWith): Record<Placeholder, string> {
  const { loop, bottles, coolantName, facts, holdMinutes, wetSeconds } = given;
  const plugs = countFittings(loop).find(({ kind }) => kind === 'plug')?.count ?? 0;
  return {
    parts: loop.components.map(partName).join(', '),
    plugs:
      plugs === 0
        ? say('No loose plugs needed; spare plugs at hand')
        : say('{plugs} {plugs2} for unused ports, and a spare', { plugs, plugs2: plugs === 1 ? say('plug') : say('plugs') }),
    bottles:
      bottles !== null
        ? say('{bottles} {bottles2} of {coolantName}', {
            bottles,
            bottles2: bottles === 1 ? say('bottle') : say('bottles'),
            coolantName: coolantName ?? say('coolant'),
          })
        : say('Coolant for the whole loop'),
    gaugeKpa: String(Math.min(TEST_GAUGE_KPA, facts.mostGaugeKpa)),
    mostKpa: String(facts.mostGaugeKpa),
    holdMinutes: String(Math.ceil(holdMinutes)),
    wetSpan: formatSpan(wetSeconds ?? 0),
    joints: String(facts.joints.length * 2),
    screws: screwWords(given),
    fans: fanWords(given.connectors),
    rings: ringWords(loop),
    tightest: tightestRuns(loop),
    scrap: formatIn('mm', SCRAP_MM),
    cushionMl: String(Math.max(5, Math.ceil((GROWS_SHARE * loopVolume(loop).volumeMl) / 5) * 5)),
  };
}

/** check that names the shortest runs of a loop that is put together */
const TIGHTEST = 'tightest';

const fillIn = (text: string, values: Record<Placeholder, string>): string =>
  sayText(text).replace(/\{(\w+)\}/g, (whole, name: string) => (Object.hasOwn(values, name) ? values[name as Placeholder] : whole));

function checksOf(check: CheckTemplate, given: ExpandWith, values: Record<Placeholder, string>): CheckItem[] {
  if (isEach(check)) return EXPAND[check.each](given).map((item) => withLook(withGroup(item, check), check.each));
  const { onlyDry, where, textWithoutReservoir, together, ...item } = check;
  const has = hasReservoir(given.loop);
  // of a loop of which only some joints were opened the shortest runs are nobody's question
  if (item.id === TIGHTEST && given.onlyJoints !== null) return [];
  if ((onlyDry && !given.dry) || (where === 'reservoir' && !has) || (where === 'no-reservoir' && has)) return [];
  const look = together ? { together: say('All of it lies here') } : {};
  const group = item.group === undefined ? {} : { group: sayText(item.group) };
  return [{ ...item, ...look, ...group, text: fillIn(has ? item.text : (textWithoutReservoir ?? item.text), values) }];
}

/** The first look at the joints is one at many places; the later ones are one line each already. */
const withLook = (item: CheckItem, each: EachKey): CheckItem => {
  const together = sayWord(ONE_LOOK[each]);
  return together === undefined ? item : { ...item, together };
};

const withGroup = (item: CheckItem, { group }: EachCheck): CheckItem =>
  group === undefined || item.group ? item : { ...item, group: sayText(group) };

/** What the build check says against this loop stands first where the kit is laid out and again before it is closed, whatever a lead's version says. */
function findings({ does }: StepTemplate, { loop, service, isUnit }: ExpandWith): CheckItem[] {
  const change = service?.change;
  if (isUnit || (service && !change) || !(does ?? []).some((trait) => trait === 'lays-out' || trait === 'closes')) return [];
  // of a loop that is changed only what the change brings: what it had before was lived with
  const news = findingsAtBench(change?.wanted ?? loop).filter((finding) => !change?.found?.includes(findingKey(finding)));
  return news.map(({ weight, text, todo, ...finding }) => ({
    id: findingKey(finding),
    text: say('Settled: {text} {todo}', { text, todo }),
    group: say('The build check says'),
    ...(weight === 'stop' ? { beforePower: true } : { mayNotApply: true }),
  }));
}

/** What was missing once lies ready from then on, whatever a lead's version says. */
const missedBefore = ({ does }: StepTemplate, { kitLearned }: ExpandWith): CheckItem[] =>
  (does ?? []).includes('lays-out')
    ? kitLearned.map((name) => ({
        id: `missed:${name.toLowerCase()}`.slice(0, 120),
        text: say('Missing the last time: {name}', { name }),
        together: say('All of it lies here'),
        group: say('Learned'),
        mayNotApply: true,
      }))
    : [];

function stepOf(step: StepTemplate, given: ExpandWith, values: Record<Placeholder, string>): ProcedureStep {
  const has = hasReservoir(given.loop);
  const lead = has ? step.lead : (step.leadWithoutReservoir ?? step.lead);
  const cautions = has ? step.cautions : (step.cautionsWithoutReservoir ?? step.cautions);
  const own = step.checks.flatMap((check) => checksOf(check, given, values));
  // parts alone have a clock only where a pump among them has a reservoir to run from: its looks wait for that clock
  const timers = step.kind === 'part-test' && !own.some(({ after }) => after !== undefined) ? [] : step.timers;
  return {
    id: step.id,
    kind: step.kind,
    does: step.does ?? [],
    title: sayText(step.title),
    lead: fillIn(lead, values),
    cautions: cautions.map((caution) => fillIn(caution, values)),
    checks: [...findings(step, given), ...own, ...missedBefore(step, given)],
    timers: timers.flatMap(({ id, label, minutes }) =>
      minutes === 'wet'
        ? given.wetSeconds === null
          ? []
          : [{ id, label: sayText(label), seconds: given.wetSeconds }]
        : [{ id, label: sayText(label), seconds: minutes * 60 }],
    ),
  };
}

/** Whether a step is part of the school. */
function belongs(kind: StepKind, { dry, parts, wetSeconds, isUnit }: ExpandWith): boolean {
  if (kind === 'dry-test') return dry;
  if (kind === 'part-test') return parts || isUnit;
  return kind !== 'wet-run' || wetSeconds !== null;
}

/** The steps of one run: those of the school, with the loop's own parts, joints and figures. */
export function expandTemplate({ steps }: ProcedureTemplate, given: ExpandWith): ProcedureStep[] {
  const values = words(given);
  return (
    steps
      .filter(({ kind }) => belongs(kind, given))
      // parts that were in use are not flushed anew
      .filter(({ does }) => !does?.includes('new-parts') || given.onlyJoints === null)
      .map((step) => stepOf(step, given, values))
  );
}
