/** Dialogs of a run: what can be said at any time. */
export type RunDialog =
  | 'note'
  | 'missed'
  | 'deviation'
  | 'trouble'
  | 'override'
  | 'rescope'
  | 'stays-open'
  | 'exchange'
  | 'bypass'
  | 'coolant-read'
  | 'colour'
  | 'wait'
  | 'leave';
