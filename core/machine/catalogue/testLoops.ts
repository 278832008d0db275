import { buildLoop } from './starters.js';
import type { LoopComponent, LoopFile, LoopTube, Point } from '../loop-file/loopFile.js';

/** A usual series loop for tests: reservoir, pump, drain, two blocks, two radiators. */
export const usualLoop = (): LoopFile =>
  buildLoop('Test loop', [
    ['reservoir-260', 'tray', 'reservoir'],
    ['pump-large', 'tray', 'pump'],
    ['tee-drain', 'floor', 'drain'],
    ['block-graphics', 'card', 'graphics'],
    ['block-processor', 'board', 'processor'],
    ['radiator-360-30', 'roof', 'roof'],
    ['radiator-360-30', 'front', 'front'],
  ]);

export const part = (
  id: string,
  kind: string,
  volume_ml: number,
  at: Point = [0, 0, 0],
  more: Partial<LoopComponent> = {},
): LoopComponent => ({
  id,
  kind,
  volume_ml,
  ports: { in: at, out: [at[0] + 10, at[1], at[2]] },
  flow: ['in', 'out'],
  ...more,
});

export const tube = (id: string, from: string, to: string, more: Partial<LoopTube> = {}): LoopTube => ({
  id,
  from: [from, 'out'],
  to: [to, 'in'],
  bore_mm: 10,
  outer_mm: 16,
  material: 'epdm',
  path: [],
  fittings: [],
  ...more,
});

export const loopOf = (components: LoopComponent[], tubes: LoopTube[] = []): LoopFile => ({
  format: 'lavacrum-loop',
  version: 1,
  name: 'Test',
  components,
  tubes,
});
