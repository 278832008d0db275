import { STANDING } from '../../machine/loop-file/orientation.js';
import type { LoopComponent, LoopFile } from '../../machine/loop-file/loopFile.js';
import { drainTurned } from '../draining/drain.js';
import { turnNetwork } from '../geometry/turned.js';
import type { FrontDrive } from './frontMoves.js';

/** The tube's end at the reservoir's return port where that lies above a surface: gas enters there when the pump stops. null: it does not. `withinMm`: so far above still counts as under it */
export function returnAboveSurface(
  loop: LoopFile,
  reservoir: LoopComponent,
  drive: FrontDrive,
  reservoirMl: number,
  withinMm = 0,
): string | null {
  const port = reservoir.flow?.[0];
  const node = drive.network.ports.get(`${reservoir.id}.${port}`);
  if (port === undefined || node === undefined) return null;
  // upright, a height is the case's own y
  if ((drive.network.y[node] as number) <= drive.surfaceMm(reservoirMl) + withinMm) return null;
  const ends = loop.tubes.flatMap(({ id, from, to }) => [
    ...(from[0] === reservoir.id && from[1] === port ? [`${id}.from`] : []),
    ...(to[0] === reservoir.id && to[1] === port ? [`${id}.to`] : []),
  ]);
  return ends[0] ?? null;
}

/** mL that run back when the pump of a full loop stops and gas enters at a return port above the surface; 0 where it lies below. */
export function runsBackMl(loop: LoopFile, reservoir: LoopComponent, drive: FrontDrive): number {
  const end = returnAboveSurface(loop, reservoir, drive, drive.fillMarkMl);
  if (end === null) return 0;
  const { drainedMl, parts } = drainTurned(turnNetwork(drive.network, STANDING.upright), { open: [end], drains: [end], closed: [] });
  return Math.max(0, drainedMl - (parts.find(({ id }) => id === reservoir.id)?.drainedMl ?? 0));
}
