import { eq } from 'drizzle-orm';
import { say } from '../../../core/base/words/say.js';
import { refuse } from '../../../core/base/checking/input.js';
import type { SheetInput } from '../../../core/machine/electrical/schema.js';
import type { ElectricalSheet, OwnConnectors } from '../../../core/machine/electrical/sheet.js';
import type { ConnectorsAnswer } from '../../../core/workshop/machines/answers.js';
import type { Scope } from '../../base/database/client.js';
import { loop } from '../../base/database/tables/loops.js';
import { system } from '../../base/database/tables/machines.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound, stale } from '../../base/http/errors.js';
import { drawnLoops } from '../drawing/drawnLoops.js';

/** What hangs on what in one machine. */
export async function connectorsPage({ scope, request }: Pick<Ask, 'scope' | 'request'>): Promise<ConnectorsAnswer> {
  const systemId = idFrom(request, 'id', 'system');
  const [own] = await scope
    .select({ name: system.name, sheet: system.electrical, version: system.electricalVersion })
    .from(system)
    .where(eq(system.id, systemId));
  if (!own) throw notFound('system');
  const loops = await drawnLoops(scope, systemId);
  return {
    systemId,
    systemName: own.name,
    sheet: own.sheet,
    version: own.version,
    loops: loops.map(({ id, name, file }) => ({ id, name, file })),
  };
}

/** Writes the whole sheet down. @throws stale where somebody, or a run, wrote it down since it was read */
export async function keepConnectors(ask: Ask, { sheet, version }: SheetInput): Promise<ConnectorsAnswer> {
  const { scope, request } = ask;
  // nobody else, and no run, writes it between the look and the save
  await scope
    .select({ id: system.id })
    .from(system)
    .where(eq(system.id, idFrom(request, 'id', 'system')))
    .for('update');
  const now = await connectorsPage(ask);
  if (now.version !== version) throw stale('sheet of connectors', sheet, now);
  for (const { name, of } of sheet.connectors) {
    if (of === null) continue;
    const file = now.loops.find(({ id }) => id === of.loopId)?.file;
    if (!file?.components.some(({ id }) => id === of.part))
      refuse('sheet', say('"{name}" belongs to "{part}", which no loop of this machine has', { name, part: of.part }));
  }
  await writeConnectors(scope, now.systemId, sheet, version);
  return { ...now, sheet, version: version + 1 };
}

export const writeConnectors = (scope: Scope, systemId: string, electrical: ElectricalSheet, version: number) =>
  scope
    .update(system)
    .set({ electrical, electricalVersion: version + 1 })
    .where(eq(system.id, systemId));

/** The sheet of the machine that a loop is in, for a procedure; null: nobody wrote it down. */
export async function connectorsFor(scope: Scope, loopId: string): Promise<OwnConnectors | null> {
  const [own] = await scope
    .select({ sheet: system.electrical })
    .from(system)
    .innerJoin(loop, eq(loop.systemId, system.id))
    .where(eq(loop.id, loopId));
  return own?.sheet ? { sheet: own.sheet, loopId } : null;
}
