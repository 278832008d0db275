import type { PlanConflict } from '../../workshop/planning/planConflicts.js';
import { say, type Messages, type MessageValues } from '../../base/words/say.js';

/** Words of what is wrong with a plan. */
const CONFLICTS: Messages<PlanConflict['why']> = {
  'unknown-or-twice': 'job {index} is unknown or planned twice',
  'no-bench': '{job} stands on no bench',
  'owner-needs-it': '{job} is here on days that its owner needs it',
  'steps-missing': '{job} has {has} of {wants} steps',
  'too-early': '{job} step {step} begins before it can',
  'other-length': '{job} step {step} has another length',
  'before-the-last': '{job} step {step} begins before the one before it ends',
  'waits-too-long': '{job} step {step} waits too long',
  nobody: '{job} step {step} has nobody at it',
  somebody: '{job} step {step} has somebody at it',
  'outside-shift': '{job} step {step} lies outside a shift',
  'lacks-skill': '{job} step {step} has somebody at it who lacks {skills}',
  'not-planned': '{count} jobs are not planned',
  'same-time': '{where}: {first} and {second} at the same time',
  'kit-short': '{held} of {count} {kit} are held at once',
};

/** @param nameOf what an id of a job, person, bench or kit is called */
export function conflictWords(conflict: PlanConflict, nameOf: (id: string) => string = (id) => id): string {
  const values = Object.entries(conflict).map(([name, value]: [string, unknown]): [string, MessageValues[string]] => {
    if (name === 'skills') return [name, (value as readonly string[]).join(', ')];
    if (['first', 'second'].includes(name) && value === null) return [name, say('what is agreed')];
    return [name, typeof value === 'string' && name !== 'why' ? nameOf(value) : (value as number)];
  });
  return say(CONFLICTS[conflict.why], Object.fromEntries(values));
}
