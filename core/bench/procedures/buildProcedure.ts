import { say } from '../../base/words/say.js';
import { jugSdMl } from '../../physics/measuring/errors.js';
import type { Liquid } from '../../machine/liquids/fluids.js';
import { WATER } from '../../machine/liquids/fluids.js';
import type { CoolantOrder } from '../../machine/liquids/order.js';
import type { OwnConnectors } from '../../machine/electrical/sheet.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import type { FanStacks } from '../../machine/shop-sums/fanScrews.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import type { LoopContents } from '../../physics/live-book/loopContents.js';
import { planFill, type FillPlan } from '../../physics/filling/fillPlan.js';
import { LEAK_LIMITS } from '../../physics/leak-testing/defaults.js';
import { holdMinutes } from '../../physics/leak-testing/hold.js';
import { LEAK_SCHOOLS, WET_SCHOOLS, type Schools } from '../../physics/leak-testing/schools.js';
import { afterOldCooler } from '../commissioning/intoLoop.js';
import { UNIT_TEMPLATE } from '../commissioning/unitTemplate.js';
import { STANDARD_TEMPLATE } from '../commissioning/standardTemplate.js';
import { refillPlan } from '../runs/contents.js';
import type { PumpBeside, ServiceFacts } from '../runs/facts.js';
import { PROCEDURE_VERSION, type Procedure, type UnitTested } from '../runs/procedure.js';
import type { ProcedureTemplate } from '../runs/template.js';
import { withBeside } from '../services/besideSteps.js';
import { withRinse } from '../services/rinseBetween.js';
import { withWanted } from '../services/stripToWanted.js';
import { serviceTemplate } from '../services/templates.js';
import { expandTemplate } from './expand.js';
import { loopFacts } from './loopFacts.js';
import { withTraits } from './procedureKinds.js';

export interface ProcedureInput {
  readonly loop: LoopFile;
  readonly schools: Schools;
  readonly order: Pick<CoolantOrder, 'bottles'> | null;
  readonly coolantName: string | null;
  /** what will be poured; water where it is not known */
  readonly liquid?: Liquid;
  /** runs that were opened and mL that left, where only those joints are tested and only that is topped up */
  readonly opened?: { readonly joints: readonly string[]; readonly lostMl: number };
  /** the workshop's own procedure; the standard one without it */
  readonly template?: ProcedureTemplate;
  readonly templateNumber?: number;
  /** what is inside when it begins, where an earlier run left it on record */
  readonly start?: LoopContents;
  /** screws of the fans, radiator by radiator, where somebody measured */
  readonly fanStacks?: FanStacks;
  /** the machine's own connectors; missing or null: those that any machine has */
  readonly connectors?: OwnConnectors | null;
  /** what was missing in earlier jobs of this kind */
  readonly kitLearned?: readonly string[];
  /** pumps of the machine's other loops */
  readonly pumpsBeside?: readonly PumpBeside[];
  /** what stood on the bags of what is fitted, place by place */
  readonly fitted?: Procedure['fitted'];
  /** of a build: the machine has another cooler now, that is measured and comes off first */
  readonly fromCooler?: boolean;
  /** a service instead of a commissioning */
  readonly service?: ServiceFacts;
  /** pumps whose unit was found tight on its own before this build */
  readonly testedAlone?: readonly string[];
  /** `loop` is nothing but this, out of its case and closed by a scrap of tube */
  readonly unit?: UnitTested;
}

/** What small service work puts back: what left, as the jug says. */
function topUp(lostMl: number): FillPlan {
  return {
    kind: 'gravity',
    total: { volumeMl: lostMl, sdMl: jugSdMl(lostMl) },
    reason: say('Only what left the loop is put back; the rest of it is still full.'),
  };
}

/** What only some procedures carry. */
const whereGiven = ({
  start,
  service,
  unit,
  templateNumber,
  fitted = [],
}: ProcedureInput): Pick<Procedure, 'start' | 'service' | 'unit' | 'templateNumber' | 'fitted'> => ({
  ...(fitted.length > 0 ? { fitted } : {}),
  ...(start ? { start } : {}),
  ...(service ? { service } : {}),
  ...(unit ? { unit } : {}),
  ...(templateNumber === undefined ? {} : { templateNumber }),
});

/** The workshop's own procedure of this kind, or the standard one. */
function templateOf({ service, template, fromCooler, unit }: ProcedureInput): ProcedureTemplate {
  if (unit) return UNIT_TEMPLATE;
  const own = withTraits(service?.kind ?? 'commissioning', template ?? (service ? serviceTemplate(service.kind) : STANDARD_TEMPLATE));
  return fromCooler
    ? afterOldCooler(own)
    : service
      ? withBeside(service.kind, withRinse(withWanted(own, service), service), service.beside)
      : own;
}

/** The commissioning of one loop, from kit list to sign-off, with its own parts, joints and figures. */
export function buildProcedure(input: ProcedureInput): Procedure {
  const { loop, schools } = input;
  const school = LEAK_SCHOOLS[schools.leak];
  const volume = loopVolume(loop);
  const opened = school.openedOnly ? (input.opened ?? null) : null;
  const { service } = input;
  const fillPlan = service ? refillPlan(loop, service) : opened ? topUp(opened.lostMl) : planFill(loop);
  const known = loopFacts(loop, input.liquid ?? WATER);
  // the simulated fill begins with a dry loop: of one that was drained it would say too much
  const facts = service && service.kind !== 'strip-clean' ? { ...known, fill: null } : known;
  const limitMbarLs = LEAK_LIMITS[schools.limit].mbarLs;
  const hold = holdMinutes({ volumeMl: volume.volumeMl, limitMbarLs, resolutionKpa: schools.gaugeResolutionKpa });
  const wetSeconds = school.wet ? WET_SCHOOLS[schools.wet].seconds : null;
  return {
    procedureVersion: PROCEDURE_VERSION,
    schools,
    volume: { volumeMl: volume.volumeMl, sdMl: volume.sdMl },
    fillPlan,
    dry: school.dry ? { limitMbarLs, holdMinutes: hold } : null,
    wetSeconds,
    facts,
    twin: { loop, liquid: input.liquid ?? WATER },
    ...whereGiven(input),
    steps: expandTemplate(templateOf(input), {
      loop,
      service,
      pumpsBeside: input.pumpsBeside ?? [],
      connectors: input.connectors ?? null,
      kitLearned: input.kitLearned ?? [],
      bottles: input.order?.bottles ?? null,
      coolantName: input.coolantName,
      facts,
      dry: school.dry,
      holdMinutes: hold,
      wetSeconds,
      parts: school.parts,
      isUnit: input.unit !== undefined,
      testedAlone: input.testedAlone ?? [],
      onlyJoints: opened?.joints ?? null,
      fanStacks: input.fanStacks,
    }),
  };
}
