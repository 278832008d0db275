import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { buildNetwork } from '../geometry/network.js';
import { contentsOfShares, sharesOf } from './shares.js';

const network = buildNetwork(usualLoop());

describe('shares of parts and what stands at their nodes', () => {
  it('are one account: contents made of shares have those shares, and no node holds more than it can', () => {
    const shares = fc.record(Object.fromEntries(network.partIds.map((id) => [id, fc.double({ min: 0, max: 1, noNaN: true })])));
    fc.assert(
      fc.property(shares, (some) => {
        const contents = contentsOfShares(network, new Map(Object.entries(some)));
        contents.forEach((ml, node) => expect(ml).toBeLessThanOrEqual(network.volumeMl[node] as number));
        const back = sharesOf(network, contents);
        for (const [id, share] of Object.entries(some)) if (network.partIds.indexOf(id) >= 0) expect(back[id]).toBeCloseTo(share, 9);
      }),
      { numRuns: 50 },
    );
  });

  it('fill a tube from its first end on, as a front goes; what is not named is empty', () => {
    const id = usualLoop().tubes[2]?.id ?? '';
    const contents = contentsOfShares(network, new Map([[id, 0.5]]));
    const part = network.partIds.indexOf(id);
    const nodes = [...network.part.keys()].filter((node) => network.part[node] === part && (network.volumeMl[node] as number) > 0);
    const wet = nodes.map((node) => (contents[node] as number) > 0);
    expect(wet).toEqual([...wet].sort((a, b) => Number(b) - Number(a)));
    expect(contents.reduce((sum, ml) => sum + ml, 0)).toBeCloseTo(
      nodes.reduce((sum, node) => sum + (network.volumeMl[node] as number), 0) / 2,
      9,
    );
  });
});
