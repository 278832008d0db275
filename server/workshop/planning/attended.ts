import type { run } from '../../base/database/tables/runs.js';

/** min that somebody was at a run: from its start to its sign-off without the pump's own hours; null: it is not over, or makes no sense. */
export function attendedMinutesOf({
  procedure,
  startedAt,
  signedOffAt,
}: Pick<typeof run.$inferSelect, 'procedure' | 'startedAt' | 'signedOffAt'>): number | null {
  if (!signedOffAt) return null;
  const minutes = (signedOffAt.getTime() - startedAt.getTime()) / 60_000 - (procedure.wetSeconds ?? 0) / 60;
  return minutes > 0 ? minutes : null;
}
