import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPart } from '../../core/machine/catalogue/edit.js';
import { buildLoop } from '../../core/machine/catalogue/starters.js';
import { usualLoop } from '../../core/machine/catalogue/testLoops.js';
import { findCataloguePart } from '../../core/machine/catalogue/parts.js';
import type { RunRecord } from '../../core/edge/records/record.js';
import { otherMake, Shop } from './shop.js';

let shop: Shop;
beforeAll(async () => {
  shop = await Shop.open('Stories');
});
afterAll(() => shop.close());

const PLAIN = usualLoop();

const recordOf = async (runId: string): Promise<RunRecord> =>
  (await shop.desk.get<{ record: RunRecord }>(`/runs/${runId}/record`)).body.record;

describe('a workstation with four cards', () => {
  const FOUR = buildLoop('Four cards', [
    ['reservoir-400', 'tray', 'reservoir'],
    ['pump-large', 'tray', 'pump'],
    ['tee-drain', 'floor', 'drain'],
    ['block-graphics', 'card', 'card-1'],
    ['block-graphics', 'card', 'card-2'],
    ['block-graphics', 'card', 'card-3'],
    ['block-graphics', 'card', 'card-4'],
    ['block-processor', 'board', 'processor'],
    ['radiator-480-60', 'roof', 'roof'],
    ['radiator-360-45', 'front', 'front'],
  ]);

  it('is stripped after its year, rinsed with distilled water, and goes together with one more block', async () => {
    const own = await shop.built('Kiln station', FOUR);
    const memory = findCataloguePart('block-memory');
    if (!memory) throw new Error('no memory block');
    const { file } = await shop.loop(own);
    const wanted = await shop.wants(own, addPart(file, memory, 'board', 'processor'), 'memory cooled as well');
    const job = await shop.job(
      own,
      'strip-clean',
      { wanted },
      {},
      {
        beforeC: 71,
        afterC: 61,
        findings: { roof: { deposit: 'layer' }, 'card-2': { deposit: 'film' } },
        instead: {
          inspect: (hands, step) => {
            hands.usual(step);
            hands.say({
              type: 'cause',
              step: step.id,
              item: 'roof',
              cause: 'debris',
              suspect: 'none',
              particlesStayed: false,
              text: 'of the making',
            });
          },
        },
      },
    );
    // four cards are stripped side by side: each thing is looked at once
    const cards = job.checksOf('strip').filter(({ id }) => id.startsWith('card:'));
    expect(new Set(cards.map(({ together }) => together)).size).toBe(cards.length / 4);
    // and nothing of it twice: apart in one step, together in another
    const again = job.checksOf('swap').filter(({ id }) => id.startsWith('card:'));
    expect(again.length).toBeGreaterThan(0);
    expect(again.some(({ id }) => cards.some((card) => card.id === id))).toBe(false);
    // of a loop that is apart nothing is undone once more
    expect(
      job
        .checksOf('change')
        .map(({ text }) => text)
        .join('\n'),
    ).not.toMatch(/over the jug|Tube out/);
    await job.upTo('change');
    expect(job.state.contents.insideMl).toBeLessThan(1);
    await job.upTo('rinse');
    const memoryId = (await shop.loop(own)).file.components.find(({ catalogue }) => catalogue === 'block-memory')?.id;
    expect(memoryId).toBeDefined();
    expect(job.checksOf('close').filter(({ id, place }) => id.startsWith('joint:') && place?.includes(memoryId ?? '?'))).toHaveLength(2);
    const signed = await job.sign();
    expect(signed.body.serviceDueOn).not.toBeNull();
    const record = await recordOf(job.answer.run.id);
    expect(record.loop.file.components).toHaveLength(FOUR.components.length + 1);
    expect(record.service?.comparison).toMatch(/K/);
  });
});

describe('a board and two blocks', () => {
  it('are changed with the loop lifted out in one piece: drained whole first, since it is laid down', async () => {
    const own = await shop.built('Slate desk', PLAIN);
    const { file } = await shop.loop(own);
    const wanted = await shop.wants(own, otherMake(otherMake(file, 'processor', 44), 'graphics', 66), 'new board, new card');
    const job = await shop.job(
      own,
      'loop-change',
      { wanted, beside: ['board', 'paste'] },
      { leak: 'dry-then-wet' },
      { beforeC: 64, afterC: 60 },
    );
    const steps = job.stepIds;
    expect(steps.slice(steps.indexOf('drain'), steps.indexOf('dry') + 1)).toEqual(['drain', 'lift', 'change', 'beside', 'close', 'dry']);
    expect(job.procedure.service?.change?.drain).toBe('whole');
    expect(job.checksOf('beside').map(({ id }) => id)).toEqual(expect.arrayContaining(['board', 'loop-back', 'own-headers']));
    await job.upTo('beside');
    job.say({ type: 'pasted', step: 'beside', items: ['processor', 'graphics'], medium: 'paste', product: 'Grey' });
    const signed = await job.sign('board and both blocks');
    expect(signed.body.serviceDueOn).not.toBeNull();
    const now = await shop.loop(own);
    expect(now.file.components.filter(({ catalogue }) => catalogue?.startsWith('other-'))).toHaveLength(2);
    // the old blocks have a place and a day by which somebody decides
    expect((await shop.page(own)).dues.some(({ kind }) => kind === 'paste-renewal')).toBe(true);
  });
});

describe('a neglected opaque coolant', () => {
  it('is flushed, measured before and after, and later gives way to a sealed cooler whose parts all have a place', async () => {
    const own = await shop.built('Faded pastel', PLAIN);
    shop.bench.wait(500 * 86_400);
    const flush = await shop.job(own, 'flush-refill', {}, {}, { beforeC: 79, afterC: 63 });
    await flush.sign();
    expect((await recordOf(flush.answer.run.id)).service?.comparison).toMatch(/K/);
    shop.bench.wait(200 * 86_400);
    const sealed = await shop.job(
      own,
      'conversion',
      {},
      {},
      { beforeC: 66, afterC: 74, notNeeded: (id) => (id === 'card-coolers' ? 'its card keeps its own air' : null) },
    );
    // nothing of a loop that is over is tested, bled or marked
    expect(sealed.procedure.steps.map(({ kind }) => kind)).not.toContain('bleed');
    await sealed.sign();
    const { record, parts } = { record: await recordOf(sealed.answer.run.id), parts: sealed.state.service.swaps };
    expect(record.service?.comparison).toMatch(/K/);
    expect(parts).toHaveLength(PLAIN.components.length);
    const page = await shop.page(own);
    expect(page.dues.filter(({ kind }) => kind === 'coolant-service')).toEqual([]);
    expect(page.system.state).toBe('retired');
  });
});

describe('pearl that fell out', () => {
  it('is stripped, brushed, flushed backward, with the plugs under suspicion, and its lot named', async () => {
    const own = await shop.built('Pearl window', PLAIN);
    const strip = await shop.job(
      own,
      'strip-clean',
      {},
      {},
      {
        beforeC: 74,
        afterC: 60,
        findings: {
          processor: { deposit: 'blocked' },
          roof: { deposit: 'layer' },
          'plug:roof.vent': { surface: 'pitted' },
        },
        instead: {
          inspect: (hands, step) => {
            hands.usual(step);
            hands.say({
              type: 'cause',
              step: step.id,
              item: null,
              cause: 'fallout',
              suspect: 'coolant-lot',
              particlesStayed: true,
              text: 'glitter in every bend',
            });
          },
          swap: (hands, step) =>
            void hands.say({
              type: 'swapped',
              step: step.id,
              item: 'plug:roof.vent',
              action: 'replaced',
              text: 'a new plug, other bag',
              heldMl: 0,
            }),
        },
      },
    );
    await strip.upTo('clean');
    // a plug that is pitted does not go back in
    expect(strip.checksOf('clean').filter(({ id }) => id.startsWith('reverse:'))).toHaveLength(4);
    const signed = await strip.sign();
    expect(signed.body.serviceDueOn).not.toBeNull();
    const record = await recordOf(strip.answer.run.id);
    expect(record.log.some(({ text }) => text.includes('the coolant’s lot'))).toBe(true);
    // what stayed inside shortens what comes next, and is looked at early
    expect((await shop.page(own)).dues.some(({ kind }) => kind === 'follow-up')).toBe(true);
  });
});

describe('temperatures that crept up', () => {
  it('ask for no more than the card: drawn down to it, its joints watched ten minutes, read before and after', async () => {
    const own = await shop.built('Creeping card', PLAIN);
    const swap = await shop.job(
      own,
      'partial-drain',
      { partId: 'graphics', beside: ['paste'] },
      { leak: 'opened-joints' },
      { beforeC: 81, afterC: 62 },
      ['drain--graphics', 'graphics--processor'],
    );
    const joints = swap.checksOf('close').filter(({ id }) => id.startsWith('joint:'));
    expect(joints.map(({ place }) => place)).toEqual(joints.map(({ place }) => place).filter((place) => place?.includes('graphics')));
    expect(swap.procedure.wetSeconds).toBe(600);
    // the strip-down is of this card alone
    expect(swap.checksOf('swap').every(({ id }) => !id.startsWith('card:') || id.startsWith('card:graphics:'))).toBe(true);
    await swap.upTo('beside');
    swap.say({ type: 'pasted', step: 'beside', items: ['graphics'], medium: 'paste', product: 'Grey' });
    await swap.sign();
    expect((await recordOf(swap.answer.run.id)).service?.comparison).toMatch(/K/);
    expect((await shop.loop(own)).inside.by).toBe('book');
  });
});
