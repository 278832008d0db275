import { asc, eq } from 'drizzle-orm';
import { BOARD, SUPPLY, type Connector, type ElectricalSheet } from '../core/machine/electrical/sheet.js';
import { usualSheet } from '../core/machine/electrical/usual.js';
import type { Scope } from '../server/base/database/client.js';
import { system } from '../server/base/database/tables/machines.js';
import { drawnLoops } from '../server/machine/drawing/drawnLoops.js';
import { writeConnectors } from '../server/machine/electrical/connectors.js';

/** Machines whose connectors somebody wrote down, the first ones of the book. */
const WRITTEN_DOWN = 6;
const SUPPLIES = ['Tern 850', 'Kestrel 750', 'Tern 1000'];

/** As usual, but for what each third machine has of its own: a hub under lights and fans, a pump on the board, a lead from another supply. */
function sheetOf(index: number, usual: ElectricalSheet): ElectricalSheet {
  const own = (each: Connector): Connector => {
    if (index % 3 === 1 && each.kind === 'pump') return { ...each, from: BOARD };
    if (index % 3 === 2 && each.kind === 'card-power') return { ...each, cable: 'foreign' };
    return index % 3 === 0 && each.kind === 'fans' ? { ...each, from: 'hub' } : each;
  };
  const connectors = usual.connectors.map(own);
  const plain = { from: SUPPLY, openWhy: null, cable: 'own', of: null, fans: null } as const;
  const more: Connector[] =
    index % 3 === 0
      ? [
          { ...plain, id: 'hub', kind: 'hub', name: 'Hub behind the tray' },
          { ...plain, id: 'glow', kind: 'lights', name: 'Light strip, roof', from: 'hub' },
          { ...plain, id: 'reader', kind: 'sensor', name: 'Coolant thermometer', from: BOARD, openWhy: 'lead too short, owner brings one' },
        ]
      : [];
  return { supply: SUPPLIES[index % SUPPLIES.length] as string, connectors: [...connectors, ...more] };
}

export async function giveConnectors(scope: Scope): Promise<void> {
  const systems = await scope
    .select({ id: system.id, version: system.electricalVersion })
    .from(system)
    .where(eq(system.state, 'in-service'))
    .orderBy(asc(system.createdAt), asc(system.id))
    .limit(WRITTEN_DOWN);
  for (const [index, { id, version }] of systems.entries()) {
    const loops = await drawnLoops(scope, id);
    if (loops.length > 0) await writeConnectors(scope, id, sheetOf(index, usualSheet(loops)), version);
  }
}
