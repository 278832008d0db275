import { say, sayWord } from '../../../core/base/words/say.js';
import { refuse } from '../../../core/base/checking/input.js';
import { HINDERED_BYPASS } from '../../../core/edge/words/bypass.js';
import { changeOf } from '../../../core/bench/services/changeFacts.js';
import { bypassPart, cannotBypass } from '../../../core/machine/drawing/bypass.js';
import { partName, type LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { mayWant } from '../../../core/workshop/job-kinds/kinds.js';
import type { JobInput } from '../../../core/workshop/jobs/schema.js';
import type { WantedLoop } from '../../../core/workshop/jobs/answers.js';
import { and, desc, eq } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import type { Ask } from '../../base/http/context.js';
import { loopRevision } from '../../base/database/tables/loops.js';
import { demandOneCircuit } from '../../machine/loops/circuits.js';
import { addRevision, newestRevision } from '../../machine/loops/revisions.js';

type Asked = Pick<JobInput, 'kind' | 'loopId' | 'partId' | 'wanted'>;

/** The revision that a job shall make of its loop: the drawing that was named, or the loop without the part that gets its own cooler. */
export async function wantedRevision(ask: Ask, { kind, loopId, partId, wanted }: Asked): Promise<string | null> {
  if (kind === 'part-conversion' && partId !== null) return withoutPart(ask, loopId, partId);
  if (!mayWant(kind) || (kind !== 'loop-change' && (wanted ?? null) === null)) return null;
  const { scope } = ask;
  const [row] = await scope
    .select({ id: loopRevision.id, kind: loopRevision.kind, file: loopRevision.file })
    .from(loopRevision)
    .where(and(eq(loopRevision.loopId, loopId), eq(loopRevision.number, wanted ?? 0)));
  if (!row || row.kind !== 'wanted') refuse('wanted', say('is no wanted drawing of this loop'));
  demandOneCircuit(row.file);
  const { file } = await newestRevision(scope, loopId);
  if (!changeOf(file, row.file))
    refuse('wanted', say('opens no joint of the loop that is inside: save it as it is now, nothing has to be booked'));
  return row.id;
}

/** The same wish twice is one drawing. */
async function withoutPart(ask: Ask, loopId: string, partId: string): Promise<string> {
  const { scope, account, clock } = ask;
  const { file } = await newestRevision(scope, loopId);
  const hindered = cannotBypass(file, partId);
  const part = file.components.find(({ id }) => id === partId);
  if (hindered || !part) refuse('partId', sayWord(HINDERED_BYPASS[hindered ?? 'no-such-part']));
  const revision = await addRevision(scope, {
    workshopId: account.workshopId,
    loopId,
    kind: 'wanted',
    reason: say('{name} gets a cooler of its own', { name: partName(part) }),
    personId: account.personId,
    file: bypassPart(file, partId).loop,
    at: clock.now(),
  });
  return revision.id;
}

/** wanted drawings that are offered to a job */
const NEWEST_WISHES = 6;

/** Drawings that a loop shall become; what it is already, or opens no joint, is none. */
export async function wishesOf(scope: Scope, loopId: string, inside: LoopFile): Promise<WantedLoop[]> {
  const rows = await scope
    .select({ number: loopRevision.number, at: loopRevision.createdAt, reason: loopRevision.reason, file: loopRevision.file })
    .from(loopRevision)
    .where(and(eq(loopRevision.loopId, loopId), eq(loopRevision.kind, 'wanted')))
    .orderBy(desc(loopRevision.number))
    .limit(NEWEST_WISHES);
  return rows.filter(({ file }) => changeOf(inside, file)).map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** A revision by its id; null where a job wants none. */
export async function wantedFile(scope: Scope, revisionId: string | null): Promise<{ number: number; file: LoopFile } | null> {
  if (revisionId === null) return null;
  const [row] = await scope
    .select({ number: loopRevision.number, file: loopRevision.file })
    .from(loopRevision)
    .where(eq(loopRevision.id, revisionId));
  return row ?? null;
}
