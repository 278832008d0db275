import { say } from '../../base/words/say.js';
import { makeComponent, suggestLengthMm, type CataloguePart } from '../../machine/catalogue/parts.js';
import type { Place } from '../../machine/catalogue/places.js';
import { flowOrder, freshId } from '../../machine/loop-file/chain.js';
import type { LoopComponent, LoopFile, LoopTube, Point, PortRef } from '../../machine/loop-file/loopFile.js';

type Block = LoopComponent & { readonly flow: readonly [string, string] };

/** The first two blocks of the way, or fewer. */
const firstBlocks = (loop: LoopFile): Block[] =>
  flowOrder(loop)
    .links.map(({ component }) => component)
    .filter((part): part is Block => part.kind === 'block' && part.flow !== undefined)
    .slice(0, 2);

/**
 * The same loop with the first two blocks of its way changed round: what comes first gets the cooler liquid. Tubes stay
 * where they are. A loop with fewer than two blocks comes back as it is.
 */
export function swapBlocks(loop: LoopFile): LoopFile {
  const [first, second] = firstBlocks(loop);
  if (!first || !second) return loop;
  const other = new Map([
    [`${first.id} ${first.flow[0]}`, [second.id, second.flow[0]] as PortRef],
    [`${first.id} ${first.flow[1]}`, [second.id, second.flow[1]] as PortRef],
    [`${second.id} ${second.flow[0]}`, [first.id, first.flow[0]] as PortRef],
    [`${second.id} ${second.flow[1]}`, [first.id, first.flow[1]] as PortRef],
  ]);
  const turn = (port: PortRef): PortRef => other.get(port.join(' ')) ?? port;
  return { ...loop, tubes: loop.tubes.map((tube) => ({ ...tube, from: turn(tube.from), to: turn(tube.to) })) };
}

/** mm; the short tubes with which a pair of blocks is bridged */
const BRIDGE_MM = 60;

/**
 * The same loop with the first two blocks of its way side by side: what fed the first feeds both, and both go on where
 * the second went. Both branches take the kind of tube that joined them. A loop whose first two blocks do not follow each
 * other directly comes back as it is.
 */
export function parallelBlocks(loop: LoopFile): LoopFile {
  const [first, second] = firstBlocks(loop);
  if (!first || !second) return loop;
  const at = ([id, port]: PortRef, part: Block, which: 0 | 1): boolean => id === part.id && port === part.flow[which];
  const touching = (part: Block, which: 0 | 1): LoopTube | undefined =>
    loop.tubes.find(({ from, to }) => at(from, part, which) || at(to, part, which));
  const [feed, between, away] = [touching(first, 0), touching(first, 1), touching(second, 1)];
  if (!feed || !between || !away || touching(second, 0) !== between || feed === away) return loop;
  const taken = new Set([...loop.components, ...loop.tubes].map(({ id }) => id));
  const named = (wanted: string): string => {
    const id = freshId(taken, wanted);
    taken.add(id);
    return id;
  };
  const junction = (label: string, where: Point): LoopComponent => ({
    id: named(label),
    kind: 'junction',
    label,
    volume_ml: 0,
    ports: { main: where, one: where, other: where },
  });
  const fork = junction('fork', first.ports[first.flow[0]] as Point);
  const merge = junction('merge', second.ports[second.flow[1]] as Point);
  const bridge = (from: PortRef, to: PortRef): LoopTube => {
    const { path: _way, length_mm: _long, ...kind } = between;
    return { ...kind, id: named(`${from[0]}--${to[0]}`), from, to, length_mm: BRIDGE_MM };
  };
  const onto = (tube: LoopTube, part: Block, which: 0 | 1, id: string): LoopTube => ({
    ...tube,
    from: at(tube.from, part, which) ? [id, 'main'] : tube.from,
    to: at(tube.to, part, which) ? [id, 'main'] : tube.to,
  });
  const others = loop.tubes.filter((tube) => tube !== between).map((tube) => (tube === feed ? onto(tube, first, 0, fork.id) : tube === away ? onto(tube, second, 1, merge.id) : tube)); // prettier-ignore
  return {
    ...loop,
    components: [...loop.components, fork, merge],
    tubes: [
      ...others,
      bridge([fork.id, 'one'], [first.id, first.flow[0]]),
      bridge([fork.id, 'other'], [second.id, second.flow[0]]),
      bridge([first.id, first.flow[1]], [merge.id, 'one']),
      bridge([second.id, second.flow[1]], [merge.id, 'other']),
    ],
  };
}

/** The radiator that is last on the way: one more stands behind it. */
export const lastRadiator = (loop: LoopFile): LoopComponent | undefined =>
  flowOrder(loop)
    .links.map(({ component }) => component)
    .findLast(({ kind, flow }) => kind === 'radiator' && flow !== undefined);

/**
 * The same loop with one more radiator in the tube that leaves another, of the same kind of tube. Nothing of it is drawn: it says what a
 * radiator would give before anybody orders it. A loop without such a tube comes back as it is.
 * @param kind a radiator of the catalogue
 */
export function withRadiator(loop: LoopFile, kind: CataloguePart, place: Place): LoopFile {
  const behind = lastRadiator(loop);
  const out = behind?.flow && loop.tubes.find(({ from }) => from[0] === behind.id && from[1] === behind.flow?.[1]);
  if (!out) return loop;
  const taken = new Set([...loop.components, ...loop.tubes].map(({ id }) => id));
  const radiator = makeComponent(kind, place, freshId(taken, `${kind.kind}-more`));
  if (!radiator.flow) return loop;
  const components = [...loop.components, { ...radiator, label: say('one more radiator') }];
  const { path: _way, length_mm: _long, ...like } = out;
  const tube = (from: PortRef, to: PortRef): LoopTube => ({
    ...like,
    id: freshId(taken, `${from[0]}--${to[0]}`),
    from,
    to,
    length_mm: suggestLengthMm(components, from, to),
  });
  const [inlet, outlet] = radiator.flow;
  return {
    ...loop,
    components,
    tubes: [...loop.tubes.filter((each) => each !== out), tube(out.from, [radiator.id, inlet]), tube([radiator.id, outlet], out.to)],
  };
}
