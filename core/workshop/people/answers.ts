import type { DrainHabits } from '../../physics/draining/defaults.js';
import type { Schools } from '../../physics/leak-testing/schools.js';
import type { ServicePolicy } from '../due-dates/due.js';
import type { Role } from './roles.js';

export interface Account {
  personId: string;
  personName: string;
  role: Role;
  workshopId: string;
  workshopName: string;
  timeZone: string;
}

/** Who is signed in, or that nobody is. */
export type SessionAnswer =
  { signedIn: true; account: Account; token: string; today: string; now: string } | { signedIn: false; setupNeeded: boolean };

/** The workshop as its lead sets it. */
export interface Shop {
  workshop: {
    name: string;
    timeZone: string;
    policy: ServicePolicy;
    schools: Schools;
    hotFromMonth: number | null;
    hotUntilMonth: number | null;
    drain: DrainHabits;
    version: number;
  };
  people: { id: string; name: string; email: string; role: Role; active: boolean }[];
  benches: { id: string; name: string }[];
}
