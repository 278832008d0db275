import type { BaselineReading, RunEvent, RunEventBody } from '../../core/commissioning/events.js';
import type { Procedure, ProcedureStep } from '../../core/commissioning/procedure.js';
import type { Random } from '../../core/random/random.js';

export interface DemoCoolant {
  readonly productId: string;
  readonly productName: string;
  readonly batchId: string;
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
}

/** s between two ticks of a careful technician */
const TICK_S = 35;

/** Plays a commissioning the way a practised technician would, as entries of a run's log, up to the sign-off. */
export function playCommissioning({ procedure, startMs, random, coolant, by, stopIn }: Script): RunEvent[] {
  const events: RunEvent[] = [];
  let nowMs = startMs;
  const say = (body: RunEventBody, afterS = TICK_S): void => {
    nowMs += afterS * 1000;
    events.push({ id: random.uuid(), seq: events.length + 1, at: new Date(nowMs).toISOString(), by, body });
  };
  for (const step of procedure.steps) {
    const partial = step.id === stopIn;
    const checks = partial ? step.checks.slice(0, Math.ceil(step.checks.length / 3)) : step.checks;
    const tick = (): void => checks.forEach(({ id }) => say({ type: 'check', step: step.id, check: id, mark: 'done' }));
    if (step.kind !== 'wet-run') tick();
    act({ procedure, step, random, coolant, say, partial });
    if (step.kind === 'wet-run') tick();
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
}

function act({ procedure, step, random, coolant, say, partial }: Act): void {
  switch (step.kind) {
    case 'dry-test':
      return dryTest(random, say, partial ? 14 : Math.ceil(procedure.dry?.holdMinutes ?? 10) + 16);
    case 'fill':
      say({ type: 'coolant', ...coolant });
      return pour(procedure, random, say);
    case 'wet-run':
      step.timers.forEach(({ id, seconds }) => {
        say({ type: 'timer-started', step: step.id, timer: id });
        if (!partial) say({ type: 'timer-stopped', step: step.id, timer: id }, seconds + 60);
      });
      return;
    case 'bleed':
      return bleed(random, say);
    case 'power':
      step.timers.forEach(({ id, seconds }) => {
        say({ type: 'timer-started', step: step.id, timer: id });
        say({ type: 'timer-stopped', step: step.id, timer: id }, seconds + 30);
      });
      return;
    case 'baseline':
      return measure(random, say);
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

function pour(procedure: Procedure, random: Random, say: Act['say']): void {
  const plan = procedure.fillPlan;
  const error = 1 + (0.6 * random.normal() * plan.total.sdMl) / plan.total.volumeMl;
  const steps = plan.kind === 'pulses' ? [plan.firstPourMl, ...plan.pulses.map(({ pourMl }) => pourMl)] : [plan.total.volumeMl];
  for (const step of steps) say({ type: 'pour', volumeMl: Math.max(5, Math.round((step * error) / 5) * 5) }, 150);
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
