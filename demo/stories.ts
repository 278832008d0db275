/** How the demo's machines stand today: what the last fill's age makes of each is left to the due dates. */
export const STORIES = [
  ...Array<'overdue'>(7).fill('overdue'),
  ...Array<'soon'>(7).fill('soon'),
  ...Array<'settling'>(4).fill('settling'),
  ...Array<'fine'>(22).fill('fine'),
  ...Array<'retired'>(3).fill('retired'),
  ...Array<'planned'>(4).fill('planned'),
  'on-bench',
  'on-bench',
  'waiting',
] as const;
export type Story = (typeof STORIES)[number];
