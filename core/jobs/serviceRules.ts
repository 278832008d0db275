import type { Refusal } from '../commissioning/rules.js';
import type { Procedure, ProcedureStep } from '../commissioning/procedure.js';
import type { RunState } from '../commissioning/state.js';
import { judgeLedger, type LedgerVerdict } from '../draining/ledger.js';
import { CLARITY_WORDS, FLUSH } from '../flushing/defaults.js';
import { asksForCause, gradeItem, type Graded } from '../inspection/grade.js';
import type { InspectItem } from '../inspection/items.js';
import { ledgerOf } from './refill.js';
import type { ServiceEntry } from './entries.js';
import type { ServiceFacts } from './serviceFacts.js';
import { runningSoak, type ServiceState } from './serviceState.js';

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** The book after a drain: against what the twin keeps inside once the planned stands are done. */
export function judgeDrain(service: ServiceFacts, state: ServiceState): LedgerVerdict {
  const drainedOnly = state.rinses.length === 0 && service.kind !== 'partial-drain';
  return judgeLedger(ledgerOf(service, state), drainedOnly && state.drains.length >= service.stands.length ? service.leftMl : null);
}

/** What the rinses still lack. The acid's own water must read neutral; without one only clarity and carry-over count. */
export function rinseMissing(service: ServiceFacts, state: ServiceState): string[] {
  const missing: string[] = [];
  const ledger = ledgerOf(service, state);
  const last = state.waters.at(-1);
  const cleaned = state.soaks.length > 0 || state.rinses.some(({ liquid }) => liquid === 'cleaner');
  if (state.rinses.length === 0) missing.push('nothing rinsed yet');
  if (service.inside !== null && ledger.shares.old > service.targetOldFraction)
    missing.push(`${percent(ledger.shares.old)} of the old liquid left, ${percent(service.targetOldFraction)} is the target`);
  if (!last) missing.push('the last water was not read');
  else if (last.clarity !== 'clear') missing.push(`the last water is ${CLARITY_WORDS[last.clarity]}`);
  if (cleaned) missing.push(...phMissing(last?.ph ?? null));
  return missing;
}

const percent = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

function phMissing(ph: number | null): string[] {
  if (ph === null) return ['pH not read: cleaner was inside'];
  return ph >= FLUSH.phFrom && ph <= FLUSH.phTo ? [] : [`pH ${ph.toFixed(1)}, neutral is ${FLUSH.phFrom} to ${FLUSH.phTo}`];
}

/** What the last look at an item says; null where nobody looked. */
function lastGrade({ sheet }: ServiceState, { id, kind }: InspectItem): Graded | null {
  const seen = sheet.get(id);
  return seen ? gradeItem(kind, seen.last) : null;
}

/** Items of the sheet whose last look says something must still happen. */
function toReplace(service: ServiceFacts, state: ServiceState): InspectItem[] {
  const done = new Set(state.swaps.map(({ item }) => item));
  return service.items.filter((item) => lastGrade(state, item)?.grade === 'replace' && !done.has(item.id));
}

/** What a step of a service still lacks. Empty for steps that are the commissioning's own. */
export function serviceMissing({ service }: Procedure, run: RunState, step: ProcedureStep): string[] {
  if (!service) return [];
  const state = run.service;
  switch (step.kind) {
    case 'drain': {
      if (state.drains.length === 0) return ['nothing came out yet'];
      const verdict = judgeDrain(service, state);
      return verdict.kind === 'more-out-than-in' ? [verdict.text] : [];
    }
    case 'rinse':
      return rinseMissing(service, state);
    case 'inspect':
      return inspectMissing(service, state);
    case 'clean':
      return cleanMissing(service, state);
    case 'swap': {
      const open = toReplace(service, state);
      return [
        ...(open.length > 0 ? [`to be replaced: ${open.map(({ name }) => name).join(', ')}`] : []),
        ...(step.id === 'mend' ? mendMissing(run) : []),
      ];
    }
    case 'repair':
      return run.leaks.length + run.spills.length === 0 ? ['no leak recorded yet: say it with “Something is wrong”'] : [];
    default:
      return [];
  }
}

function inspectMissing({ items }: ServiceFacts, state: ServiceState): string[] {
  const open = items.filter(({ id }) => !state.sheet.has(id));
  const seen = [...state.sheet.values()].map(({ first }) => first);
  return [
    ...(open.length > 0 ? [`${count(open.length, 'item', 'items')} not looked at`] : []),
    ...(asksForCause(seen) && !state.cause ? ['a suspected cause: “not known” is one too'] : []),
  ];
}

function cleanMissing({ items }: ServiceFacts, state: ServiceState): string[] {
  const soak = runningSoak(state);
  const again = items.filter((item) => lastGrade(state, item)?.grade === 'clean-again');
  const last = state.waters.at(-1);
  return [
    ...(soak ? [`${soak.cleaner} is still in`] : []),
    ...(again.length > 0 ? [`not felt smooth yet: ${again.map(({ name }) => name).join(', ')}`] : []),
    ...(state.soaks.length > 0 && !soak ? phMissing(last?.ph ?? null) : []),
  ];
}

const mendMissing = (run: RunState): string[] => {
  const open = run.leaks.filter(({ mended }) => mended === null).length;
  return open > 0 ? [`${count(open, 'leak', 'leaks')} not mended`] : [];
};

const refusal = (code: Refusal['code'], message: string): Refusal => ({ code, message });

/** Whether an entry of a service fits the run it is meant for. null: yes. */
export function refuseServiceEntry({ service }: Procedure, run: RunState, entry: ServiceEntry, nowMs: number): Refusal | null {
  if (!service) return refusal('unknown-item', 'this run commissions a loop; such an entry belongs to a service');
  const state = run.service;
  switch (entry.type) {
    case 'drained': {
      const { insideMl, sdMl } = ledgerOf(service, state);
      const most = insideMl === null ? Infinity : Math.max(0, insideMl) + MOST_OVER_SD * sdMl + MOST_OVER_ML;
      return entry.volumeMl > most
        ? refusal(
            'unsafe',
            `${Math.round(entry.volumeMl)} mL cannot come out: by the book ${Math.round(Math.max(0, insideMl ?? 0))} mL are inside`,
          )
        : null;
    }
    case 'soak': {
      const running = runningSoak(state);
      if (entry.on && running) return refusal('step-open', `${running.cleaner} is in already; take it out first`);
      return !entry.on && !running ? refusal('unknown-item', 'no cleaner is in') : null;
    }
    case 'inspected':
      return service.items.some(({ id }) => id === entry.item)
        ? null
        : refusal('unknown-item', `this loop has no part, plug or run "${entry.item}"`);
    case 'cause':
      return entry.suspect === 'part' && entry.item === null ? refusal('unknown-item', 'say which part is suspected') : null;
    case 'temporary-fix':
      return Date.parse(`${entry.until}T23:59:59Z`) < nowMs ? refusal('unsafe', 'the day of the final fix lies behind us') : null;
    case 'rescoped':
      return refusal('unsafe', 'the scope is changed with its own request, so that the steps change with it');
    default:
      return null;
  }
}

/** More than this above what the book says is a slip of the finger, not a full loop. */
const MOST_OVER_SD = 4;
const MOST_OVER_ML = 400;

/** What of a service must be looked at again soon, in words; empty when "clean" may be claimed. */
export function looseEnds(procedure: Procedure, run: RunState): string[] {
  const { service } = procedure;
  if (!service) return [];
  const skipped = run.steps
    .filter(({ id, deviation }) => deviation !== null && ['clean', 'rinse', 'inspect'].includes(id))
    .map(({ id }) => `"${procedure.steps.find((step) => step.id === id)?.title}" was passed over`);
  const over = run.service.soaks
    .filter(({ startedAt, endedAt, mostMinutes }) => endedAt !== null && Date.parse(endedAt) - Date.parse(startedAt) > mostMinutes * 60_000)
    .map(({ cleaner }) => `${cleaner} stayed in longer than its sheet allows`);
  return [...(run.service.cause?.particlesStayed ? ['particles stayed inside'] : []), ...skipped, ...over];
}

/** Every item that was looked at, with its last grade. */
export const gradedSheet = ({ service }: Procedure, state: ServiceState): { name: string; words: string; grade: string; text: string }[] =>
  (service?.items ?? []).flatMap((item) => {
    const graded = lastGrade(state, item);
    return graded ? [{ name: item.name, words: graded.rule, grade: graded.grade, text: state.sheet.get(item.id)?.last.text ?? '' }] : [];
  });
