import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readInput } from '../../base/checking/input.js';
import { usualLoop } from '../catalogue/testLoops.js';
import { faceCovered, usualFans } from './fans.js';
import { sheetSchema } from './schema.js';
import { BOARD, CONNECTOR_KIND_KEYS, isolated, rootOf, sheetAfter, SUPPLY, type Connector, type ElectricalSheet } from './sheet.js';
import { usualSheet } from './usual.js';

const LOOP = '11111111-1111-4111-8111-111111111111';
const OTHER = '22222222-2222-4222-8222-222222222222';
const lead = (id: string, kind: Connector['kind'], more: Partial<Connector> = {}): Connector => ({
  id,
  kind,
  name: `lead ${id}`,
  from: SUPPLY,
  openWhy: null,
  cable: 'own',
  of: null,
  fans: null,
  ...more,
});
const pump = (id: string, from: string, loopId = LOOP): Connector => lead(id, 'pump', { from, of: { loopId, part: 'pump' } });
const sheetOf = (...connectors: Connector[]): ElectricalSheet => ({ supply: 'Tern 750', connectors });
const told = (sheet: ElectricalSheet): string[] =>
  isolated(sheet, LOOP).map(({ as, connector, off }) => [as, connector.id, off].filter(Boolean).join(' '));

describe('what comes off the supply', () => {
  it('is every lead but this loop’s pump and the fans', () => {
    const sheet = sheetOf(lead('main', 'board-main'), lead('card', 'card-power'), lead('fans', 'fans'), pump('p', SUPPLY));
    expect(told(sheet)).toEqual(['pulled main', 'pulled card']);
  });

  it('moves a pump that hangs on the board, since the board is dead', () => {
    expect(told(sheetOf(lead('main', 'board-main'), pump('p', BOARD)))).toEqual(['pulled main', 'moved p']);
  });

  it('keeps a hub that feeds the pump, and pulls what else hangs on it', () => {
    const sheet = sheetOf(lead('main', 'board-main'), lead('hub', 'hub'), pump('p', 'hub'), lead('glow', 'lights', { from: 'hub' }));
    expect(told(sheet)).toEqual(['pulled main', 'pulled glow lead hub']);
  });

  it('pulls a hub whole where this pump hangs elsewhere', () => {
    const sheet = sheetOf(lead('hub', 'hub'), lead('glow', 'lights', { from: 'hub' }), pump('p', SUPPLY));
    expect(told(sheet)).toEqual(['pulled hub']);
  });

  it('says nothing of another loop’s pump: whether that is filled is known elsewhere', () => {
    expect(told(sheetOf(pump('p', SUPPLY), pump('q', SUPPLY, OTHER)))).toEqual([]);
  });

  it('asks after what was never connected, and pulls it not', () => {
    expect(told(sheetOf(lead('reader', 'sensor', { openWhy: 'lead too short' })))).toEqual(['left reader']);
  });

  it('never leaves the board or a card on power, whatever hangs on what', () => {
    const ids = ['a', 'b', 'c', 'd', 'e'];
    const any = fc.record({
      kinds: fc.array(fc.constantFrom(...CONNECTOR_KIND_KEYS), { minLength: 5, maxLength: 5 }),
      // a source is a hub before it, so that nothing feeds itself
      from: fc.array(fc.nat(6), { minLength: 5, maxLength: 5 }),
    });
    fc.assert(
      fc.property(any, ({ kinds, from }) => {
        const connectors = ids.map((id, index) => {
          const pick = (from[index] as number) % (index + 2);
          const source = pick === 0 ? SUPPLY : pick === 1 ? BOARD : (ids[pick - 2] as string);
          const isHub = source === SUPPLY || source === BOARD || kinds[ids.indexOf(source)] === 'hub';
          return lead(id, kinds[index] as Connector['kind'], {
            from: isHub ? source : SUPPLY,
            of: kinds[index] === 'pump' ? { loopId: LOOP, part: 'pump' } : null,
          });
        });
        const sheet = sheetOf(...connectors);
        const off = new Set(
          isolated(sheet, LOOP)
            .filter(({ as }) => as === 'pulled')
            .map(({ connector }) => connector.id),
        );
        const isDead = (each: Connector): boolean =>
          off.has(each.id) || each.from === BOARD || connectors.some((hub) => hub.id === each.from && isDead(hub));
        for (const each of connectors) {
          if (['pump', 'fans', 'hub'].includes(each.kind)) continue;
          expect(isDead(each)).toBe(true);
        }
        // and the pump has power: it is neither pulled nor behind something that is
        for (const each of connectors.filter(({ kind }) => kind === 'pump'))
          expect(rootOf(sheet, each) === BOARD || !isDead(each)).toBe(true);
      }),
    );
  });
});

describe('a sheet after a run', () => {
  const sheet = sheetOf(lead('card', 'card-power'), lead('reader', 'sensor', { openWhy: 'lead too short' }), lead('p7', 'lights'));

  it('knows what stays off and why, what is on at last, and what it had not known', () => {
    const after = sheetAfter(sheet, {
      open: [{ id: 'card', why: 'owner has the card' }],
      connected: ['reader'],
      more: [
        { name: 'Light strip, rear', openWhy: null },
        { name: 'LEAD CARD', openWhy: null },
      ],
    });
    expect(after.connectors.map(({ id, openWhy }) => [id, openWhy])).toEqual([
      ['card', 'owner has the card'],
      ['reader', null],
      ['p7', null],
      ['p8', null],
    ]);
    expect(after.connectors.at(-1)).toMatchObject({ name: 'Light strip, rear', from: SUPPLY, cable: 'unknown' });
  });
});

describe('a sheet as it is sent', () => {
  const refusedFor = (...connectors: Connector[]): string => {
    try {
      readInput(sheetSchema, { version: 0, sheet: sheetOf(...connectors) });
      return '';
    } catch (error) {
      return (error as Error).message;
    }
  };
  it.each<[string, Connector[], RegExp]>([
    ['one name twice', [lead('a', 'other', { name: 'Glow' }), lead('b', 'other', { name: 'glow' })], /stands there twice/],
    ['a hub that is not there', [lead('a', 'other', { from: 'b' })], /hub that is not there/],
    ['a hub that feeds itself', [lead('a', 'hub', { from: 'b' }), lead('b', 'hub', { from: 'a' })], /feeds itself/],
    ['a pump of no loop', [lead('a', 'pump')], /drives no pump/],
    ['two main connectors', [lead('a', 'board-main'), lead('b', 'board-main')], /one main/],
    ['a board fed by itself', [lead('a', 'board-processor', { from: BOARD })], /comes from the supply/],
  ])('is refused with %s', (_what, connectors, words) => {
    expect(refusedFor(...connectors)).toMatch(words);
  });

  it('is taken as it begins', () => {
    const sheet = usualSheet([{ id: LOOP, file: usualLoop() }]);
    expect(refusedFor(...sheet.connectors)).toBe('');
    expect(sheet.connectors.filter(({ kind }) => kind === 'fans').map(({ of }) => of?.part)).toEqual(
      usualLoop()
        .components.filter(({ kind }) => kind === 'radiator')
        .map(({ id }) => id),
    );
  });
});

describe('fans on a radiator', () => {
  const box = (x: number, y: number, z: number) => ({ box: { min: [0, 0, 0] as const, max: [x, y, z] as const } });
  it('are those that its face is made for', () => {
    expect(usualFans(box(397, 120, 30))).toEqual({ count: 3, sizeMm: 120 });
    expect(usualFans(box(30, 140, 317))).toEqual({ count: 2, sizeMm: 140 });
    expect(usualFans(box(157, 30, 120))).toEqual({ count: 1, sizeMm: 120 });
  });
  it('cover what they stand in front of, and no more than the whole', () => {
    expect(faceCovered(box(397, 120, 30), [{ count: 2, sizeMm: 120 }])).toBeCloseTo(2 / 3, 9);
    expect(faceCovered(box(397, 120, 30), [{ count: 3, sizeMm: 140 }])).toBe(1);
    expect(faceCovered(box(397, 120, 30), [])).toBe(0);
  });
});
