import { partOfPlace } from '../../machine/seals/places.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { planTakeOut, planUndo, type TakeOutPlan } from '../../physics/draining/takeOut.js';
import { turnNetwork } from '../../physics/geometry/turned.js';
import { standingNow } from './book.js';
import { fillBalance } from './contents.js';
import type { Procedure } from './procedure.js';
import { putBackMl, type RunState } from './state.js';

/** Drawn down in the middle of a run, so that a joint or a part can be undone: what came is kept clean and put back. */

const plans = new WeakMap<object, Map<string, DrawDown>>();

/** How the level is brought below a place by what is inside now. mL */
export interface DrawDown extends TakeOutPlan {
  /**
   * out of the reservoir by hose before any inlet is opened: what comes down then finds room, and nothing runs over the rim of
   * an open reservoir; 0 where it is drawn at a valve
   */
  readonly byHoseFirstMl: number;
}

/**
 * null where heights or contents are not known, or the machine lies turned.
 * @param where a part, what lies inside one, or a tube by its id: then both of its joints
 */
export function drawDownTo(procedure: Procedure, state: RunState, where: string, nowMs: number): DrawDown | null {
  const place = partOfPlace(where);
  const now = state.stand.to === 'upright' && state.pump?.on !== true ? standingNow(procedure, state, nowMs) : null;
  if (!now) return null;
  const { twin, at } = now;
  const loop = twin.loop;
  const tube = loop.tubes.find(({ id }) => id === place);
  const part = loop.components.find(({ id }) => id === place);
  if (!tube && !part) return null;
  // asked by every look at the clock: the same contents give the same plan
  const key = state.contents.standing ?? state.contents;
  const known = plans.get(key) ?? new Map<string, DrawDown>();
  plans.set(key, known);
  const had = known.get(place);
  if (had) return had;
  const upright = turnNetwork(twin.drive.network, STANDING.upright);
  const inside = twin.contents(at);
  const plan = tube
    ? planUndo(upright, loop, { joints: [`${tube.id}.from`, `${tube.id}.to`], parts: [] }, inside)
    : planTakeOut(upright, loop, place, inside);
  const made = { ...plan, byHoseFirstMl: plan.drawAt === null ? Math.min(plan.drawFirstMl, at.reservoirMl) : 0 };
  known.set(place, made);
  return made;
}

/** mL that were drawn off in this run, kept clean, and not put back yet. */
export const drawnJugMl = (state: Pick<RunState, 'outflows' | 'pours'>): number =>
  Math.max(0, state.outflows.reduce((sum, { kept, volumeMl }) => (kept ? sum + volumeMl : sum), 0) - putBackMl(state));

/** The loop was drawn down since it was full: it is filled again, and runs only until liquid comes back, before a clock starts. */
export function isDrawnDown(procedure: Procedure, state: RunState): boolean {
  if (!state.outflows.some(({ kept }) => kept)) return false;
  const { standing } = state.contents;
  return standing ? !standing.isRound : fillBalance(procedure, state).verdict === 'filling';
}
