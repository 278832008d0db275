import { describe, expect, it } from 'vitest';
import { personSchema, setupSchema, workshopSchema } from '../people/schema.js';
import { normaliseBaseline } from '../../physics/diagnosis/baseline.js';
import { pathsOf } from '../../../tests/paths.js';
import { DEFAULT_SCHOOLS } from '../../physics/leak-testing/schools.js';
import { coolantProductSchema } from '../coolants/schema.js';
import { attentionOf, sayDue } from '../due-dates/attention.js';
import { ownerSchema, postponeSchema, serviceSchema, systemSchema } from './schema.js';

const today = '2026-03-10';
const id = '6f1f0d5e-0000-4000-8000-000000000001';

describe('what needs attention', () => {
  const none = { postponed: 0, firstDueOn: null };
  const service = (dueOn: string) => ({ kind: 'coolant-service' as const, dueOn, ...none });
  const dust = (dueOn: string) => ({ kind: 'dust-clean' as const, dueOn, ...none });
  const stir = (dueOn: string) => ({ kind: 'stirring' as const, dueOn, ...none });
  it.each([
    ['in-service', [service('2026-03-01')], 'overdue'],
    ['in-service', [service('2027-01-01'), { kind: 'settling-check' as const, dueOn: '2026-03-12', ...none }], 'settling'],
    ['in-service', [service('2026-03-30')], 'soon'],
    ['in-service', [service('2026-09-30')], 'fine'],
    ['in-service', [], 'unknown'],
    ['in-service', [service('2026-09-30'), dust('2026-01-01')], 'dust'],
    ['in-service', [service('2026-03-01'), dust('2026-01-01')], 'overdue'],
    // what lies packs together: stirred before a service that only comes near
    ['in-service', [service('2026-03-30'), stir('2026-03-09'), dust('2026-01-01')], 'stir'],
    ['in-service', [service('2026-03-30'), stir('2026-03-11')], 'soon'],
    ['in-service', [service('2026-03-01'), stir('2026-03-01')], 'overdue'],
    ['in-service', [{ ...service('2026-09-30'), postponed: 2, firstDueOn: '2026-06-01' }], 'put-off'],
    ['planned', [], 'unknown'],
    ['on-bench', [service('2026-03-01')], 'on-bench'],
    ['retired', [service('2026-03-01')], 'retired'],
  ] as const)('%s with %j is %s', (state, dues, attention) => {
    expect(attentionOf(state, dues, today)).toBe(attention === 'unknown' && state === 'planned' ? 'planned' : attention);
  });

  it.each([
    ['2026-03-10', 'today'],
    ['2026-03-11', 'in 1 day'],
    ['2026-03-05', '5 days over'],
    ['2026-04-01', 'in 3 weeks'],
    ['2025-12-01', '3 months over'],
  ])('says %s on the phone as %s', (dueOn, words) => {
    expect(sayDue(dueOn, today)).toBe(words);
  });
});

describe('owners and systems as they are typed', () => {
  const owner = { name: 'Ada Fernwick', email: null, phone: '+351 555 123', channel: 'phone', note: '', policy: null };
  const system = { ownerId: id, name: 'Tower', caseText: '', builtBy: '', hoursPerDay: null, policy: null, note: '' };

  it('takes what the desk knows', () => {
    expect(pathsOf(ownerSchema, owner)).toEqual([]);
    expect(pathsOf(ownerSchema, { ...owner, email: 'a@workshop.internal' })).toEqual([]);
    expect(pathsOf(systemSchema, system)).toEqual([]);
  });

  it.each([
    ['an empty name', { ...owner, name: '   ' }, 'name'],
    ['a name of a thousand letters', { ...owner, name: 'x'.repeat(1000) }, 'name'],
    ['an address without @', { ...owner, email: 'nobody' }, 'email'],
    ['letters for a phone', { ...owner, phone: 'call me' }, 'phone'],
    ['an unknown channel', { ...owner, channel: 'pigeon' }, 'channel'],
    ['a number for a note', { ...owner, note: 3 }, 'note'],
    ['a field too many', { ...owner, vip: true }, 'vip'],
  ])('refuses %s', (_name, input, path) => {
    expect(pathsOf(ownerSchema, input)).toContain(path);
  });

  it.each([
    ['25 hours a day', { ...system, hoursPerDay: 25 }, 'hoursPerDay'],
    ['an owner that is no id', { ...system, ownerId: '7' }, 'ownerId'],
    ['an unknown policy', { ...system, policy: 'never' }, 'policy'],
  ])('refuses %s', (_name, input, path) => {
    expect(pathsOf(systemSchema, input)).toContain(path);
  });
});

describe('services and postponements', () => {
  const service = {
    loopId: id,
    kind: 'drain-refill',
    doneOn: '2026-03-01',
    productId: id,
    drainedMl: 700,
    pouredMl: 710,
    note: '',
    finding: '',
  };

  it('needs coolant and volume only where the loop was refilled', () => {
    expect(pathsOf(serviceSchema, service)).toEqual([]);
    expect(pathsOf(serviceSchema, { ...service, productId: null, pouredMl: null })).toEqual(['productId', 'pouredMl']);
    expect(pathsOf(serviceSchema, { ...service, kind: 'closed-loop', productId: null, pouredMl: null, drainedMl: null })).toEqual([]);
  });

  it('refuses a day that is none', () => {
    expect(pathsOf(serviceSchema, { ...service, doneOn: '2026-02-30' })).toEqual(['doneOn']);
  });

  it('is not put off before the risk was told', () => {
    expect(pathsOf(postponeSchema, { until: '2026-05-01', reason: 'deadline', riskTold: true, version: 1 })).toEqual([]);
    expect(pathsOf(postponeSchema, { until: '2026-05-01', reason: 'deadline', riskTold: false, version: 1 })).toEqual(['riskTold']);
    expect(pathsOf(postponeSchema, { until: '2026-05-01', reason: '', riskTold: true, version: 1 })).toEqual(['reason']);
  });
});

describe('accounts, workshop and coolants', () => {
  it('asks for ten characters and a real time zone', () => {
    const setup = { workshopName: 'W', timeZone: 'Europe/Lisbon', personName: 'P', email: 'p@w.example', password: 'short' };
    expect(pathsOf(setupSchema, setup)).toEqual(['password']);
    expect(pathsOf(setupSchema, { ...setup, password: 'long enough', timeZone: 'Moon/Base' })).toEqual(['timeZone']);
    expect(pathsOf(personSchema, { name: 'P', email: 'p@w.example', role: 'owner', password: 'long enough' })).toEqual(['role']);
  });

  it('checks the schools of a workshop', () => {
    const shop = { name: 'W', timeZone: 'UTC', policy: 'six-months', schools: DEFAULT_SCHOOLS, version: 1 };
    expect(pathsOf(workshopSchema, shop)).toEqual([]);
    expect(pathsOf(workshopSchema, { ...shop, schools: { ...DEFAULT_SCHOOLS, gaugeResolutionKpa: 0 } })).toEqual([
      'schools.gaugeResolutionKpa',
    ]);
    expect(pathsOf(workshopSchema, { ...shop, schools: { ...DEFAULT_SCHOOLS, leak: 'hope' } })).toEqual(['schools.leak']);
  });

  it('needs a target for a concentrate, and none for a ready-mix', () => {
    const product = {
      name: 'C',
      coolantClass: 'clear',
      colour: '#7fb8c9',
      form: 'ready-mix',
      targetFraction: null,
      bottleMl: 1000,
      sheetLifeMonths: null,
    };
    expect(pathsOf(coolantProductSchema, product)).toEqual([]);
    expect(pathsOf(coolantProductSchema, { ...product, form: 'concentrate' })).toEqual(['targetFraction']);
    expect(pathsOf(coolantProductSchema, { ...product, colour: 'blue' })).toEqual(['colour']);
    expect(pathsOf(coolantProductSchema, { ...product, bottleMl: -1 })).toEqual(['bottleMl']);
  });
});

describe('a baseline made comparable', () => {
  const reading = {
    setting: 'load',
    workload: 'render',
    durationMinutes: 45,
    powerW: 400,
    sensor: 'package',
    statistic: 'peak',
    panels: 'on',
    pumpPercent: 60,
    fanPercent: 40,
    roomC: 22,
    partC: 62,
    coolantC: 33,
    flowLph: null,
    levelMm: null,
  } as const;

  it('is quoted above the room and per watt', () => {
    expect(normaliseBaseline(reading)).toEqual({ aboveRoomK: 40, kelvinPerWatt: 0.1, coolantAboveRoomK: 11, weakPoints: [] });
  });

  it('names what would make a later comparison a guess', () => {
    const weak = normaliseBaseline({ ...reading, powerW: null, durationMinutes: 10, coolantC: null, partC: 20 });
    expect(weak.kelvinPerWatt).toBeNull();
    expect(weak.weakPoints).toHaveLength(4);
  });
});
