import type { Liquid } from '../../machine/liquids/fluids.js';
import { liquidAt } from '../../machine/liquids/fluids.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { reservoirMarks } from '../../machine/loop-file/marks.js';
import { fullContents, type Contents } from '../contents/contents.js';
import { pumpsWithoutCurve } from '../flow/network.js';
import { vesselsWithoutBox, type GeometricNetwork } from '../geometry/network.js';
import { BENCH_C } from '../measuring/errors.js';
import { LiquidTwin, wettedOf } from './liquidTwin.js';

/** A loop's twin; null where heights, curves, a pump or the one reservoir are missing. */
export function twinFor(loop: LoopFile, liquid: Liquid): LiquidTwin | null {
  const [reservoir, second] = loop.components.filter(({ kind }) => kind === 'reservoir');
  const can =
    reservoir !== undefined &&
    second === undefined &&
    vesselsWithoutBox(loop).length === 0 &&
    pumpsWithoutCurve(loop).length === 0 &&
    loop.components.some(({ kind }) => kind === 'pump');
  return can ? new LiquidTwin(loop, liquidAt(liquid, BENCH_C), reservoir) : null;
}

/**
 * What a filled loop holds, node by node: every reservoir at its mark, and where a twin can tell, gas where it likely stays.
 * @param twin the loop's own, or null where it has none
 */
export function contentsAtMark(loop: LoopFile, network: GeometricNetwork, twin: LiquidTwin | null): Contents {
  if (twin) return twin.contents(twin.atMark());
  const contents = fullContents(network);
  network.vessels.forEach(({ node, part }) => {
    const component = loop.components[part];
    if (component?.kind === 'reservoir') contents[node] = reservoirMarks(component).fillMarkMl;
  });
  return contents;
}

/**
 * What a loop holds, node by node: where the book has it stand, or at its mark.
 * @param standing of the loop's contents; null: nobody knows, so as filled
 */
export function contentsNow(loop: LoopFile, liquid: Liquid, network: GeometricNetwork, standing: Parameters<typeof wettedOf>[1]): Contents {
  const twin = twinFor(loop, liquid);
  const now = twin && wettedOf(twin, standing);
  return twin && now ? twin.contents(now) : contentsAtMark(loop, network, twin);
}
