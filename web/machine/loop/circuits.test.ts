// @vitest-environment happy-dom
import twoLoopsText from '../../../examples/two-loops-one-case.json?raw';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { circuitFiles } from '@core/machine/loop-file/circuits.js';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import StartRunDialog from '../../bench/runs/StartRunDialog.vue';
import LoopFigures from './LoopFigures.vue';
import PartCircuits from './PartCircuits.vue';

const two = readLoopFile(JSON.parse(twoLoopsText));
const saved = { id: 'l1', version: 4 };

describe('a drawing of two circuits', () => {
  it('names both, and makes two loops of the version that is seen', async () => {
    const answer = { id: 'l1', systemId: 's1' };
    const asked = fakeServer(() => ({ status: 201, body: answer }));
    const screen = mountScreen(PartCircuits, { props: { file: two, saved } });
    expect(wordsOf(screen)).toContain('2 circuits in one drawing Processor block · Graphics block');
    await screen.get('button').trigger('click');
    await settle();
    expect(asked).toEqual([expect.objectContaining({ method: 'POST', path: '/loops/l1/part', body: { version: 4 } })]);
    expect(screen.emitted('parted')).toEqual([[answer, ['Processor block', 'Graphics block']]]);
  });

  it('says why it could not be parted, and waits for its saving', async () => {
    fakeServer(() => ({ status: 409, body: { error: { code: 'conflict', message: 'This loop stands on a bench; end that run first.' } } }));
    const screen = mountScreen(PartCircuits, { props: { file: two, saved } });
    await screen.get('button').trigger('click');
    await settle();
    expect(wordsOf(screen)).toContain('stands on a bench');
    const unsaved = mountScreen(PartCircuits, { props: { file: two, saved: null } });
    expect(unsaved.find('button').exists()).toBe(false);
    expect(wordsOf(unsaved)).toContain('Saved, it can become 2 loops');
  });

  it('forecasts a fill for each, from dry', async () => {
    const screen = mountScreen(LoopFigures, { props: { loop: two, product: null } });
    await settle();
    expect(wordsOf(screen)).toMatch(/First fill Processor block .*likely full at \d+ mL.*Graphics block .*likely full at \d+ mL/);
  });

  it('cannot be started as one; a usual loop is not asked about', async () => {
    const file = { file: two, coolantProductId: null };
    fakeServer(({ path }) => ({
      status: 200,
      body: path.startsWith('/loops')
        ? file
        : path === '/workshop'
          ? { workshop: { schools: {} }, benches: [] }
          : { runs: [], products: [] },
    }));
    mountScreen(StartRunDialog, { props: { loopId: 'l1', loopName: 'Both', systemName: 'Glass cube' } });
    await settle();
    expect(document.body.textContent).toMatch(/2 circuits in one drawing[^]*To the loop/);
    expect(wordsOf(mountScreen(PartCircuits, { props: { file: usualLoop(), saved } }))).toBe('');
    expect(circuitFiles(usualLoop())).toHaveLength(1);
  });
});
