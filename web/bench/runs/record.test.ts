// @vitest-environment happy-dom
import type { ServiceReport } from '@core/edge/records/serviceReport.js';
import { buildRecord, type RunRecord } from '@core/edge/records/record.js';
import { TestRun } from '../../../tests/bench/testRun.js';
import { usualLoop } from '@core/machine/catalogue/testLoops.js';
import { describe, expect, it, vi } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { deviceOutbox } from '../../base/outbox/deviceOutbox.js';
import { setServerNow } from '../../base/units/now.js';
import RecordView from '../../pages/RecordView.vue';
import ReasonDialog from '../../base/look/ReasonDialog.vue';

function recordOf(run: TestRun) {
  return buildRecord({
    procedure: run.procedure,
    events: run.events,
    system: { name: 'Lighthouse', owner: 'Ada Fernwick' },
    loop: { name: 'Main loop', revision: 2, file: usualLoop() },
    startedAt: '2026-03-10T09:00:00Z',
    filledOn: '2026-03-10',
  });
}
const signed = (): TestRun => new TestRun().upTo('sign-off').say({ type: 'signed-off', remark: 'quiet setting kept' });

async function shown(run: TestRun, corrections: unknown[] = []) {
  return shownRecord(recordOf(run), corrections);
}

async function shownRecord(record: RunRecord, corrections: unknown[] = []) {
  fakeServer(({ path }) => ({ status: 200, body: path === '/coolants' ? { products: [] } : { record, corrections } }));
  const screen = mountScreen(RecordView, { props: { id: 'r1' } });
  await settle();
  return screen;
}

describe('a signed record', () => {
  it('can be read without the program: who, what, how tight, how much, how warm', async () => {
    const text = wordsOf(await shown(signed()));
    for (const words of [
      'Commissioning of Lighthouse',
      'Ada Fernwick',
      'by Tess: quiet setting kept',
      'passed against 1.0 × 10⁻² mbar·L/s',
      'mL of water a day',
      '3 cycles, last rise 1 mm',
      '12 Mar 2026 to 17 Mar 2026',
      '40.0 K',
    ]) {
      expect(text).toContain(words);
    }
  });

  it('shows the plan as an estimate and the pour as measured', async () => {
    const screen = await shown(signed());
    const rows =
      screen
        .findAll('dl')[0]
        ?.findAll('dd')
        .map((each) => each.text()) ?? [];
    expect(rows[0]).not.toContain('estimate');
    expect(rows[1]).toContain('estimate');
  });

  it('of a top-up says what went in, and neither plans a fill nor misses a coolant', async () => {
    const record = recordOf(signed());
    const service: ServiceReport = {
      kind: 'top-up',
      volumes: { startMl: 890, outMl: 0, inMl: 40, lostMl: 0, insideMl: 930, unseenMl: 0, balance: '', oldShare: 0.957 },
      sheet: [],
      cause: null,
      done: [],
      temporary: [],
      looseEnds: [],
      comparison: null,
      notReconnected: [],
      photos: [],
    };
    const topUp = { ...record, had: ['checks', 'fill', 'sign-off'], coolant: null, volumes: { ...record.volumes, pouredMl: 0 }, service };
    const text = wordsOf(await shownRecord(topUp as RunRecord));
    expect(text).toContain('40 mL');
    expect(text).not.toContain('Planned');
    expect(text).not.toContain('not recorded');
  });

  it('shows corrections beside it, with their person', async () => {
    const screen = await shown(signed(), [
      { id: 'c', seq: 99, at: '2026-03-11T09:00:00Z', by: 'Ilse', body: { type: 'correction', about: null, text: 'it was lot 9' } },
    ]);
    expect(screen.text()).toContain('Ilse it was lot 9');
  });

  it('dates a correction by the workshop’s clock, not by the tablet’s', async () => {
    const added = vi.spyOn(deviceOutbox, 'add').mockResolvedValue(undefined);
    setServerNow('2031-01-01T08:00:00Z');
    const screen = await shown(signed());
    await screen.findAll('button').find((each) => each.text() === 'Add a correction')?.trigger('click'); // prettier-ignore
    await settle();
    screen.findComponent(ReasonDialog).vm.$emit('say', 'it was lot 9');
    setServerNow(new Date().toISOString());
    expect(added.mock.calls[0]?.[0]).toMatchObject({ runId: 'r1', body: { type: 'correction', text: 'it was lot 9' } });
    expect(added.mock.calls[0]?.[0].at).toMatch(/^2031-01-01T08:00/);
    added.mockRestore();
  });

  it('lists what was passed over, and strikes out what was taken back', async () => {
    const run = new TestRun().say({ type: 'note', step: 'kit', text: 'wrong note' });
    run.say({ type: 'withdrawn', event: run.events[0]?.id ?? '' }).say({ type: 'deviation', step: 'kit', reason: 'laid out yesterday' });
    run.tick('flush').say({ type: 'step-done', step: 'flush' });
    for (const step of ['assemble', 'close', 'isolate']) run.finish(step);
    run.dryTest().finish('dry').pourAll().finish('fill').runTimer('wet', 'wet-run', 600).finish('wet').bleed().finish('bleed');
    run.runTimer('power', 'firmware', 900).finish('power').measure().finish('baseline').say({ type: 'signed-off', remark: '' });
    const screen = await shown(run);
    expect(screen.text()).toContain('Lay out the kit: laid out yesterday');
    expect(screen.findAll('.log .back').map((row) => row.text())[0]).toContain('Note: wrong note');
  });

  it('says so where there is none', async () => {
    fakeServer(() => ({ status: 404, body: { error: { code: 'not-found', message: 'x' } } }));
    const screen = mountScreen(RecordView, { props: { id: 'r1' } });
    await settle();
    expect(screen.text()).toContain('There is no signed record here');
  });
});

describe('asking for a reason', () => {
  it('takes none that is too short', async () => {
    document.body.innerHTML = '';
    const screen = mountScreen(ReasonDialog, { props: { modelValue: false, title: 'Why', label: 'Reason', button: 'Say', least: 3 } });
    await screen.setProps({ modelValue: true });
    await settle();
    const area = document.querySelector<HTMLTextAreaElement>('.v-overlay--active textarea');
    const submit = async (text: string): Promise<void> => {
      if (area) area.value = text;
      area?.dispatchEvent(new Event('input'));
      area?.closest('form')?.dispatchEvent(new Event('submit', { cancelable: true }));
      await settle();
    };
    await submit(' x ');
    expect(screen.emitted('say')).toBeUndefined();
    expect(document.body.textContent).toContain('At least 3 letters');
    await submit(' because ');
    expect(screen.emitted('say')).toEqual([['because']]);
  });
});

describe('a record as files', () => {
  const caught: { name: string; text: Promise<string> }[] = [];
  const catchDownloads = (): void => {
    caught.length = 0;
    let blob: Blob | null = null;
    vi.spyOn(URL, 'createObjectURL').mockImplementation((given) => {
      blob = given as Blob;
      return 'blob:x';
    });
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      caught.push({ name: this.download, text: (blob as Blob).text() });
    });
  };
  const correction = {
    id: 'c',
    seq: 99,
    at: '2026-03-12T08:00:00Z',
    by: 'Tess',
    body: { type: 'correction', about: null, text: '=the lot was "L2"' },
  };

  it('goes out whole as JSON, corrections included', async () => {
    catchDownloads();
    const screen = await shown(signed(), [correction]);
    await screen.findAll('button').find((each) => each.text() === 'As a file')?.trigger('click'); // prettier-ignore
    expect(caught[0]?.name).toBe('record-lighthouse-2026-03-10.json');
    const document = JSON.parse((await caught[0]?.text) ?? '{}') as { record: unknown; corrections: unknown[] };
    expect(document.record).toEqual(JSON.parse(JSON.stringify(recordOf(signed()))));
    expect(document.corrections).toEqual([correction]);
  });

  it('goes out as a log that any table program reads and none takes for a formula', async () => {
    catchDownloads();
    const screen = await shown(signed(), [correction]);
    await screen.findAll('button').find((each) => each.text() === 'Log as a table')?.trigger('click'); // prettier-ignore
    await vi.waitFor(() => expect(caught).toHaveLength(1), { timeout: 120_000 });
    const lines = ((await caught[0]?.text) ?? '').trim().split(/\r?\n/);
    expect(lines[0]).toBe('number,at,by,entry,taken_back');
    expect(lines).toHaveLength(1 + recordOf(signed()).log.length + 1);
    expect(lines.at(-1)).toBe(`correction,2026-03-12T08:00:00Z,Tess,"'=the lot was ""L2""",`);
  });
});
