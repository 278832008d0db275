import { buildLoop, type PartPick } from '../core/machine/catalogue/starters.js';
import { TUBE_KINDS, type TubeKind } from '../core/machine/catalogue/parts.js';
import type { FitSheet, LoopFile } from '../core/machine/loop-file/loopFile.js';
import type { Random } from '../core/base/random/random.js';

const SOFT = TUBE_KINDS.filter(({ rigid }) => !rigid);
/** by key: a kind that the catalogue gains later moves no machine of the demo year */
const RIGID = TUBE_KINDS.filter(({ key }) => ['petg-10-14', 'acrylic-12-16', 'metal-12-14'].includes(key));

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
export const usualDemoLoop = (): LoopFile => measured(plainDemoLoop());

const plainDemoLoop = (): LoopFile =>
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

/** Its case was measured, its blocks were held against what they sit on. */
function measured(loop: LoopFile): LoopFile {
  const side = { length_mm: 410, width_mm: 142 };
  const room = {
    radiators: {
      roof: { ...side, depth_mm: 60 },
      front: { ...side, depth_mm: 75 },
      floor: { length_mm: 300, width_mm: 142, depth_mm: 58 },
    },
    card: { slots: 4, length_mm: 340, height_mm: 150 },
    power_leads: 3,
  };
  const fits: Readonly<Record<string, FitSheet>> = {
    processor: { listed: [{ model: 'socket K4' }, { model: 'socket K5' }], sits_on: { model: 'socket K5' } },
    graphics: {
      listed: [{ model: 'Heron 40', revision: 'A' }, { model: 'Heron 40', revision: 'B' }], // prettier-ignore
      sits_on: { model: 'Heron 40', revision: 'B' },
      slots: 2,
      length_mm: 275,
      height_mm: 132,
      power_leads: 2,
    },
  };
  return {
    ...loop,
    case: { name: 'Hollow oak', depth_mm: 460, height_mm: 510, width_mm: 215, room },
    components: loop.components.map((part) => (Object.hasOwn(fits, part.id) ? { ...part, fit: fits[part.id] } : part)),
  };
}
