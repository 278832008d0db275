import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

/** Pages and the composition root may know many rooms, and no room knows them. */
const ABOVE = /^(web\/(pages|app)|server\/app)\//;
const files = ['core', 'server', 'web'].flatMap((floor) =>
  readdirSync(floor, { recursive: true, encoding: 'utf8' })
    .map((name) => `${floor}/${name.split(path.sep).join('/')}`)
    .filter((name) => /\.(ts|vue)$/.test(name) && !/\.(test|spec)\.ts$/.test(name)),
);
const known = new Set(files);
/** `core/bench/runs` of a file in it */
const roomOf = (file: string): string => file.split('/').slice(0, -1).slice(0, 3).join('/');

/** What a file names after `from`, led to a file of the same floor. Types count: who needs a room's words needs the room. */
function needs(file: string): string[] {
  return [...readFileSync(file, 'utf8').matchAll(/from\s+['"]([^'"]+)['"]/g)].flatMap(([, spec = '']) => {
    const at = spec.startsWith('@core/') ? spec.slice(1) : spec.startsWith('.') ? path.posix.join(path.posix.dirname(file), spec) : null;
    const found = at === null ? undefined : [at, at.replace(/\.js$/, '.ts')].find((each) => known.has(each));
    return found?.split('/')[0] === file.split('/')[0] ? [found as string] : [];
  });
}

/** Rooms that come back to themselves, by what they need. */
function inCircles(graph: ReadonlyMap<string, ReadonlySet<string>>): string[] {
  const reach = (from: string): Set<string> => {
    const seen = new Set<string>();
    const next = [...(graph.get(from) ?? [])];
    for (let room = next.pop(); room !== undefined; room = next.pop()) {
      if (seen.has(room)) continue;
      seen.add(room);
      next.push(...(graph.get(room) ?? []));
    }
    return seen;
  };
  return [...graph.keys()].filter((room) => reach(room).has(room)).sort();
}

describe('the rooms', () => {
  it('lie in no circle: whoever reads one need not read its neighbours to understand it', () => {
    const graph = new Map<string, Set<string>>();
    for (const file of files.filter((each) => !ABOVE.test(each)))
      for (const other of needs(file)) {
        if (roomOf(other) === roomOf(file)) continue;
        graph.set(roomOf(file), (graph.get(roomOf(file)) ?? new Set()).add(roomOf(other)));
      }
    expect(graph.size).toBeGreaterThan(100);
    expect(inCircles(graph)).toEqual([]);
  });

  it('would be found in one', () => {
    const graph = new Map([['a', new Set(['b'])], ['b', new Set(['c'])], ['c', new Set(['b', 'd'])], ['d', new Set<string>()]]); // prettier-ignore
    expect(inCircles(graph)).toEqual(['b', 'c']);
  });
});
