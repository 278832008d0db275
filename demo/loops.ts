import { buildLoop, type PartPick } from '../core/machine/catalogue/starters.js';
import { TUBE_KINDS, type TubeKind } from '../core/machine/catalogue/parts.js';
import type { LoopFile } from '../core/machine/loop-file/loopFile.js';
import type { Random } from '../core/base/random/random.js';

const SOFT = TUBE_KINDS.filter(({ rigid }) => !rigid);
const RIGID = TUBE_KINDS.filter(({ rigid }) => rigid);

/** A plausible loop: reservoir, pump, a drain, blocks, one to three radiators. */
export function demoLoop(random: Random, name: string): LoopFile {
  const radiators: PartPick[] = random.pick([
    [
      ['radiator-360-30', 'roof', 'roof-radiator'],
      ['radiator-360-30', 'front', 'front-radiator'],
    ],
    [['radiator-360-45', 'front', 'front-radiator']],
    [
      ['radiator-240-30', 'roof', 'roof-radiator'],
      ['radiator-120-30', 'rear', 'rear-radiator'],
    ],
    [['radiator-480-60', 'roof', 'roof-radiator']],
    [
      ['radiator-360-45', 'roof', 'roof-radiator'],
      ['radiator-360-30', 'floor', 'floor-radiator'],
    ],
  ] satisfies PartPick[][]);
  const graphics: PartPick[] = random.next() < 0.75 ? [['block-graphics', 'card', 'graphics']] : [];
  const meter: PartPick[] = random.next() < 0.3 ? [['flow-meter', 'tray', 'meter']] : [];
  const reservoir = random.pick(['reservoir-200', 'reservoir-260', 'reservoir-400']);
  const picks: PartPick[] = [
    [reservoir, 'tray', 'reservoir'],
    [random.pick(['pump-large', 'pump-compact']), 'tray', 'pump'],
    ['tee-drain', 'floor', 'drain'],
    ...graphics,
    ...meter,
    ['block-processor', 'board', 'processor'],
    ...radiators,
  ];
  const kind = random.pick(random.next() < 0.65 ? SOFT : RIGID) as TubeKind;
  return buildLoop(name, picks, kind);
}

/** The loop of the year's own stories: two blocks, two radiators, soft tube, a drain at the floor. */
export const usualDemoLoop = (): LoopFile =>
  buildLoop(
    'Main loop',
    [
      ['reservoir-260', 'tray', 'reservoir'],
      ['pump-large', 'tray', 'pump'],
      ['tee-drain', 'floor', 'drain'],
      ['block-graphics', 'card', 'graphics'],
      ['block-processor', 'board', 'processor'],
      ['radiator-360-30', 'roof', 'roof-radiator'],
      ['radiator-360-30', 'front', 'front-radiator'],
    ],
    SOFT[0] as TubeKind,
  );
