import type { SystemLine } from './types.js';
import { downloadText } from '../files/download.js';

/** The list as rows: what is shown, in its order. Days as YYYY-MM-DD, so that any table program sorts them. */
export const listRows = (lines: readonly SystemLine[]): Record<string, string>[] =>
  lines.map((line) => ({
    system: line.name,
    owner: line.customerName,
    phone: line.customerPhone ?? '',
    state: line.state,
    coolant: line.coolant?.name ?? '',
    filled_on: line.filledOn ?? '',
    next_due_on: line.nextDueOn ?? '',
    why: line.nextReason ?? '',
  }));

/** Cells that a table program would take for a formula are quoted as text. */
export async function downloadList(lines: readonly SystemLine[], today: string): Promise<void> {
  const { default: papa } = await import('papaparse');
  downloadText(`${papa.unparse(listRows(lines), { escapeFormulae: true })}\n`, `systems-${today}.csv`, 'text/csv');
}
