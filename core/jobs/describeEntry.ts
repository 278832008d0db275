import type { Procedure } from '../commissioning/procedure.js';
import { CLARITY_WORDS, RINSE_WORDS } from '../flushing/defaults.js';
import { CAUSES, GRADE_WORDS, gradeItem } from '../inspection/grade.js';
import { nameIn } from '../catalogue/names.js';
import { formatMl } from '../units/display.js';
import { USE_LIMITS, type ServiceEntry, type SwapAction } from './entries.js';
import { JOB_KINDS } from './kinds.js';

const SWAP_WORDS: Readonly<Record<SwapAction, string>> = {
  renewed: 'Seal renewed',
  replaced: 'Replaced',
  removed: 'Taken out',
  fitted: 'Fitted',
};

/** One entry of a service as a sentence, readable years later. */
export function describeServiceEntry({ service }: Procedure, entry: ServiceEntry): string {
  const items = service?.items ?? [];
  switch (entry.type) {
    case 'drained':
      return `Came out: ${formatMl(entry.volumeMl)}, by ${entry.how}`;
    case 'lost':
      return `Lost: about ${formatMl(entry.volumeMl)} (${entry.text})`;
    case 'rinse':
      return `In: ${formatMl(entry.volumeMl)} of ${RINSE_WORDS[entry.liquid]}`;
    case 'water':
      return `Water read: ${CLARITY_WORDS[entry.clarity]}${entry.ph === null ? '' : `, pH ${entry.ph.toFixed(1)}`}`;
    case 'soak':
      return entry.on ? `Cleaner in: ${entry.cleaner}, at most ${entry.mostMinutes} min` : `Cleaner out: ${entry.cleaner}`;
    case 'inspected': {
      const item = items.find(({ id }) => id === entry.item);
      const graded = gradeItem(item?.kind ?? 'other', entry.findings);
      return `Looked at ${nameIn(items, entry.item)}: ${GRADE_WORDS[graded.grade]}, ${graded.rule}${entry.findings.text ? ` (${entry.findings.text})` : ''}`;
    }
    case 'cause':
      return `Suspected cause: ${CAUSES[entry.cause]}${entry.suspect === 'coolant-lot' ? ', the coolant’s lot' : entry.item ? `, ${nameIn(items, entry.item)}` : ''}${entry.particlesStayed ? '; particles stayed inside' : ''}${entry.text ? `: ${entry.text}` : ''}`;
    case 'swapped':
      return `${SWAP_WORDS[entry.action]}: ${nameIn(items, entry.item)}, ${entry.text}${entry.bag ? `, ${entry.bag.make} lot ${entry.bag.lot}` : ''}${entry.heldMl > 0 ? `, ${formatMl(entry.heldMl)} inside it` : ''}`;
    case 'used':
      return `Used: ${entry.count} × ${entry.itemName}`;
    case 'temporary-fix':
      return `Temporary: ${entry.what}, until ${entry.awaits}, by ${entry.until} at the latest; ${entry.limits.map((limit) => USE_LIMITS[limit]).join(', ')}`;
    case 'photo':
      return `Photograph${entry.caption ? `: ${entry.caption}` : ''}`;
    case 'rescoped':
      return `Scope changed to ${JOB_KINDS[entry.kind].label}: ${entry.reason}`;
  }
}
