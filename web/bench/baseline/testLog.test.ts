// @vitest-environment happy-dom
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import BaselineStep from './BaselineStep.vue';

const file = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
/** a minute a line, the machine at an even load */
const LOG = `Time,CPU °C,CPU Power W,Coolant °C,Room °C\n${Array.from({ length: 60 }, (_, n) => `2026-05-01 18:${String(n).padStart(2, '0')}:00,61.5,150,34,22`).join('\n')}\n`;

beforeEach(() => {
  document.body.innerHTML = '';
  fakeServer(() => ({ status: 200, body: { columns: null, zone: 'UTC' } }));
});

async function drop(text: string) {
  const machine = { systemId: 's', file, today: '2026-05-01' };
  const screen = mountScreen(BaselineStep, { props: { state: new TestRun().state, locked: false, machine } });
  const input = screen.find('input[type="file"]');
  Object.defineProperty(input.element, 'files', { value: [new File([text], 'test.csv')], configurable: true });
  await input.trigger('change');
  const isRead = (): boolean =>
    screen.find('.row .danger').exists() || screen.findAll('input').some(({ element }) => element.value === '61.5');
  for (let n = 0; n < 400 && !isRead(); n += 1) {
    await new Promise((resolve) => setTimeout(resolve, 10));
    await settle();
  }
  return screen;
}

describe('a reading out of the log of the test', () => {
  it('fills the fields with the last even load, as the mean that it is', async () => {
    const screen = await drop(LOG);
    const values = screen.findAll('input').map(({ element }) => element.value);
    for (const value of ['61.5', '22', '34', '150']) expect(values).toContain(value);
    expect(wordsOf(screen)).toContain('mean of the last ten minutes');
  });

  it('says why where there is none', async () => {
    expect(wordsOf(await drop(LOG.split('\n').slice(0, 9).join('\n')))).toContain('No even load of twenty minutes stands in this log.');
    expect(wordsOf(await drop('a,b\n1,2\n'))).toContain('No column of this file tells the time');
  });
});
