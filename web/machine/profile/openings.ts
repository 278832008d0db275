/** What a port that can be opened is doing. */
export type OpeningState = 'closed' | 'air' | 'drain';

/** A touch of a handle goes round: closed, open for air, open over the jug. */
export const NEXT_STATE: Readonly<Record<OpeningState, OpeningState>> = { closed: 'air', air: 'drain', drain: 'closed' };
