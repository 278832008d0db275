import { say } from '@core/base/words/say.js';
import { laterThan } from '@core/bench/runs/laterChecks.js';
import { openOf, rowsOf, type Look } from '@core/bench/runs/looks.js';
import type { CheckItem, ProcedureStep } from '@core/bench/runs/procedure.js';
import { laterWords } from '@core/edge/words/bench.js';
import { computed, ref, type ComputedRef, type Ref } from 'vue';
import type { PlaceDot } from '@core/physics/profile/drawing.js';
import type { RunDesk } from './useRun.js';

export interface Looks {
  /** what can be looked at now and nobody has */
  readonly openLooks: ComputedRef<readonly Look[]>;
  /** what is left to look at, as the one figure of a step that has no other */
  readonly left: ComputedRef<{ readonly big: string; readonly small: string }>;
  /** when a check can be ticked that cannot be yet, in words, by its id */
  readonly later: ComputedRef<Readonly<Record<string, string>>>;
  /** the same on the picture: each place that is looked at, the next one ringed, leaks as such */
  readonly dots: ComputedRef<readonly PlaceDot[]>;
  /** ticks the next of them */
  tickNext(): void;
  /** item that was touched last in a step whose places have a sheet of their own; each touch is a new object */
  readonly picked: Readonly<Ref<{ readonly id: string } | null>>;
  /** a place was touched on the picture: its next open check is done, or the last one is not */
  touch(place: string): void;
}

/** What is to be looked at in the step on the screen: the list beside the picture and the dots on it are one account. */
// eslint-disable-next-line max-lines-per-function -- one account: list and dots share what is looked at
export function useLooks(
  desk: RunDesk,
  step: Readonly<Ref<ProcedureStep | null>>,
  locked: Readonly<Ref<boolean>>,
  now: Readonly<Ref<number>>,
): Looks {
  const marks = computed(() => desk.state.value?.steps.find(({ id }) => id === step.value?.id)?.checks ?? {});
  const isOpen = ({ id }: CheckItem): boolean => (marks.value[id]?.mark ?? 'open') === 'open';

  const later = computed(() => {
    const procedure = desk.answer.value?.run.procedure;
    const state = desk.state.value;
    const of = step.value;
    if (!procedure || !state || !of || locked.value) return {};
    return Object.fromEntries(
      of.checks.flatMap((check) => {
        const waits = isOpen(check) ? laterThan(procedure, state, of.id, check, now.value) : null;
        return waits ? [[check.id, laterWords(waits)]] : [];
      }),
    );
  });
  const rows = computed(() => rowsOf(step.value?.checks ?? [], marks.value).filter((look) => openOf(look, marks.value).length > 0));
  const openLooks = computed(() => rows.value.filter((look) => openOf(look, marks.value).some(({ id }) => later.value[id] === undefined)));
  const left = computed(() => {
    if (openLooks.value.length > 0) return { big: String(openLooks.value.length), small: say('to look at') };
    // those that wait for a clock are still to come
    return rows.value.length > 0
      ? { big: String(rows.value.length), small: say('to look at later') }
      : { big: say('all'), small: say('looked at') };
  });

  function tickNext(): void {
    const next = openLooks.value[0];
    const of = step.value;
    if (!next || !of || locked.value) return;
    const ids = openOf(next, marks.value).map(({ id }) => id);
    if (next.together && ids.length > 1) desk.send({ type: 'checks', step: of.id, checks: ids });
    else if (ids[0]) desk.send({ type: 'check', step: of.id, check: ids[0], mark: 'done' });
  }

  /** on an inspection sheet and where parts are exchanged, places are chosen on the picture rather than ticked */
  const sheet = computed(() => {
    const service = desk.answer.value?.run.procedure.service;
    return service && !locked.value && (step.value?.kind === 'inspect' || step.value?.kind === 'swap') ? service.items : null;
  });
  const sheetDots = computed((): PlaceDot[] => {
    const own = desk.state.value?.service;
    const isDone = (id: string): boolean =>
      step.value?.kind === 'inspect' ? own?.sheet.has(id) === true : own?.swaps.some(({ item }) => item === id) === true;
    return (sheet.value ?? []).map(({ id, name }) => ({
      id: id.replace(/^plug:/, ''),
      label: name,
      state: isDone(id) ? 'done' : id === picked.value?.id ? 'next' : 'open',
    }));
  });
  const picked = ref<{ readonly id: string } | null>(null);

  const dots = computed((): PlaceDot[] => {
    if (sheet.value) return sheetDots.value;
    const wet = desk.state.value?.leaks.filter(({ retested }) => !retested?.dry).map(({ where }) => where) ?? [];
    const places = new Map<string, CheckItem[]>();
    for (const check of step.value?.checks ?? [])
      if (check.place !== undefined) places.set(check.place, [...(places.get(check.place) ?? []), check]);
    const next = locked.value ? undefined : openLooks.value[0]?.items.find(isOpen)?.place;
    const checked = [...places].map(([id, checks]): PlaceDot => {
      const open = checks.find(isOpen);
      const state = wet.includes(id) ? 'wrong' : open === undefined ? 'done' : id === next ? 'next' : 'open';
      return { id, label: (open ?? checks.at(-1))?.text ?? '', state };
    });
    return [
      ...checked,
      ...wet.filter((id) => !places.has(id)).map((id): PlaceDot => ({ id, label: say('It leaks here'), state: 'wrong' })),
    ];
  });

  function touch(place: string): void {
    const of = step.value;
    if (!of || locked.value) return;
    if (sheet.value) {
      // a plug is touched at its port
      const item = sheet.value.find(({ id }) => id === place || id === `plug:${place}`);
      if (item) picked.value = { id: item.id };
      return;
    }
    const own = of.checks.filter((check) => check.place === place);
    const open = own.find((check) => isOpen(check) && later.value[check.id] === undefined);
    const last = own.findLast((check) => marks.value[check.id]?.mark === 'done');
    if (open) desk.send({ type: 'check', step: of.id, check: open.id, mark: 'done' });
    else if (last && !own.some(isOpen)) desk.send({ type: 'check', step: of.id, check: last.id, mark: 'open' });
  }
  return { openLooks, left, later, dots, picked, tickNext, touch };
}
