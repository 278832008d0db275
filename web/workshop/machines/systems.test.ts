import type { SystemLine } from '@core/workshop/machines/answers.js';
// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { mountScreen, wordsOf } from '../../../tests/screens/mountScreen.js';
import StaleNotice from '../../base/shell/StaleNotice.vue';
import DueRunway from '../today/DueRunway.vue';
import HistoryLine from './HistoryLine.vue';
import LifeRow from './LifeRow.vue';
import { ownerInput, emptyOwner, emptySystem, systemInput } from './forms.js';

const line = (more: Partial<SystemLine> = {}): SystemLine => ({
  id: '1',
  name: 'Glass Tower',
  ownerName: 'Ádá Fernwick',
  ownerPhone: '+351 555 475 145',
  tag: 'FH-7',
  caseText: 'open frame',
  state: 'in-service',
  attention: 'fine',
  nextDueOn: '2026-09-10',
  nextKind: 'coolant-service',
  nextReason: { why: 'said', text: 'policy' },
  filledOn: '2026-03-10',
  coolant: { name: 'Plain Clear', colour: '#7fb8c9' },
  dues: [{ kind: 'coolant-service', dueOn: '2026-09-10', postponed: 0 }],
  ...more,
});

describe('a system as the time its coolant has left', () => {
  const bar = (screen: ReturnType<typeof mountScreen>) => screen.find('.bar');

  it('shows the remaining time in the liquid’s own colour, from today on', () => {
    const screen = mountScreen(LifeRow, { props: { line: line(), today: '2026-03-10' } });
    expect(bar(screen).attributes('style')).toContain('#7fb8c9');
    expect(bar(screen).attributes('style')).toContain('left: 20%');
    expect(screen.text()).toContain('in 6 months');
  });

  it('turns to hatching where the date has passed, and loses the liquid’s colour', () => {
    const screen = mountScreen(LifeRow, { props: { line: line({ attention: 'overdue' }), today: '2026-10-10' } });
    expect(bar(screen).classes()).toContain('over');
    expect(bar(screen).attributes('style')).not.toContain('#7fb8c9');
    expect(screen.text()).toContain('overdue');
  });

  it('shows nothing where no date is known', () => {
    const screen = mountScreen(LifeRow, {
      props: { line: line({ dues: [], nextDueOn: null, attention: 'planned' }), today: '2026-10-10' },
    });
    expect(bar(screen).exists()).toBe(false);
    expect(screen.text()).toContain('planned');
  });

  it('names what its next date is for, also where two fall on one day', () => {
    const twice = line({
      dues: [
        { kind: 'dust-clean', dueOn: '2026-09-10', postponed: 0 },
        { kind: 'coolant-service', dueOn: '2026-09-10', postponed: 1 },
      ],
    });
    expect(wordsOf(mountScreen(LifeRow, { props: { line: twice, today: '2026-03-10' } }))).toContain('in 6 months coolant');
  });

  it('ends at the edge for a date far away', () => {
    const far = line({
      dues: [{ kind: 'coolant-service', dueOn: '2031-01-01', postponed: 0 }],
    });
    expect(bar(mountScreen(LifeRow, { props: { line: far, today: '2026-03-10' } })).attributes('style')).toContain('right: 0%');
  });
});

describe('the runway of due dates', () => {
  it('puts overdue left and coming right of the waterline', () => {
    const screen = mountScreen(DueRunway, {
      props: {
        today: '2026-03-10',
        groups: [
          { key: 'overdue', lines: [line({ id: 'a', nextDueOn: '2026-02-20' })], of: 41 },
          { key: 'coming', lines: [line({ id: 'b', nextDueOn: '2026-03-20' })], of: 1 },
        ],
      },
    });
    const [over, coming] = screen.findAll('.reach');
    expect(over?.classes()).toContain('over');
    expect(coming?.classes()).not.toContain('over');
    expect(screen.text()).toContain('3 weeks over');
    expect(screen.text()).toContain('in 10 days');
    expect(screen.findAll('button').map(wordsOf)).toEqual(['40 more overdue']);
  });
});

describe('history', () => {
  it('shows each entry with its day, its person and the colour of a fill', () => {
    const entries = [
      {
        id: '1',
        at: '2026-03-10T09:00:00Z',
        kind: 'run' as const,
        title: 'Commissioning',
        text: '900 mL in',
        by: 'Tess',
        runId: 'r',
        colour: '#b23a3f',
      },
      { id: '2', at: '2026-03-01', kind: 'finding' as const, title: 'Finding', text: 'film', by: null, runId: null, colour: null },
    ];
    const screen = mountScreen(HistoryLine, { props: { entries } });
    expect(screen.findAll('li').map((each) => each.find('strong').text())).toEqual(['Commissioning', 'Finding']);
    expect(screen.find('.mark').attributes('style')).toContain('#b23a3f');
    expect(screen.find('a').attributes('href')).toBe('/runs/r/record');
  });
});

describe('forms', () => {
  it('send nothing typed as null and trim what was typed', () => {
    expect(ownerInput({ ...emptyOwner(), name: '  Ada ', phone: ' ' })).toEqual({
      name: 'Ada',
      email: null,
      phone: null,
      channel: 'phone',
      note: '',
      reading: {},
      policy: null,
    });
    expect(systemInput({ ...emptySystem(), name: ' Tower ' }, 'c')).toMatchObject({
      ownerId: 'c',
      name: 'Tower',
      hoursPerDay: null,
      policy: null,
    });
  });

  it('show a stale save field by field, only where they differ', async () => {
    const screen = mountScreen(StaleNotice, {
      props: {
        yours: { name: 'A', note: '', hours: 4 },
        theirs: { name: 'B', note: '', hours: null },
        labels: { name: 'Name', note: 'Note', hours: 'Hours' },
      },
    });
    expect(screen.findAll('tbody tr').map(wordsOf)).toEqual(['Name A B', 'Hours 4 empty']);
    await screen.findAll('button')[1]?.trigger('click');
    expect(screen.emitted('keepMine')).toHaveLength(1);
  });
});
