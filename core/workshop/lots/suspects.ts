/** What a cause may lie in, so that other machines that hold the same are found. */
export const SUSPECTS = ['none', 'coolant-lot', 'part'] as const;
export type Suspect = (typeof SUSPECTS)[number];
