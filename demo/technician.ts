import { sistersOf } from '../core/bench/leak-finding/causes.js';
import type { BaselineReading } from '../core/physics/diagnosis/reading.js';
import type { RunEvent } from '../core/bench/runs/log.js';
import type { RunEventBody } from '../core/bench/runs/entries/all.js';
import { fillTotal } from '../core/bench/runs/contents.js';
import { replay } from '../core/bench/runs/replay.js';
import { refuseEntry } from '../core/bench/runs/rules.js';
import { pouredMl } from '../core/bench/runs/state.js';
import { stepThat, type Procedure, type ProcedureStep } from '../core/bench/runs/procedure.js';
import type { Random } from '../core/base/random/random.js';
import { serviceHands, type ServiceScript } from './serviceHands.js';

export interface DemoCoolant {
  readonly productId: string;
  readonly productName: string;
  readonly lotId: string;
  readonly lot: string;
}

export interface Script {
  readonly procedure: Procedure;
  readonly startMs: number;
  readonly random: Random;
  readonly coolant: DemoCoolant;
  readonly by: string;
  /** stop inside this step instead of going through to the sign-off */
  readonly stopIn?: string;
  /** what a service comes upon; missing: everything is sound */
  readonly service?: ServiceScript;
}

/** s between two ticks of a careful technician */
const TICK_S = 35;

/** Plays a run the way a practised technician would, as entries of a run's log, up to the sign-off. */
export function playRun({ procedure, startMs, random, coolant, by, stopIn, service = {} }: Script): RunEvent[] {
  const events: RunEvent[] = [];
  let nowMs = startMs;
  const say = (body: RunEventBody, afterS = TICK_S): void => {
    nowMs += afterS * 1000;
    events.push({ id: random.uuid(), seq: events.length + 1, at: new Date(nowMs).toISOString(), by, body });
  };
  for (const step of procedure.steps) {
    const partial = step.id === stopIn;
    const checks = partial ? step.checks.slice(0, Math.ceil(step.checks.length / 3)) : step.checks;
    const isTest = step.kind === 'wet-run' || step.kind === 'dry-test';
    const tick = (isBefore: boolean): void =>
      checks
        .filter(({ after }) => isBefore === (!isTest && after === undefined))
        .forEach(({ id }) => say({ type: 'check', step: step.id, check: id, mark: 'done' }));
    tick(true);
    act({ procedure, step, random, coolant, say, partial, service, events });
    tick(false);
    if (step.kind === 'wet-run' && !partial) retest(events, say);
    if (partial || step.kind === 'sign-off') break;
    say({ type: 'step-done', step: step.id }, 20);
  }
  return events;
}

interface Act {
  readonly procedure: Procedure;
  readonly step: ProcedureStep;
  readonly random: Random;
  readonly coolant: DemoCoolant;
  readonly say: (body: RunEventBody, afterS?: number) => void;
  readonly partial: boolean;
  readonly service: ServiceScript;
  readonly events: readonly RunEvent[];
}

function act({ procedure, step, random, coolant, say, partial, service, events }: Act): void {
  if (step.does.includes('mends')) mend(service, events, say);
  serviceHands(procedure, step, service, say);
  switch (step.kind) {
    case 'dry-test':
      return dryTest(random, say, partial ? 14 : Math.ceil(procedure.dry?.holdMinutes ?? 10) + 16);
    case 'fill':
      // a unit on its own is tested with water
      if (!procedure.unit) say({ type: 'coolant', ...coolant });
      return pour(procedure, random, say, events);
    case 'wet-run':
      step.timers.forEach(({ id, seconds }) => {
        say({ type: 'timer-started', step: step.id, timer: id });
        if (!partial) say({ type: 'timer-stopped', step: step.id, timer: id }, seconds + 60);
      });
      return;
    case 'part-test':
      return letOut(procedure, events, say);
    case 'bleed':
      return bleed(random, say);
    case 'power':
      step.timers.forEach(({ id, seconds }) => {
        say({ type: 'timer-started', step: step.id, timer: id });
        say({ type: 'timer-stopped', step: step.id, timer: id }, seconds + 30);
      });
      return;
    case 'baseline':
      return step.does.includes('measures-before') ? measureBefore(service, random, say) : measure(random, say);
    default:
  }
}

/** A tight loop: warm air settles with a time constant of some 150 s, the room drifts, the gauge reads to 0.1 kPa. */
function dryTest(random: Random, say: Act['say'], minutes: number): void {
  const start = random.between(49.5, 51);
  const drift = random.between(-0.15, 0.15);
  for (let minute = 0; minute <= minutes; minute += 2) {
    const tempC = 21.4 + (drift * minute) / minutes + 0.03 * random.normal();
    const settled = start - 1.3 * (1 - Math.exp((-minute * 60) / 150));
    const gauge = (settled + 101.325) * ((tempC + 273.15) / (21.4 + 273.15)) - 101.325;
    say({ type: 'dry-reading', gaugeKpa: Math.round(gauge * 10) / 10, tempC: Math.round(tempC * 10) / 10 }, minute === 0 ? 90 : 120);
  }
}

/** Mended joints are looked at again once the pump ran. */
function retest(events: readonly RunEvent[], say: Act['say']): void {
  for (const { id, body } of events) if (body.type === 'leak') say({ type: 'leak-retested', leak: id, dry: true });
}

/** The leak is mended, whatever else is renewed; the fix that waits for a part says so. */
function mend({ leak, temporary }: ServiceScript, events: readonly RunEvent[], say: Act['say']): void {
  const found = events.find(({ body }) => body.type === 'leak');
  if (found && leak) {
    say({ type: 'leak-mended', leak: found.id, cause: leak.cause, fix: leak.fix }, 900);
    if (sistersOf(leak.cause)) say({ type: 'sisters-seen', leak: found.id, text: 'all sound' }, 240);
  }
  if (temporary) say({ type: 'temporary-fix', step: 'mend', ...temporary });
}

/** s of pump between two pours, and until liquid is seen to come back */
const PULSE_S = 12;
const ROUND_S = 40;

function pour(procedure: Procedure, random: Random, say: Act['say'], events: readonly RunEvent[]): void {
  const plan = procedure.fillPlan;
  if (procedure.service) {
    const volumeMl = Math.round(fillTotal(procedure, replay(procedure, events)).volumeMl / 5) * 5;
    say({ type: 'pour', volumeMl: Math.max(5, volumeMl) }, 400);
  } else {
    const error = 1 + (0.6 * random.normal() * plan.total.sdMl) / plan.total.volumeMl;
    const steps = plan.kind === 'pulses' ? [plan.firstPourMl, ...plan.pulses.map(({ pourMl }) => pourMl)] : [plan.total.volumeMl];
    steps.forEach((step, index) => {
      if (index > 0) pulse(procedure, say, events);
      say({ type: 'pour', volumeMl: Math.max(5, Math.round((step * error) / 5) * 5) }, 110);
    });
  }
  goRound(procedure, say);
}

/** Where the machine keeps its own power nobody runs the pump alone. */
const runsPump = (procedure: Procedure): boolean => stepThat(procedure, 'isolates') !== undefined;

/** A pulse between two pours, where enough stands in the reservoir for it. */
function pulse(procedure: Procedure, say: Act['say'], events: readonly RunEvent[]): void {
  if (!runsPump(procedure)) return;
  const nowMs = Date.parse(events.at(-1)?.at ?? '') + 60_000;
  const on = { type: 'pump', on: true } as const;
  if (refuseEntry(procedure, replay(procedure, events), events, on, nowMs)) return;
  say(on, 20);
  say({ type: 'pump', on: false }, PULSE_S);
}

/** Full: liquid comes back, and the level stands at its mark. */
function goRound(procedure: Procedure, say: Act['say']): void {
  const mark = procedure.facts?.reservoir?.fillMarkMl;
  if (mark === undefined || procedure.unit) return;
  if (runsPump(procedure)) {
    say({ type: 'level', levelMl: Math.round(mark) }, 20);
    say({ type: 'pump', on: true }, 30);
    say({ type: 'returned' }, ROUND_S);
    say({ type: 'pump', on: false }, 10);
  }
  say({ type: 'level', levelMl: Math.round(mark) }, 40);
}

/** mL that stay in a pump that was tipped out */
const STAYS_ML = 12;

/** A unit out of its case: over the jug, and what it was found to be. */
function letOut(procedure: Procedure, events: readonly RunEvent[], say: Act['say']): void {
  const { unit } = procedure;
  if (!unit) return;
  say({ type: 'outflow', way: 'drawn-off', volumeMl: pouredMl(replay(procedure, events)) - STAYS_ML }, 240);
  for (const part of [unit.pump, unit.reservoir])
    say({ type: 'part-test', part, tight: true, how: 'ten minutes, scrap of tube, fresh towel', leftMl: STAYS_ML });
}

function bleed(random: Random, say: Act['say']): void {
  const full = Math.round(random.between(118, 126));
  [
    [-7, 6, true],
    [-3, 3.5, true],
    [-1, 1.5, false],
    [-0.5, 1, false],
    [-0.5, 1, false],
  ].forEach(([below, rise, bubbles]) =>
    say(
      {
        type: 'bleed-cycle',
        runningMm: full + Number(below),
        stoppedMm: full + Number(below) + Number(rise),
        bubbles: Boolean(bubbles),
        noise: false,
      },
      420,
    ),
  );
}

/** The same load as the baseline, some kelvin hotter: what the owner complained about. */
function measureBefore({ before = 46 }: ServiceScript, random: Random, say: Act['say']): void {
  const roomC = Math.round(random.between(20, 25) * 10) / 10;
  const reading: BaselineReading = {
    setting: 'load, quiet',
    workload: 'render and graphics together',
    durationMinutes: 45,
    powerW: 400,
    sensor: 'processor package',
    statistic: 'mean of the last five minutes',
    panels: 'on',
    pumpPercent: 60,
    fanPercent: 40,
    roomC,
    partC: Math.round((roomC + before) * 10) / 10,
    coolantC: Math.round((roomC + 12) * 10) / 10,
    flowLph: Math.round(random.between(120, 180)),
    levelMm: 118,
  };
  say({ type: 'baseline', reading, before: true }, 2800);
}

function measure(random: Random, say: Act['say']): void {
  const roomC = Math.round(random.between(20, 25) * 10) / 10;
  const powerW = Math.round(random.between(280, 520) / 10) * 10;
  const common = {
    statistic: 'mean of the last five minutes',
    panels: 'on',
    roomC,
    flowLph: Math.round(random.between(140, 220)),
    levelMm: 122,
  } as const;
  const round = (value: number): number => Math.round(value * 10) / 10;
  const idle: BaselineReading = {
    ...common,
    setting: 'idle, quiet',
    workload: 'desktop idle',
    durationMinutes: 20,
    powerW: 70,
    sensor: 'processor package',
    pumpPercent: 40,
    fanPercent: 30,
    partC: round(roomC + random.between(9, 13)),
    coolantC: round(roomC + random.between(3, 5)),
  };
  const load: BaselineReading = {
    ...common,
    setting: 'load, quiet',
    workload: 'render and graphics together',
    durationMinutes: 45,
    powerW,
    sensor: 'processor package',
    pumpPercent: 60,
    fanPercent: 40,
    partC: round(roomC + random.between(38, 48)),
    coolantC: round(roomC + random.between(9, 14)),
  };
  say({ type: 'baseline', reading: idle }, 1300);
  say({ type: 'baseline', reading: load }, 2800);
}
