import { seededRandom } from '../../base/random/random.js';
import type { LoopComponent, LoopFile, LoopTube, Point } from './loopFile.js';

/** Loops made from a seed, for tests and the benchmark: the same seed gives the same loop on every machine. */

/** A repeatable stream of numbers in [0, 1). */
export const seeded = (seed: number): (() => number) => seededRandom(seed).next;

const between = (random: () => number, low: number, high: number): number => low + (high - low) * random();
const pick = <T>(random: () => number, from: readonly T[]): T => from[Math.floor(random() * from.length)] as T;

const BORES = [
  [8, 11],
  [10, 13],
  [10, 16],
  [12, 16],
  [13, 19],
] as const;
const KINDS = ['compression', 'barb', '45', '90', 'tee-through', 'tee-branch', 'valve', 'coupling'] as const;

/** Puts parts together: every call gives the new part's id. */
class Builder {
  readonly components: LoopComponent[] = [];
  readonly tubes: LoopTube[] = [];
  constructor(private readonly random: () => number) {}

  add(kind: string, more: Partial<LoopComponent> = {}): string {
    const id = `${kind}-${this.components.length}`;
    const at = [between(this.random, 0, 400), between(this.random, 0, 480), between(this.random, 20, 140)] as const;
    this.components.push({
      id,
      kind,
      volume_ml: 30,
      ports: { in: at, out: [at[0] + 20, at[1], at[2]] },
      flow: ['in', 'out'],
      ...more,
    });
    return id;
  }

  block(): string {
    const { random } = this;
    return this.add('block', {
      resistance: { linear_kpa_per_lpm: between(random, 0, 0.4), quadratic_kpa_per_lpm2: between(random, 0.05, 1.2) },
    });
  }

  pump(): string {
    const { random } = this;
    const shutOff = between(random, 25, 55);
    const free = between(random, 800, 1600);
    return this.add('pump', {
      curve: [0, 0.35, 0.7, 1].map((share) => [share * free, shutOff * (1 - share ** 1.8)] as const),
      speed: between(random, 0.4, 1),
    });
  }

  junction(): string {
    const at = [between(this.random, 0, 400), between(this.random, 0, 480), 80] as const;
    return this.add('junction', { ports: { a: at, b: at, c: at, d: at }, flow: undefined, volume_ml: 5 });
  }

  join(from: readonly [string, string], to: readonly [string, string]): void {
    const { random } = this;
    const [bore_mm, outer_mm] = pick(random, BORES);
    this.tubes.push({
      id: `tube-${this.tubes.length}`,
      from,
      to,
      bore_mm,
      outer_mm,
      material: 'epdm',
      path: [],
      length_mm: between(random, 40, 600),
      fittings: Array.from({ length: Math.floor(between(random, 0, 4)) }, () => pick(random, KINDS)),
    });
  }

  file(name: string): LoopFile {
    return { format: 'lavacrum-loop', version: 1, name, components: this.components, tubes: this.tubes };
  }
}

/**
 * A loop with a trunk of one or two pumps and `stages` places where it splits into branches of one to three blocks;
 * a stage may hold a bypass tube, or a bridge between two of its branches.
 */
export function generateNetwork(seed: number, stages = 1 + (seed % 3)): LoopFile {
  const random = seeded(seed);
  const build = new Builder(random);
  const reservoir = build.add('reservoir', { volume_ml: 250, box: { min: [300, 90, 60], max: [350, 260, 110] } });
  const start = reservoir;
  let last: readonly [string, string] = [reservoir, 'out'];
  const append = (id: string): void => {
    build.join(last, [id, 'in']);
    last = [id, 'out'];
  };
  append(build.pump());
  if (random() < 0.4) append(build.pump());
  for (let stage = 0; stage < stages; stage += 1) {
    append(build.block());
    const split = build.junction();
    const meet = build.junction();
    build.join(last, [split, 'a']);
    const branches = ['b', 'c', 'd'].slice(0, random() < 0.5 ? 2 : 3);
    branches.forEach((port, index) => {
      let at: readonly [string, string] = [split, port];
      if (index === 2 && random() < 0.5) {
        build.join(at, [meet, port]);
        return;
      }
      const blocks = 1 + Math.floor(random() * 3);
      for (let block = 0; block < blocks; block += 1) {
        const id = build.block();
        build.join(at, [id, 'in']);
        at = [id, 'out'];
      }
      build.join(at, [meet, port]);
    });
    last = [meet, 'a'];
  }
  build.join(last, [start, 'in']);
  return build.file(`generated ${seed}`);
}

/** A ladder of `rungs` rungs: every rung and rail a tube with a block between, about 4 links a rung. For the benchmark. */
export function generateLadder(rungs: number): LoopFile {
  const build = new Builder(seeded(rungs));
  const reservoir = build.add('reservoir', { volume_ml: 250 });
  const pump = build.pump();
  build.join([reservoir, 'out'], [pump, 'in']);
  let high = build.junction();
  let low = build.junction();
  build.join([pump, 'out'], [high, 'a']);
  build.join([low, 'a'], [reservoir, 'in']);
  for (let rung = 0; rung < rungs; rung += 1) {
    const block = build.block();
    build.join([high, 'b'], [block, 'in']);
    build.join([block, 'out'], [low, 'b']);
    const nextHigh = build.junction();
    const nextLow = build.junction();
    build.join([high, 'c'], [nextHigh, 'a']);
    build.join([nextLow, 'a'], [low, 'c']);
    high = nextHigh;
    low = nextLow;
  }
  const last = build.block();
  build.join([high, 'b'], [last, 'in']);
  build.join([last, 'out'], [low, 'b']);
  return build.file(`ladder ${rungs}`);
}

/** The benchmark's loop: a pump, two blocks side by side, a meter and a radiator; 14 links. */
export function generateParallelLoop(): LoopFile {
  const build = new Builder(seeded(3));
  const reservoir = build.add('reservoir', { volume_ml: 250, box: { min: [300, 90, 60], max: [350, 260, 110] } });
  const pump = build.pump();
  const [first, second, radiator] = [build.block(), build.block(), build.block()];
  const [split, meet] = [build.junction(), build.junction()];
  build.join([reservoir, 'out'], [pump, 'in']);
  build.join([pump, 'out'], [split, 'a']);
  build.join([split, 'b'], [first, 'in']);
  build.join([split, 'c'], [second, 'in']);
  build.join([first, 'out'], [meet, 'b']);
  build.join([second, 'out'], [meet, 'c']);
  const meter = build.block();
  build.join([meet, 'a'], [meter, 'in']);
  build.join([meter, 'out'], [radiator, 'in']);
  build.join([radiator, 'out'], [reservoir, 'in']);
  return build.file('parallel cards');
}

/** The same loop with every tube laid in a zigzag, so that it has about `nodes` nodes. */
export function lengthenTubes(loop: LoopFile, nodes: number): LoopFile {
  // a leg is some 250 mm, and a node lies every 10 mm
  const bends = Math.ceil(nodes / loop.tubes.length / 17);
  const random = seeded(nodes);
  return {
    ...loop,
    tubes: loop.tubes.map((tube) => ({
      ...tube,
      path: Array.from({ length: bends }, (_, bend): Point => [200 + (bend % 2) * 60, 40 + 400 * random(), 80]),
    })),
  };
}

const wholePoint = (random: () => number): Point => [
  Math.round(between(random, 20, 440)),
  Math.round(between(random, 20, 490)),
  Math.round(between(random, 20, 140)),
];

/** A vessel as a box with its two flow ports and one plugged port somewhere on its surface. */
function vessel(random: () => number, id: string, kind: 'reservoir' | 'radiator'): LoopComponent {
  const min = wholePoint(random);
  const size = [0, 1, 2].map(() => Math.round(between(random, 25, 260)));
  const max = min.map((value, axis) => value + (size[axis] as number)) as unknown as Point;
  const onSurface = (): Point => {
    const at = min.map((value, axis) => Math.round(value + random() * (size[axis] as number)));
    const face = Math.floor(random() * 3);
    at[face] = (random() < 0.5 ? min : max)[face] as number;
    return at as unknown as Point;
  };
  const volume_ml = Math.round(between(random, 60, 400));
  return {
    id,
    kind,
    volume_ml,
    box: { min, max },
    ports: { a: onSurface(), b: onSurface(), plug: onSurface() },
    flow: ['a', 'b'],
    closures: { plug: 'plug' },
    ...(kind === 'reservoir' ? { max_fill_ml: Math.round(0.9 * volume_ml), low_mark_ml: Math.round(0.3 * volume_ml) } : {}),
  };
}

/**
 * A series loop in space: reservoir, pump, radiators and blocks at random places, tubes with random bends of narrow and
 * wide bore. All coordinates are whole millimetres, so that turning by quarter turns loses nothing.
 */
export function generateSpatialLoop(seed: number): LoopFile {
  const random = seeded(seed);
  const components: LoopComponent[] = [vessel(random, 'res', 'reservoir')];
  const small = (id: string, kind: string): LoopComponent => {
    const at = wholePoint(random);
    return {
      id,
      kind,
      volume_ml: Math.round(between(random, 5, 70)),
      ports: { a: at, b: [at[0] + 30, at[1], at[2]], low: [at[0] + 15, at[1] - 14, at[2]] },
      flow: ['a', 'b'],
      closures: { low: 'valve' },
      ...(kind === 'pump'
        ? {
            curve: [
              [0, 40],
              [1500, 0],
            ] as const,
          }
        : {}),
    };
  };
  components.push(small('pump', 'pump'));
  const count = 2 + Math.floor(random() * 4);
  for (let index = 0; index < count; index += 1) {
    components.push(random() < 0.45 ? vessel(random, `rad${index}`, 'radiator') : small(`block${index}`, 'block'));
  }
  const tubes = components.map((component, index): LoopTube => {
    const next = components[(index + 1) % components.length] as LoopComponent;
    const [bore_mm, outer_mm] = pick(random, BORES);
    return {
      id: `t${index}`,
      from: [component.id, 'b'],
      to: [next.id, 'a'],
      bore_mm,
      outer_mm,
      material: 'epdm',
      path: Array.from({ length: Math.floor(random() * 3) }, () => wholePoint(random)),
      fittings: ['compression', 'compression'],
    };
  });
  return { format: 'lavacrum-loop', version: 1, name: `spatial ${seed}`, components, tubes };
}

/** Every port and tube end of a loop, as openings are named. */
export const allPorts = (loop: LoopFile): string[] =>
  loop.components.flatMap(({ id, ports }) => Object.keys(ports).map((port) => `${id}.${port}`));
