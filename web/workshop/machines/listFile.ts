import type { HistoryEntry, SystemLine } from '@core/workshop/machines/answers.js';
import { reasonWords } from '@core/edge/words/dates.js';
import { downloadTable, fileName } from '../../base/files/download.js';

/** The list as rows: what is shown, in its order. Days as YYYY-MM-DD, so that any table program sorts them. */
export const listRows = (lines: readonly SystemLine[]): Record<string, string>[] =>
  lines.map((line) => ({
    system: line.name,
    owner: line.ownerName,
    phone: line.ownerPhone ?? '',
    state: line.state,
    coolant: line.coolant?.name ?? '',
    filled_on: line.filledOn ?? '',
    next_due_on: line.nextDueOn ?? '',
    why: line.nextReason ? reasonWords(line.nextReason) : '',
  }));

export const downloadList = (lines: readonly SystemLine[], today: string): Promise<void> =>
  downloadTable(listRows(lines), `systems-${today}`);

/** What happened to one machine, newest first. Instants are UTC. */
export const historyRows = (entries: readonly HistoryEntry[]): Record<string, string>[] =>
  entries.map(({ at, kind, title, text, by }) => ({ at, kind, title, text, by: by ?? '' }));

export const downloadHistory = (entries: readonly HistoryEntry[], system: string): Promise<void> =>
  downloadTable(historyRows(entries), fileName(`history-${system}`, 'history'));
