import { say } from '../../base/words/say.js';
import { freshId, idsOf } from '../loop-file/chain.js';
import type { LoopComponent, LoopFile, LoopTube, Point, PortRef } from '../loop-file/loopFile.js';
import { makeComponent, type CataloguePart, type TubeKind } from '../catalogue/parts.js';
import { caseOf, mountOf } from './cases.js';
import { changePart } from '../catalogue/edit.js';
import type { Place } from '../catalogue/places.js';
import { channel, makeUnit, ofOnePiece, type CatalogueUnit } from '../catalogue/units.js';

/** Edits of a loop drawn true to size. Every function gives a new loop; the one given stays as it is. */

export const DRAWING = {
  /** mm; positions snap to this, finer than anybody mounts a radiator */
  snapMm: 5,
  /** mm a key press moves a part; with Shift it moves by `coarseMm` */
  nudgeMm: 1,
  coarseMm: 20,
} as const;

export const snap = (mm: number, step: number = DRAWING.snapMm): number => Math.round(mm / step) * step;

const shifted = (at: Point, by: Point): Point => [at[0] + by[0], at[1] + by[1], at[2] + by[2]];

/**
 * A tube that is drawn takes its length from the drawing: what was entered or estimated before no longer describes it.
 */
function drawnAnew(tube: LoopTube, path?: readonly Point[]): LoopTube {
  const { length_mm: _entered, ...rest } = tube;
  return path ? { ...rest, path } : (rest as LoopTube);
}

const touches = ({ from, to }: LoopTube, id: string): boolean => from[0] === id || to[0] === id;

/** Moves a part, and what is one piece with it, with ports and box. Bends of the tubes stay where they are. */
export function movePart(loop: LoopFile, id: string, by: Point): LoopFile {
  if (by.every((mm) => mm === 0)) return loop;
  const moved = new Set(ofOnePiece(loop, id));
  return {
    ...loop,
    components: loop.components.map((component) => {
      if (!moved.has(component.id)) return component;
      return {
        ...component,
        ports: Object.fromEntries(Object.entries(component.ports).map(([port, at]) => [port, shifted(at, by)])),
        ...(component.box ? { box: { ...component.box, min: shifted(component.box.min, by), max: shifted(component.box.max, by) } } : {}),
      };
    }),
    tubes: loop.tubes.map((tube) => (!tube.inside && [...moved].some((each) => touches(tube, each)) ? drawnAnew(tube) : tube)),
  };
}

/** Sets one port's position. */
export function movePort(loop: LoopFile, id: string, port: string, to: Point): LoopFile {
  const component = loop.components.find((each) => each.id === id);
  if (!component) return loop;
  const moved = changePart(loop, id, { ports: { ...component.ports, [port]: to } });
  return { ...moved, tubes: moved.tubes.map((tube) => (touches(tube, id) ? drawnAnew(tube) : tube)) };
}

export function changeTube(loop: LoopFile, id: string, change: Partial<LoopTube>): LoopFile {
  return { ...loop, tubes: loop.tubes.map((tube) => (tube.id === id ? { ...tube, ...change } : tube)) };
}

/** Lays a tube over new bends. */
export function bendTube(loop: LoopFile, id: string, path: readonly Point[]): LoopFile {
  return { ...loop, tubes: loop.tubes.map((tube) => (tube.id === id ? drawnAnew(tube, path) : tube)) };
}

/** Why no tube can be drawn between two ports, in words, or null. */
export function refuseTube(loop: LoopFile, from: PortRef, to: PortRef): string | null {
  if (from[0] === to[0]) return say('A tube joins two parts; this one would end where it begins.');
  const taken = ([id, port]: PortRef): boolean =>
    loop.tubes.some(({ from: a, to: b }) => [a, b].some((end) => end[0] === id && end[1] === port));
  if (taken(from) || taken(to)) return say('That port already carries a tube: one bore takes one fitting.');
  return null;
}

/** A straight tube from port to port. Before: `refuseTube` has nothing against it. */
export function addTube(loop: LoopFile, from: PortRef, to: PortRef, kind: TubeKind): LoopFile {
  const taken = idsOf(loop);
  const tube: LoopTube = {
    id: freshId(taken, `${from[0]}--${to[0]}`),
    from,
    to,
    bore_mm: kind.boreMm,
    outer_mm: kind.outerMm,
    material: kind.material,
    path: [],
    fittings: ['compression', 'compression'],
  };
  return { ...loop, tubes: [...loop.tubes, tube] };
}

/** A part that was laid in its usual place, where the drawing's own case mounts it, if it says so. */
function mounted(loop: LoopFile, part: LoopComponent, place: Place): { loop: LoopFile; id: string } {
  const mount = caseOf(loop).mounts[place];
  if (!mount) return { loop, id: part.id };
  const usual = mountOf(part);
  return { loop: movePart(loop, part.id, [mount[0] - usual[0], mount[1] - usual[1], mount[2] - usual[2]]), id: part.id };
}

/** A catalogue part where its case mounts it, or else in its usual place; tubes are drawn to it afterwards. */
export function placePart(loop: LoopFile, part: CataloguePart, place: Place): { loop: LoopFile; id: string } {
  const component = makeComponent(part, place, freshId(idsOf(loop), `${part.kind}-${place}`));
  return mounted({ ...loop, components: [...loop.components, component] }, component, place);
}

/** A unit of pump and reservoir where its case mounts the reservoir, or else in its usual place; its channel is there already. */
export function placeUnit(loop: LoopFile, unit: CatalogueUnit, place: Place): { loop: LoopFile; id: string } {
  const taken = idsOf(loop);
  const [reservoir, pump] = makeUnit(unit, place, taken) as [LoopComponent, LoopComponent];
  const inside = channel(freshId(taken, `${reservoir.id}--${pump.id}`), [reservoir.id, 'out'], [pump.id, 'in']);
  return mounted({ ...loop, components: [...loop.components, reservoir, pump], tubes: [...loop.tubes, inside] }, reservoir, place);
}

/** Removes a part, what is one piece with it and the tubes that end there, or a tube. */
export function removeFromDrawing(loop: LoopFile, id: string): LoopFile {
  const out = new Set(ofOnePiece(loop, id));
  return {
    ...loop,
    components: loop.components.filter((component) => !out.has(component.id)),
    tubes: loop.tubes.filter((tube) => tube.id !== id && ![...out].some((each) => touches(tube, each))),
  };
}
