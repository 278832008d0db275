import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../../core/base/units/calendar.js';
import { reasonWords } from '../../../core/edge/words/dates.js';
import { conditionOf } from '../../../core/physics/condition/series.js';
import { USUAL_LIMITS } from '../../../core/physics/condition/limits.js';
import type { DateReason } from '../../../core/workshop/due-dates/facts.js';
import type { ConditionPage, KeptLog } from '../../../core/workshop/logs/answers.js';
import { errorOf, TestBench, type Visitor } from '../../../tests/integration/bench.js';
import { commissioned, lotOf } from '../../../tests/integration/led.js';

let bench: TestBench;
let lead: Visitor;
let systemId: string;
let filledOn: string;
let part: string;

beforeAll(async () => {
  bench = await TestBench.open();
  lead = await bench.workshop('Logs');
  const lot = await lotOf(lead, 'L1', { sheetLifeMonths: 36 });
  ({ systemId } = await commissioned(bench, lead, 'Logger', lot));
  const page = await condition();
  filledOn = page.today;
  part = page.parts[0]?.part ?? '';
});
afterAll(() => bench.close());

const condition = async (who: Visitor = lead): Promise<ConditionPage> =>
  (await who.get<ConditionPage>(`/systems/${systemId}/condition`)).body;
const due = async () =>
  (
    await lead.get<{ dues: { kind: string; dueOn: string; reason: DateReason; clocks?: unknown }[] }>(`/systems/${systemId}`)
  ).body.dues.find(({ kind }) => kind === 'coolant-service');
/** a reading a day, each so many K/W above its room */
const days = (from: number, count: number, theta: (day: number) => number) =>
  Array.from({ length: count }, (_, n) => {
    const day = from + n * 3;
    const on = addDays(filledOn, day);
    return {
      on,
      at: `${on}T18:00:00.000Z`,
      reading: { roomC: 22, powersW: { [part]: 200 }, partsC: { [part]: 22 + 200 * theta(day) }, coolantC: 31, minutes: 50 },
    };
  });
const log = (from: number, count: number, theta: (day: number) => number, more: object = {}) => ({
  name: 'log.csv',
  fromOn: addDays(filledOn, from),
  on: addDays(filledOn, from + 3 * count),
  hours: 4 * count,
  meanCoolantC: 32,
  meterHours: null,
  columns: { time: { heading: 'Time', nth: 0 }, date: null, channels: {}, parts: [], roomC: 21, fullPumpRpm: null, fullFanRpm: null },
  days: days(from, count, theta),
  ...more,
});
const keep = (body: object) => lead.post<KeptLog>(`/systems/${systemId}/logs`, body);

describe('a log that is kept', () => {
  it('brings hours, warmth, a reading a day and how its columns were read; its date follows', async () => {
    bench.wait(100 * 86_400);
    const before = (await due())?.dueOn ?? '';
    const kept = await keep(log(3, 30, (day) => 0.2 + 0.0003 * day));
    expect(kept).toMatchObject({ status: 201, body: { taken: 30, known: 0 } });
    const page = await condition();
    expect(page.columns?.roomC).toBe(21);
    expect(page.readings.filter(({ source }) => source === 'log')).toHaveLength(30);
    expect(page.marks).toContainEqual({ on: filledOn, kind: 'filled', part: null, coolant: expect.stringContaining('Clear') });
    const after = await due();
    expect((after?.dueOn ?? '') < before).toBe(true);
    // the server dates by what the screen draws
    const own = conditionOf(page.parts, page.readings, page.marks, USUAL_LIMITS).find((each) => each.part === part);
    expect(after?.dueOn).toBe(own?.crosses?.on);
    expect(reasonWords(after?.reason as DateReason)).toMatch(
      /per watt: meets its limit of 0\.\d+ K\/W \(30 % over its best days\); between/,
    );
  });

  it('brings a day once, however often it comes', async () => {
    expect((await keep(log(60, 13, () => 0.23))).body).toMatchObject({ taken: 2, known: 11 });
    expect((await condition()).readings.filter(({ source }) => source === 'log')).toHaveLength(32);
  });

  it('takes its readings with it when it is struck out, and brings them back', async () => {
    const { usage } = (await lead.get<{ usage: { readings: { id: string; source: string }[] } }>(`/systems/${systemId}`)).body;
    const first = usage.readings.find(({ source }) => source === 'log')?.id ?? '';
    expect((await lead.put(`/usage-readings/${first}`, { struck: true })).status).toBe(200);
    expect((await condition()).readings.filter(({ source }) => source === 'log')).toHaveLength(2);
    expect((await due())?.reason.why).not.toBe('condition');
    expect((await lead.put(`/usage-readings/${first}`, { struck: false })).status).toBe(200);
    expect((await condition()).readings.filter(({ source }) => source === 'log')).toHaveLength(32);
    expect((await due())?.reason.why).toBe('condition');
  });

  it('keeps its hour meter beside its hours', async () => {
    await keep(log(96, 1, () => 0.23, { days: [], meterHours: 812 }));
    const { usage } = (await lead.get<{ usage: { readings: { source: string; hours: number }[] } }>(`/systems/${systemId}`)).body;
    expect(usage.readings).toContainEqual(expect.objectContaining({ source: 'meter', hours: 812 }));
  });

  it('is refused whole where it lies in the future, outside of itself, or is another workshop’s', async () => {
    expect(errorOf(await keep(log(90, 30, () => 0.2))).message).toContain('future');
    expect(errorOf(await keep({ ...log(3, 2, () => 0.2), hours: 900 })).message).toContain('hours in all');
    const stranger = await bench.workshop('Elsewhere');
    expect(
      (
        await stranger.post(
          `/systems/${systemId}/logs`,
          log(3, 2, () => 0.2),
        )
      ).status,
    ).toBe(404);
    expect((await stranger.get(`/systems/${systemId}/condition`)).status).toBe(404);
    expect((await condition()).readings.filter(({ source }) => source === 'log')).toHaveLength(32);
  });
});

describe('a reading by hand', () => {
  it('joins the others, calls the machine in where it stands over its limit, and can be struck out', async () => {
    const hot = { on: addDays(filledOn, 99), reading: { roomC: 22, powersW: { [part]: 200 }, partsC: { [part]: 85 }, minutes: 45 } };
    const made = await lead.post<{ id: string }>(`/systems/${systemId}/readings`, hot);
    expect(made.status).toBe(201);
    expect(await due()).toMatchObject({ dueOn: hot.on, reason: { why: 'condition', isOver: true } });
    // its coolant is as good as it was: at the take-in nobody advises to change it for that
    const loopId = (await condition()).loops[0]?.id;
    expect((await lead.get<{ dueSoon: unknown }>(`/loops/${loopId}/history`)).body.dueSoon).toBeNull();
    await lead.put(`/load-readings/${made.body.id}`, { struck: true });
    expect(await due()).toMatchObject({ reason: { why: 'condition', isOver: false } });
    const stranger = await bench.workshop('Foreign');
    expect((await stranger.put(`/load-readings/${made.body.id}`, { struck: false })).status).toBe(404);
  });

  it('needs its room, and a part with its watts', async () => {
    const answer = await lead.post(`/systems/${systemId}/readings`, { on: filledOn, reading: { roomC: 22, powersW: {}, partsC: {} } });
    expect(errorOf(answer).fields?.map(({ path }) => path)).toContain('reading.powersW');
  });
});

describe('what is too hot', () => {
  it('is the workshop’s word: every date follows it', async () => {
    const { workshop } = (await lead.get<{ workshop: { version: number } }>('/workshop')).body;
    const before = (await due())?.dueOn ?? '';
    const wide = { ...USUAL_LIMITS, riseShare: 0.5, version: workshop.version };
    expect((await lead.put('/workshop/heat-limits', wide)).status).toBe(200);
    expect(((await due())?.dueOn ?? '') > before).toBe(true);
    expect((await condition()).limits.riseShare).toBe(0.5);
    expect((await lead.put('/workshop/heat-limits', wide)).status).toBe(409);
    const tess = await lead.colleague('technician');
    expect((await tess.put('/workshop/heat-limits', { ...wide, version: workshop.version + 1 })).status).toBe(403);
    expect(
      errorOf(await lead.put('/workshop/heat-limits', { ...wide, hotRoomC: 80, version: workshop.version + 1 })).fields?.[0]?.path,
    ).toBe('hotRoomC');
  });
});

describe('a cleaning', () => {
  it('begins the line anew: what was read before says nothing of a day any more', async () => {
    const { dues } = (await lead.get<{ dues: { id: string; kind: string; version: number }[] }>(`/systems/${systemId}`)).body;
    const dust = dues.find(({ kind }) => kind === 'dust-clean');
    const done = { outcome: 'done', levelChangeMm: null, note: '', version: dust?.version };
    expect((await lead.put(`/due-items/${dust?.id}/close`, done)).status).toBe(200);
    expect((await due())?.reason.why).not.toBe('condition');
    expect((await condition()).marks.map(({ kind }) => kind)).toContain('dusted');
  });
});

describe('what was done to a part, and what was found', () => {
  it('begins its line anew from that day, until it is struck out', async () => {
    const on = addDays(filledOn, 70);
    const made = await lead.post<{ id: string }>(`/systems/${systemId}/marks`, { kind: 'paste', part, on });
    expect(made.status, JSON.stringify(made.body)).toBe(201);
    const marks = async () => (await condition()).marks.filter(({ id }) => id !== undefined);
    expect(await marks()).toMatchObject([{ id: made.body.id, kind: 'paste', part, on }]);
    const { parts, readings, marks: all, limits } = await condition();
    expect(
      conditionOf(parts, readings, all, limits)
        .find((each) => each.part === part)
        ?.counted.every((each) => each.on > on),
    ).toBe(true);
    await lead.put(`/machine-marks/${made.body.id}`, { struck: true });
    expect(await marks()).toEqual([]);
    expect(errorOf(await lead.post(`/systems/${systemId}/marks`, { kind: 'paste', part: 'wheel', on })).message).toContain(
      'not a part of this loop',
    );
    expect(errorOf(await lead.post(`/systems/${systemId}/marks`, { kind: 'paste', part, on: addDays(filledOn, 900) })).message).toContain(
      'future',
    );
  });

  it('is counted over the whole workshop, and in no other', async () => {
    const body = { cause: 'paste', part, on: addDays(filledOn, 71) };
    const { body: page } = await lead.post<ConditionPage>(`/systems/${systemId}/causes`, body);
    expect(page.confirmed).toMatchObject([{ cause: 'paste', part, on: body.on }]);
    expect(page.found).toEqual({ paste: 1 });
    expect((await lead.post(`/systems/${systemId}/causes`, { ...body, cause: 'ghost' })).status).toBe(422);
    const stranger = await bench.workshop('Afar');
    expect((await stranger.post(`/systems/${systemId}/causes`, body)).status).toBe(404);
    expect((await stranger.put(`/confirmed-causes/${page.confirmed[0]?.id}`, { struck: true })).status).toBe(404);
    await lead.put(`/confirmed-causes/${page.confirmed[0]?.id}`, { struck: true });
    expect(await condition()).toMatchObject({ confirmed: [], found: {} });
  });
});

describe('a level between two fills', () => {
  it('stands beside the check of the first days, and can be struck out', async () => {
    const loopId = (await condition()).loops[0]?.id;
    const made = await lead.post<{ id: string }>(`/systems/${systemId}/levels`, { loopId, on: addDays(filledOn, 60), mm: -4 });
    expect(made.status).toBe(201);
    const { levels } = await condition();
    expect(levels).toMatchObject([{ loopId, filledOn, read: [{ id: made.body.id, mm: -4, source: 'hand' }] }]);
    const { dues } = (await lead.get<{ dues: { id: string; kind: string; version: number }[] }>(`/systems/${systemId}`)).body;
    const check = dues.find(({ kind }) => kind === 'settling-check');
    await lead.put(`/due-items/${check?.id}/close`, { outcome: 'settled', levelChangeMm: -2, note: '', version: check?.version });
    expect((await condition()).levels[0]?.read).toContainEqual(expect.objectContaining({ mm: -2, source: 'settling' }));
    await lead.put(`/level-readings/${made.body.id}`, { struck: true });
    expect((await condition()).levels[0]?.read.map(({ source }) => source)).toEqual(['settling']);
    const elsewhere = await lead.system('Another');
    expect((await lead.post(`/systems/${elsewhere}/levels`, { loopId, on: filledOn, mm: 0 })).status).toBe(404);
  });
});

describe('a setting that is kept', () => {
  it('stands with its day and who left it so, and a reading keeps how its fans were turned', async () => {
    const { body } = await lead.put<ConditionPage>(`/systems/${systemId}/kept-setting`, { pumpSpeed: 0.6, fanSpeed: 0.35 });
    expect(body.keptSetting).toMatchObject({ pumpSpeed: 0.6, fanSpeed: 0.35, by: expect.stringContaining('Lead') });
    expect((await lead.put(`/systems/${systemId}/kept-setting`, { pumpSpeed: 60, fanSpeed: 0.35 })).status).toBe(422);
    expect((await lead.get<{ system: object }>(`/systems/${systemId}`)).body.system).not.toHaveProperty('keptSetting');
    const fanGroups = [
      { name: 'roof', speed: 0.4, by: 'hub' },
      { name: 'front', speed: 0.3, by: 'board' },
    ];
    const own = { roomC: 22, powersW: { [part]: 200 }, partsC: { [part]: 60 }, fanGroups, fanSpeed: 0.35, score: 12_400, noiseDba: 31 };
    await lead.post(`/systems/${systemId}/readings`, { on: addDays(filledOn, 99), reading: own });
    expect((await condition()).readings.find(({ reading }) => reading.score === 12_400)?.reading.fanGroups).toEqual(fanGroups);
  });
});
