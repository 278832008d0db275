import { say } from '../../../core/base/words/say.js';
import { and, eq } from 'drizzle-orm';
import type { Request } from 'express';
import { person } from '../../base/database/tables/people.js';
import { inWorkshop, type Database } from '../../base/database/client.js';
import { DomainError } from '../../base/http/errors.js';

const LOOPBACK = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/;

/**
 * The demo's password is published with the program: it opens the door on this machine only, and only while nobody else leads the
 * workshop.
 */
export async function demandOwnDoor(database: Database, request: Request, workshopId: string): Promise<void> {
  if (!LOOPBACK.test(request.ip ?? ''))
    throw new DomainError(
      'forbidden',
      say('The demo’s account is published: it signs in on the machine itself only. Make the workshop’s own account first.'),
    );
  const [own] = await inWorkshop(database, workshopId, (scope) =>
    scope
      .select({ id: person.id })
      .from(person)
      .where(and(eq(person.role, 'lead'), eq(person.active, true), eq(person.isDemo, false)))
      .limit(1),
  );
  if (own) throw new DomainError('forbidden', say('The demo’s account is closed: this workshop has a lead of its own.'));
}
