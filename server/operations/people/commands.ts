import { randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { isTimeZone } from '../../../core/base/units/calendar.js';
import { person } from '../../base/database/tables/people.js';
import { inWorkshop, openDatabase, openPool, type Database } from '../../base/database/client.js';
import { changeKey } from '../../base/servers/keys.js';
import { hashPassword } from '../../workshop/people/password.js';
import { setPassword } from '../../workshop/people/people.js';
import { createWorkshop } from '../../workshop/people/workshop.js';
import type { Keeping } from '../backup/commands.js';
import { LaunchProblem } from '../cluster/processes.js';

/** Who stands at the machine itself may let somebody in: a lead who forgot, a second workshop on the same server. */

/** letters that nobody mistakes for each other when they are read out */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const drawnPassword = (): string =>
  Array.from(randomBytes(16), (byte, index) => `${index > 0 && index % 4 === 0 ? '-' : ''}${LETTERS[byte % LETTERS.length]}`).join('');

async function withDatabase<T>({ ownerUrl }: Keeping, work: (database: Database) => Promise<T>): Promise<T> {
  const pool = openPool(ownerUrl, () => undefined, { max: 2, patient: true });
  try {
    return await work(openDatabase(pool));
  } finally {
    await pool.end();
  }
}

/** `./lavacrum password <e-mail>`: a new first password, and every device of that person is signed out. */
export const passwordCommand = (place: Keeping, [email]: readonly string[]): Promise<void> =>
  withDatabase(place, async (database) => {
    if (!email) throw new LaunchProblem('say whose: ./lavacrum password <e-mail>');
    const [found] = await database
      .select({ id: person.id, workshopId: person.workshopId, active: person.active })
      .from(person)
      .where(eq(person.email, email.trim().toLowerCase()));
    if (!found) throw new LaunchProblem(`nobody here has the address ${email}`);
    const password = drawnPassword();
    const { id: personId, workshopId } = found;
    await inWorkshop(database, workshopId, (scope) => setPassword(scope, { database, workshopId, personId, password, isFirst: true }));
    place.say(`New first password for ${email}:  ${password}\nIt is to be changed at the next sign-in.`);
    if (!found.active) place.say('This person is not let in at the moment; a lead can change that under Workshop.');
  });

/** `./lavacrum workshop <name> <lead's name> <e-mail> [time zone]`: another workshop on this server, seen by its own people only. */
export const workshopCommand = (place: Keeping, [workshopName, personName, email, timeZone = 'UTC']: readonly string[]): Promise<void> =>
  withDatabase(place, async (database) => {
    if (!workshopName || !personName || !email?.includes('@'))
      throw new LaunchProblem('say which: ./lavacrum workshop "<name>" "<lead’s name>" <e-mail> [time zone]');
    if (!isTimeZone(timeZone)) throw new LaunchProblem(`${timeZone} is no time zone; one is Europe/Lisbon`);
    const address = email.trim().toLowerCase();
    const [taken] = await database.select({ id: person.id }).from(person).where(eq(person.email, address));
    if (taken) throw new LaunchProblem(`${address} has an account on this server already; an address signs in to one workshop`);
    const password = drawnPassword();
    const passwordHash = await hashPassword(password);
    await database.transaction((scope) =>
      createWorkshop(scope, { workshopName, personName, email: address, timeZone, passwordHash, firstPassword: true }),
    );
    place.say(`${workshopName} is there. Its lead signs in as ${address} with  ${password}\nIt is to be changed at the first sign-in.`);
  });

/** `./lavacrum key [--leaked]`: the servers sign with a new key; after a leak the old ones count no more, and everybody signs in anew. */
export const keyCommand = (place: Keeping, words: readonly string[]): Promise<void> =>
  withDatabase(place, async (database) => {
    const leaked = words.includes('--leaked');
    if (words.some((word) => word !== '--leaked')) throw new LaunchProblem('say ./lavacrum key, or ./lavacrum key --leaked');
    await changeKey(database, leaked);
    place.say(
      leaked
        ? 'A new key signs; the old ones count no more. Everybody signs in anew, on every server within seconds.'
        : 'A new key signs within a minute; nobody notices. The old ones are recognised as long as what they signed counts.',
    );
    if (process.env.LAVACRUM_SECRET) place.say('LAVACRUM_SECRET is set here: servers that have it go by that setting, not by this key.');
  });
