// @vitest-environment happy-dom
import type { HistoryEntry, SystemLine } from '@core/workshop/machines/answers.js';
import { afterEach, describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, unmountAll, wordsOf } from '../../../tests/screens/mountScreen.js';
import SystemsView from '../../pages/SystemsView.vue';
import MachineHistory from '../machines/MachineHistory.vue';
import { linesPath } from './linesPath.js';
import { allLines, useLines, type Lines } from './useLines.js';

afterEach(unmountAll);
const line = (n: number): SystemLine => ({
  id: `m${n}`,
  name: `Machine ${n}`,
  ownerName: 'Ada',
  ownerPhone: null,
  tag: '',
  caseText: '',
  state: 'in-service',
  attention: 'fine',
  nextDueOn: null,
  nextKind: null,
  nextReason: null,
  dues: [],
  filledOn: null,
  coolant: null,
});
/** a server with so many machines, ten to a page */
const shop = (count: number, each = 10) =>
  fakeServer(({ path }) => {
    const query = new URL(path, 'http://x').searchParams;
    const from = Number(query.get('after') ?? 0);
    const to = Math.min(count, from + each);
    const systems = Array.from({ length: to - from }, (_, index) => line(from + index));
    const isFirst = from === 0;
    return {
      status: 200,
      body: {
        today: '2026-03-10',
        systems,
        after: to < count ? String(to) : null,
        counts: isFirst ? { fine: count } : null,
        found: isFirst ? count : null,
      },
    };
  });

describe('the list of machines, page by page', () => {
  /** A list as a page uses it. */
  async function listOf(asked = { q: '' }): Promise<Lines> {
    let lines: Lines | undefined;
    mountScreen({ setup: () => void (lines = useLines(() => asked)), template: '<div />' });
    await settle();
    return lines as Lines;
  }

  it('asks for the next page behind the last, until there is none', async () => {
    const asked = shop(25);
    const lines = await listOf();
    expect([lines.lines.value.length, lines.hasMore.value]).toEqual([10, true]);
    await lines.more();
    await lines.more();
    expect([lines.lines.value.length, lines.hasMore.value]).toEqual([25, false]);
    await lines.more();
    expect(asked.map(({ path }) => new URL(path, 'http://x').searchParams.get('after'))).toEqual([null, '10', '20']);
  });

  it('shows a machine once that moved to a later page while one read', async () => {
    fakeServer(({ path }) => {
      const isFirst = !path.includes('after');
      const systems = isFirst ? [line(1), line(2)] : [line(2), line(3)];
      return { status: 200, body: { today: '2026-03-10', systems, after: isFirst ? 'x' : null, counts: {}, found: 3 } };
    });
    const lines = await listOf();
    await lines.more();
    expect(lines.lines.value.map(({ id }) => id)).toEqual(['m1', 'm2', 'm3']);
  });

  it('says what went wrong and keeps what is there', async () => {
    shop(25);
    const lines = await listOf();
    fakeServer(() => 'unreachable');
    await lines.more();
    expect([lines.lines.value.length, lines.problem.value]).toEqual([10, expect.stringContaining('reach')]);
  });

  it('brings all of them for a table, and tells how far it is', async () => {
    const asked = shop(500, 200);
    const told: string[] = [];
    const lines = await allLines({ attention: 'fine' }, (done, of) => told.push(`${done}/${of}`), new AbortController().signal);
    expect(lines).toHaveLength(500);
    expect(told).toEqual(['200/500', '400/500', '500/500']);
    expect(asked[0]?.path).toBe(linesPath({ attention: 'fine' }, null, 200));
  });

  it('says how many there are of each kind, and asks for one of them', async () => {
    const asked = shop(25);
    const screen = mountScreen(SystemsView);
    await settle();
    expect(screen.findAll('.filters button').map(wordsOf)).toEqual(['all 25', 'in service 25']);
    await screen.findAll('.filters button')[1]?.trigger('click');
    await settle();
    expect(asked.at(-1)?.path).toContain('attention=fine');
  });
});

describe('the history of a machine, piece by piece', () => {
  const entry = (n: number): HistoryEntry => ({ id: `e${n}`, at: `2026-03-${10 + n}`, kind: 'job', title: `Work ${n}`, text: '', by: null, runId: null, colour: null }); // prettier-ignore
  it('shows what lies further back when it is asked for', async () => {
    let newest = { entries: [entry(3), entry(2)], before: '2026-03-12 e2' };
    const asked = fakeServer(({ path }) => ({
      status: 200,
      body: path.includes('before') ? { entries: [entry(1)], before: null } : newest,
    }));
    const screen = mountScreen(MachineHistory, { props: { system: { id: 's', name: 'Tower' }, at: 1 } });
    await settle();
    expect(screen.findAll('li')).toHaveLength(2);
    await screen.findAll('button').at(-1)?.trigger('click');
    await settle();
    expect(asked.at(-1)?.path).toBe('/systems/s/history?before=2026-03-12%20e2');
    expect(screen.findAll('li strong').map(wordsOf)).toEqual(['Work 3', 'Work 2', 'Work 1']);
    expect(wordsOf(screen)).not.toContain('Earlier entries');
    newest = { entries: [entry(4), entry(3)], before: '2026-03-13 e3' };
    await screen.setProps({ at: 2 });
    await settle();
    expect(screen.findAll('li strong').map(wordsOf)).toEqual(['Work 4', 'Work 3']);
  });
});
