import type { SaidKind } from './said.js';

/** Kinds that the desk answers alone; the others may be answered by whoever looks after the machine. */
export const DESK_ANSWERS: readonly SaidKind[] = ['agreed', 'declined', 'slot', 'days', 'put-off'];
