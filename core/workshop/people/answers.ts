import type { HeatLimits } from '../../physics/condition/limits.js';
import type { DrainHabits } from '../../physics/draining/defaults.js';
import type { WorkshopSchools } from '../jobs/usualSchools.js';
import type { ServicePolicy } from '../due-dates/due.js';
import type { Rates } from '../prices/rates.js';
import type { Reading } from '../../base/units/reading.js';
import type { DoorSettings } from '../people/doorSettings.js';
import type { OwnReading } from './readingSchema.js';
import type { Contact } from './contact.js';
import type { Device, Role } from './roles.js';

export interface Account {
  personId: string;
  personName: string;
  role: Role;
  workshopId: string;
  workshopName: string;
  timeZone: string;
  contact: Contact;
  doorOpen: boolean;
  /** the workshop's way of reading numbers, dates and words, with one's own over it */
  reading: Reading;
  ownReading: OwnReading;
  workshopReading: Reading;
  /** somebody else chose the password: one's own is asked for */
  firstPassword: boolean;
}

/** A person of the workshop. */
export interface PersonRow {
  id: string;
  name: string;
  email: string;
  role: Role;
  active: boolean;
  version: number;
}

/** Where somebody is signed in. */
export interface SignedInRow {
  /** says nothing of the session itself */
  id: string;
  personId: string;
  person: string;
  /** null: it did not say */
  device: Device | null;
  /** ISO instants; null: begun under an older program */
  since: string | null;
  lastUsed: string;
  /** the session that asks */
  own: boolean;
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
    schools: WorkshopSchools;
    hotFromMonth: number | null;
    hotUntilMonth: number | null;
    drain: DrainHabits;
    rates: Rates;
    contact: Contact;
    reading: Reading;
    door: DoorSettings;
    heatLimits: HeatLimits;
    version: number;
  };
  people: PersonRow[];
  benches: { id: string; name: string }[];
}
