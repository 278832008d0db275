import { openDatabase, openPool, withClient } from '../../base/database/client.js';
import type { Keeping } from '../backup/commands.js';
import { grow } from './grow.js';

/** `./lavacrum grow N` */
export async function growCommand({ ownerUrl, say }: Keeping, [count]: readonly string[]): Promise<void> {
  const pool = openPool(ownerUrl, () => undefined, { max: 2, patient: true });
  try {
    const { machines, fills, ms } = await grow(openDatabase(pool), Number(count), new Date());
    // the planner knows how full it is from the first question on; only the tables' owner may count them
    await withClient(ownerUrl, (client) => client.query('vacuum analyze'));
    say(`${machines} machines and ${fills} fills in ${(ms / 1000).toFixed(1)} s.`);
  } finally {
    await pool.end();
  }
}
