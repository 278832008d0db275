import type { Fluid } from '../../core/machine/liquids/fluids.js';
import { Project, Workspace } from 'epanet-js';
import { brokenLine, valueAt } from '../../core/base/numerics/broken.js';
import { fittingK, FLOW, LPH_PER_LPM } from '../../core/physics/flow/defaults.js';
import { tubeLengthMm, type LoopComponent, type LoopFile } from '../../core/machine/loop-file/loopFile.js';

/**
 * The loop as input text of an independent network solver: components as valves with a dense head-loss curve, tubes as
 * pipes with Darcy–Weisbach friction. `ratio` sets the curves' points: each flow is that many times the one before. Its own node numbering, so that nothing of ours is compared with itself.
 */
export function epanetInput(loop: LoopFile, fluid: Fluid, ratio = 1.01): string {
  const metresPerKpa = 1000 / (fluid.densityKgM3 * FLOW.gravity);
  const node = (component: LoopComponent, port: string): string => {
    const lossless = component.kind !== 'pump' && !component.resistance;
    return lossless ? `N_${component.id}` : `N_${component.id}_${port}`;
  };
  const byId = new Map(loop.components.map((component) => [component.id, component]));
  const portNode = ([id, port]: readonly [string, string]): string => node(byId.get(id) as LoopComponent, port);
  const nodes = new Set<string>();
  const valves: string[] = [];
  const pumps: string[] = [];
  const pipes: string[] = [];
  const curves: string[] = [];
  for (const component of loop.components) {
    for (const port of Object.keys(component.ports)) nodes.add(node(component, port));
    if (component.kind !== 'pump' && !component.resistance) continue;
    const [from, to] = ['in', 'out'].map((port) => node(component, port));
    if (component.kind === 'pump') {
      pumps.push(`${component.id} ${from} ${to} HEAD C_${component.id} SPEED ${component.speed ?? 1}`);
      const line = brokenLine(component.curve ?? []);
      const free = component.curve?.at(-1)?.[0] ?? 0;
      const inner = Array.from({ length: 101 }, (_, index) => (index / 100) * free);
      const points = [...new Set([...inner, ...(component.curve ?? []).map(([lph]) => lph)])].sort((a, b) => a - b);
      for (const lph of points) curves.push(`C_${component.id} ${lph / LPH_PER_LPM} ${valueAt(line, lph) * metresPerKpa}`);
    } else {
      const { linear_kpa_per_lpm: a, quadratic_kpa_per_lpm2: b } = component.resistance as {
        linear_kpa_per_lpm: number;
        quadratic_kpa_per_lpm2: number;
      };
      valves.push(`${component.id} ${from} ${to} 20 GPV C_${component.id} 0`);
      curves.push(`C_${component.id} 0 0`);
      for (let lpm = 0.01; lpm < 40; lpm *= ratio) curves.push(`C_${component.id} ${lpm} ${(a * lpm + b * lpm * lpm) * metresPerKpa}`);
    }
  }
  for (const tube of loop.tubes) {
    const k = (tube.fittings ?? []).reduce((sum, kind) => sum + fittingK(kind), 0);
    const metres = tubeLengthMm(loop, tube) / 1000;
    pipes.push(`${tube.id} ${portNode(tube.from)} ${portNode(tube.to)} ${metres} ${tube.bore_mm} ${FLOW.roughnessMm} ${k} OPEN`);
  }
  const fixed = node(loop.components.find(({ kind }) => kind === 'reservoir') as LoopComponent, 'in');
  nodes.delete(fixed);
  const kinematic = (fluid.viscosityMPaS * 1e-3) / fluid.densityKgM3;
  return [
    '[TITLE]',
    'generated loop',
    '[JUNCTIONS]',
    ...[...nodes].map((id) => `${id} 0 0`),
    '[RESERVOIRS]',
    `${fixed} 100`,
    '[PIPES]',
    ...pipes,
    '[PUMPS]',
    ...pumps,
    '[VALVES]',
    ...valves,
    '[CURVES]',
    ...curves,
    '[OPTIONS]',
    'UNITS LPM',
    'HEADLOSS D-W',
    `VISCOSITY ${kinematic}`,
    'TRIALS 1000',
    'ACCURACY 0.00001',
    '[TIMES]',
    'DURATION 0',
    '[REPORT]',
    'STATUS NO',
    '[END]',
    '',
  ].join('\n');
}

/** Flow (EN_FLOW), head loss (EN_HEADLOSS) of a link, initial setting (EN_INITSETTING) in the toolkit's numbering. */
const TOOLKIT = { flow: 8, headLoss: 10, initialSetting: 5, noSave: 0 } as const;

export class Epanet {
  private constructor(private readonly workspace: Workspace) {}

  static async load(): Promise<Epanet> {
    const workspace = new Workspace();
    await workspace.loadModule();
    return new Epanet(workspace);
  }

  /** Opens, solves, hands the project to `use` and closes it. */
  withSolved<T>(input: string, use: (project: Project) => T): T {
    const project = new Project(this.workspace);
    this.workspace.writeFile('loop.inp', input);
    project.open('loop.inp', 'loop.rpt', 'loop.out');
    try {
      project.openH();
      project.initH(TOOLKIT.noSave);
      project.runH();
      return use(project);
    } finally {
      project.close();
    }
  }

  /** L/h by link id */
  flowsLph(input: string, ids: readonly string[]): Map<string, number> {
    return this.withSolved(
      input,
      (project) => new Map(ids.map((id) => [id, project.getLinkValue(project.getLinkIndex(id), TOOLKIT.flow) * LPH_PER_LPM])),
    );
  }

  /** Changes a pump's speed and solves again, as a user of that solver would. */
  resolve(project: Project, pump: number, speed: number): void {
    project.setLinkValue(pump, TOOLKIT.initialSetting, speed);
    project.initH(TOOLKIT.noSave);
    project.runH();
  }
}
