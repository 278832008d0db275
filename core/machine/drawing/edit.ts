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

/** The corners of everything that is one piece: smallest and largest. */
function spanOf(parts: readonly LoopComponent[]): readonly [min: Point, max: Point] {
  const points = parts.flatMap((part) => [...Object.values(part.ports), ...(part.box ? [part.box.min, part.box.max] : [])]);
  const edge = (axis: 0 | 1 | 2, pick: (...all: number[]) => number): number => pick(...points.map((point) => point[axis]));
  return [
    [edge(0, Math.min), edge(1, Math.min), edge(2, Math.min)],
    [edge(0, Math.max), edge(1, Math.max), edge(2, Math.max)],
  ];
}

/**
 * Turns a part round along one axis, with what is one piece with it: its ports lie on the other side, its place stays. Bends of the tubes
 * stay where they are.
 */
export function turnRound(loop: LoopFile, id: string, axis: 0 | 1 | 2): LoopFile {
  const turned = new Set(ofOnePiece(loop, id));
  const parts = loop.components.filter((part) => turned.has(part.id));
  if (parts.length === 0) return loop;
  const [min, max] = spanOf(parts);
  const over = ([x, y, z]: Point): Point => {
    const at: [number, number, number] = [x, y, z];
    at[axis] = min[axis] + max[axis] - at[axis];
    return at;
  };
  return {
    ...loop,
    components: loop.components.map((part) => {
      if (!turned.has(part.id)) return part;
      const ports = Object.fromEntries(Object.entries(part.ports).map(([port, at]) => [port, over(at)]));
      if (!part.box) return { ...part, ports };
      const [a, b] = [over(part.box.min), over(part.box.max)];
      const corner = (pick: (one: number, other: number) => number): Point => [pick(a[0], b[0]), pick(a[1], b[1]), pick(a[2], b[2])];
      return { ...part, ports, box: { ...part.box, min: corner(Math.min), max: corner(Math.max) } };
    }),
    tubes: loop.tubes.map((tube) => (!tube.inside && [...turned].some((each) => touches(tube, each)) ? drawnAnew(tube) : tube)),
  };
}

/** Parts of which nothing lies inside the case any more, such as after it was made smaller: off the sheet no hand gets at them. */
export const outsideCase = (loop: LoopFile): LoopComponent[] => {
  const { depthMm, heightMm } = caseOf(loop);
  return loop.components.filter((part) => {
    const [min, max] = spanOf([part]);
    return max[0] < 0 || min[0] > depthMm || max[1] < 0 || min[1] > heightMm;
  });
};

/** Such a part, and what is one piece with it, moved to the nearest place inside. */
export function broughtIn(loop: LoopFile, id: string): LoopFile {
  const { depthMm, heightMm } = caseOf(loop);
  const own = new Set(ofOnePiece(loop, id));
  const [min, max] = spanOf(loop.components.filter((part) => own.has(part.id)));
  const into = (low: number, high: number, most: number): number => (low < 0 ? -low : high > most ? Math.max(most - high, -low) : 0);
  return movePart(loop, id, [into(min[0], max[0], depthMm), into(min[1], max[1], heightMm), 0]);
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
