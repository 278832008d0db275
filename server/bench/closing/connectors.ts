import { eq } from 'drizzle-orm';
import { sheetAfterRun } from '../../../core/bench/runs/connectorsAfter.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { Scope } from '../../base/database/client.js';
import { system } from '../../base/database/tables/machines.js';
import { writeConnectors } from '../../machine/electrical/connectors.js';

/** What a run pulled, found and left off becomes part of the machine's sheet. */
export async function keepConnectorsOfRun(
  scope: Scope,
  systemId: string,
  file: LoopFile,
  procedure: Procedure,
  state: RunState,
): Promise<void> {
  const [own] = await scope
    .select({ sheet: system.electrical, version: system.electricalVersion })
    .from(system)
    .where(eq(system.id, systemId))
    .for('update');
  if (!own) return;
  const after = sheetAfterRun(own.sheet, file, procedure, state);
  if (after && JSON.stringify(after) !== JSON.stringify(own.sheet)) await writeConnectors(scope, systemId, after, own.version);
}
