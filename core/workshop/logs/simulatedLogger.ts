import { seededRandom, type Random } from '../../base/random/random.js';
import { addDays } from '../../base/units/calendar.js';
import type { Fluid } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { CAUSE_AT, HEAT_CAUSES, type HeatCause } from '../../physics/diagnosis/causes.js';
import { shiftAt } from '../../physics/diagnosis/diagnose.js';
import { Hydraulics, showAt, type Shift, type SoundTwin } from '../../physics/diagnosis/heatTwin.js';
import type { LoadReading } from '../../physics/diagnosis/loadReading.js';
import type { ReadPart } from '../../physics/diagnosis/sensors.js';

/** A machine whose fault grows, day by day, while its logger writes. */
export interface SimulatedMachine {
  readonly loop: LoopFile;
  readonly fluid: Fluid;
  readonly parts: readonly ReadPart[];
  /** first day and how many */
  readonly fromOn: string;
  readonly days: number;
  readonly seed: number;
  /** what ails it, and where; missing: the seed decides */
  /** how far through its range the fault comes by the last day, 0 to 1; missing: `LOGGER.reaches` */
  readonly reaches?: number;
  readonly fault?: { readonly cause: HeatCause; readonly part: string | null };
}

/** How the stand-in of a logger writes, and how its machine is used (figures of its own). */
const LOGGER = {
  secondsPerLine: 20,
  /** share of the days behind which the fault begins */
  soundShare: 0.25,
  /** how far through its range it comes */
  reaches: 0.75,
  /** share of the days on which nobody uses it */
  idleDays: 0.15,
  /** min: the coolant's time constant, and the part's over the coolant's */
  coolantMinutes: 8,
  partMinutes: 0.5,
  pumpRpm: 4600,
  fanRpm: 1650,
  noise: { partC: 0.35, coolantC: 0.08, roomC: 0.05, powerShare: 0.02, flowShare: 0.012, rpmShare: 0.004 },
} as const;

const headings = ['Time', 'Room °C', 'Coolant °C', 'Flow L/h', 'Pump rpm', 'Fans rpm'] as const;

/** What ails the machine of a seed. */
export function hiddenFaultOf({ loop, seed, fault }: SimulatedMachine): { cause: HeatCause; part: string | null } {
  if (fault) return fault;
  const random = seededRandom(seed);
  const cause = random.pick(HEAT_CAUSES.filter((each) => each !== 'nothing'));
  const kind = CAUSE_AT[cause];
  const places = loop.components.filter((each) => each.kind === kind).map(({ id }) => id);
  return { cause, part: kind === 'loop' || places.length === 0 ? null : random.pick(places) };
}

/** A fault on its way from nothing to all of it. */
export function grown(shift: Shift, share: number): Shift {
  const factor = (value: number): number => 1 + (value - 1) * share;
  return {
    ...(shift.air ? { air: { ...shift.air, share: factor(shift.air.share) } } : {}),
    ...(shift.loss ? { loss: { ...shift.loss, factor: factor(shift.loss.factor) } } : {}),
    ...(shift.ua ? { ua: { ...shift.ua, factor: factor(shift.ua.factor) } } : {}),
    ...(shift.film ? { film: { ...shift.film, factor: factor(shift.film.factor) } } : {}),
    ...(shift.paste ? { paste: { ...shift.paste, kPerW: shift.paste.kPerW * share } } : {}),
    ...(shift.head === undefined ? {} : { head: factor(shift.head) }),
    ...(shift.flow === undefined ? {} : { flow: factor(shift.flow) }),
    ...(shift.viscosity === undefined ? {} : { viscosity: factor(shift.viscosity) }),
  };
}

interface Session {
  readonly fromMinute: number;
  readonly minutes: number;
  /** share of the parts' full power; null: it waits */
  readonly load: number;
}

/** When it runs on a day: an hour or two, or twice, with a pause between loads. */
function sessionsOf(random: Random): Session[] {
  if (random.next() < LOGGER.idleDays) return [];
  const start = Math.round(random.between(8 * 60, 17 * 60));
  const idle = (fromMinute: number, minutes: number): Session => ({ fromMinute, minutes, load: 0 });
  const one = Math.round(random.between(35, 80));
  const first: Session[] = [idle(start, 6), { fromMinute: start + 6, minutes: one, load: random.between(0.85, 1) }];
  const behind = start + 6 + one;
  return random.next() < 0.6
    ? [...first, idle(behind, 8)]
    : [
        ...first,
        idle(behind, 15),
        { fromMinute: behind + 15, minutes: Math.round(random.between(25, 50)), load: random.between(0.6, 0.95) },
      ];
}

const IDLE_W = 22;
const round = (value: number, digits: number): string => value.toFixed(digits);
const clockOf = (minute: number): string => {
  const seconds = Math.round(minute * 60);
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`;
};

/**
 * The small logger that ships with the application: a table as a monitoring program writes it, of a machine on its own twin that ages,
 * with a fault nobody is told of. Times are the machine's own clock.
 * @yields text, a day at a time, the heading first
 */
export function* simulatedLog(machine: SimulatedMachine): Generator<string> {
  const { loop, fluid, parts, fromOn, days, seed } = machine;
  const random = seededRandom(seed + 1);
  const blocks = loop.components.filter(({ kind }) => kind === 'block').map(({ id }) => id);
  const twin: SoundTwin = {
    hydraulics: new Hydraulics(loop, fluid),
    pumpFactor: random.between(0.92, 1.08),
    radiatorSize: random.between(0.8, 1.2),
    blockFactors: Object.fromEntries(blocks.map((id) => [id, random.between(0.9, 1.3)])),
  };
  const fullW = Object.fromEntries(blocks.map((id) => [id, Math.round(random.between(140, 280))]));
  const { cause, part } = hiddenFaultOf(machine);
  const whole = shiftAt(cause, part, machine.reaches ?? LOGGER.reaches);
  const names = parts.filter((each) => blocks.includes(each.part));
  yield `${[...headings, ...names.flatMap(({ name }) => [`${name} °C`, `${name} power W`])].join(',')}\n`;
  for (let index = 0; index < days; index += 1) {
    const share = Math.max(0, (index / Math.max(1, days - 1) - LOGGER.soundShare) / (1 - LOGGER.soundShare));
    const roomC = 21 + 2.5 * Math.sin(index / 9) + random.normal();
    yield dayOf(addDays(fromOn, index), { random, twin, names, fullW, shift: grown(whole, share), roomC });
  }
}

interface Day {
  readonly random: Random;
  readonly twin: SoundTwin;
  readonly names: readonly ReadPart[];
  readonly fullW: Readonly<Record<string, number>>;
  readonly shift: Shift;
  readonly roomC: number;
}

function dayOf(on: string, { random, twin, names, fullW, shift, roomC }: Day): string {
  const lines: string[] = [];
  const { noise } = LOGGER;
  const step = LOGGER.secondsPerLine / 60;
  let coolantRise = 0;
  const over = new Map<string, number>();
  for (const { fromMinute, minutes, load } of sessionsOf(random)) {
    const powersW = Object.fromEntries(Object.entries(fullW).map(([id, watts]) => [id, load === 0 ? IDLE_W : watts * load]));
    const reading: LoadReading = { roomC, powersW, partsC: {}, pumpSpeed: 0.7, fanSpeed: 0.6 };
    const end = showAt(twin, reading, shift);
    if (!end) continue;
    for (let line = 0; line < minutes / step; line += 1) {
      const minute = fromMinute + line * step;
      coolantRise += (end.coolantC - roomC - coolantRise) * (1 - Math.exp(-step / LOGGER.coolantMinutes));
      const cells = names.flatMap(({ part }) => {
        const wanted = (end.partsC[part] ?? roomC) - end.coolantC;
        const before = over.get(part) ?? 0;
        const now = before + (wanted - before) * (1 - Math.exp(-step / LOGGER.partMinutes));
        over.set(part, now);
        const watts = (powersW[part] ?? 0) * (1 + noise.powerShare * random.normal());
        return [round(roomC + coolantRise + now + noise.partC * random.normal(), 1), round(watts, 1)];
      });
      lines.push(
        [
          `${on} ${clockOf(minute)}`,
          round(roomC + noise.roomC * random.normal(), 1),
          round(roomC + coolantRise + noise.coolantC * random.normal(), 2),
          round(end.flowLph * (1 + noise.flowShare * random.normal()), 1),
          round(0.7 * LOGGER.pumpRpm * (1 + noise.rpmShare * random.normal()), 0),
          round(0.6 * LOGGER.fanRpm * (1 + noise.rpmShare * random.normal()), 0),
          ...cells,
        ].join(','),
      );
    }
  }
  return lines.length === 0 ? '' : `${lines.join('\n')}\n`;
}
