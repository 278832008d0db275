import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import type { Said } from '../core/workshop/owner-door/said.js';
import type { Scope } from '../server/base/database/client.js';
import type { Account } from '../server/base/http/context.js';
import { system } from '../server/base/database/tables/machines.js';
import { doorEntry, doorFile, ownerLink } from '../server/base/database/tables/owner-door.js';
import { hashOf, newSecret } from '../server/workshop/owner-links/secret.js';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** What owners sent overnight, and nobody has read yet: a line, and the level of a machine in its first days. */
const SENT: readonly { readonly machine: string; readonly said: Said; readonly hoursAgo: number; readonly sunkMm?: number }[] = [
  { machine: 'Mosaic desk', said: { kind: 'photo', text: 'cold, since last night' }, hoursAgo: 2, sunkMm: 4 },
  {
    machine: 'Slate tower',
    said: { kind: 'line', text: 'It hums a little when it starts in the morning. Is that the pump?' },
    hoursAgo: 11,
  },
];

/** A reservoir as a telephone sees it: 60 mm wide, its level so far below the mark. */
function levelPicture(sunkMm: number): Promise<Buffer> {
  const level = 392 + sunkMm * 5;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="1100"><rect width="900" height="1100" fill="#3b4340"/><rect x="300" y="90" width="300" height="930" rx="26" fill="#dfe6e3"/><rect x="306" y="${level}" width="288" height="${1010 - level}" rx="18" fill="#7fb2c4"/><rect x="300" y="390" width="300" height="5" fill="#16201e"/></svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 82 }).toBuffer();
}

export async function knockAtDoor(scope: Scope, { workshopId }: Account, now: Date): Promise<void> {
  for (const { machine, said, hoursAgo, sunkMm } of SENT) {
    const [own] = await scope.select({ id: system.id }).from(system).where(eq(system.name, machine)).limit(1);
    if (!own) continue;
    const at = new Date(now.getTime() - hoursAgo * HOUR_MS);
    const [link] = await scope
      .insert(ownerLink)
      .values({
        workshopId,
        systemId: own.id,
        secretHash: hashOf(newSecret()),
        expiresAt: new Date(now.getTime() + 100 * DAY_MS),
        seenAt: at,
        createdAt: new Date(at.getTime() - 6 * DAY_MS),
      })
      .returning({ id: ownerLink.id });
    const [entry] = await scope
      .insert(doorEntry)
      .values({ workshopId, linkId: (link as { id: string }).id, systemId: own.id, said, createdAt: at })
      .returning({ id: doorEntry.id });
    if (sunkMm !== undefined)
      await scope.insert(doorFile).values({
        workshopId,
        entryId: (entry as { id: string }).id,
        mediaType: 'image/jpeg',
        content: await levelPicture(sunkMm),
        createdAt: at,
      });
  }
}
