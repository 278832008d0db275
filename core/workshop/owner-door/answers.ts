import type { Reading } from '../../base/units/reading.js';
import type { BookedKind } from '../job-kinds/kinds.js';
import type { Contact } from '../people/contact.js';
import type { Priced } from '../prices/priced.js';
import type { StoreUnit } from '../store/schema.js';
import type { OwnerLinkRow } from './link.js';
import type { Said } from './said.js';
import type { DoorAct } from '../people/doorSettings.js';
import type { ReadyWhen, Stands } from './stands.js';

/** An estimate as an owner reads it: what is done, with what, at which price. Nothing of the store stands in it. */
export interface DoorEstimate {
  /** counts up when it changes: an agreement is to one of them */
  readonly number: number;
  readonly kind: BookedKind;
  /** why it is asked anew; empty: it is the first */
  readonly found: string;
  readonly hours: number;
  readonly coolantMl: number;
  readonly parts: readonly { readonly what: string; readonly amount: number; readonly unit: StoreUnit }[];
  readonly partsText: string;
  readonly priceText: string;
  /** null: the workshop shows no prices here, or reckons none */
  readonly priced: Priced | null;
}

/** What an owner sent, and what became of it. */
export interface DoorSaid {
  readonly at: string;
  readonly said: Said;
  /** null: nobody read it yet */
  readonly answer: { readonly taken: boolean; readonly words: string; readonly at: string } | null;
}

/** Everything that one link shows. */
export interface DoorPage {
  readonly workshop: { readonly name: string; readonly contact: Omit<Contact, 'publicAddress'>; readonly timeZone: string };
  /** how this owner reads */
  readonly reading: Reading;
  readonly owner: string;
  readonly machine: string;
  readonly now: string;
  readonly today: string;
  readonly stands: Stands;
  readonly ready: ReadyWhen | null;
  readonly job: {
    readonly kind: BookedKind;
    readonly estimate: DoorEstimate;
    /** to this estimate; `byOwner` at this door */
    readonly agreed: { readonly at: string; readonly name: string | null } | null;
    /** this estimate was declined here, and nobody changed it since */
    readonly declinedAt: string | null;
    /** an earlier one was agreed to: it grew since */
    readonly wasAgreed: boolean;
  } | null;
  readonly slots: {
    readonly agreed: { readonly from: string; readonly to: string } | null;
    readonly offered: readonly { readonly from: string; readonly to: string }[];
    /** chosen here and not answered yet */
    readonly chosen: string | null;
  };
  /** the coolant’s date, while nothing is booked for it */
  readonly due: { readonly on: string; readonly putOff: number } | null;
  /** days in which the level is looked at; null: nobody waits for it */
  readonly settle: { readonly from: string | null; readonly to: string; readonly sent: boolean } | null;
  /** papers to keep, the newest first */
  readonly reports: readonly { readonly number: number; readonly at: string; readonly kind: string }[];
  readonly said: readonly DoorSaid[];
  readonly may: readonly DoorAct[];
}

/** What waits for an owner, as the desk sees it, and since when. */
export interface WaitsForOwner {
  readonly what: 'estimate' | 'larger-scope' | 'slots' | 'answer' | 'level';
  readonly systemId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly phone: string | null;
  readonly jobId: string | null;
  /** an instant or a day */
  readonly since: string;
}

/** What an owner sent, as the desk reads it. */
export interface FromOwner {
  readonly id: string;
  readonly at: string;
  readonly said: Said;
  readonly systemId: string;
  readonly systemName: string;
  readonly ownerName: string;
  readonly phone: string | null;
  readonly jobId: string | null;
  /** of the picture or file that came with it */
  readonly file: { readonly id: string; readonly mediaType: string } | null;
}

/** Owners on the desk’s page: what they sent, and what waits for them. */
export interface OwnersNow {
  readonly sent: readonly FromOwner[];
  readonly waiting: readonly WaitsForOwner[];
}

export interface LinksAnswer {
  readonly links: readonly OwnerLinkRow[];
}
/** Shown once: only its hash is kept. */
export interface NewLinkAnswer extends LinksAnswer {
  readonly address: string;
}
