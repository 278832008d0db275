import { sql } from 'drizzle-orm';
import type { RequestHandler } from 'express';
import { isDegraded, type Parts } from '../../../core/base/health/parts.js';
import type { ServersAnswer } from '../../../core/base/health/servers.js';
import type { Routes } from '../../base/http/routes.js';
import type { App } from '../../base/http/context.js';

/** How the parts do; asked at every look, so each answers at once. */
export type PartsOf = () => Parts;
export const allWell: PartsOf = () => ({ queue: 'ok', push: 'ok', instruments: 'ok', disk: 'ok', backup: 'ok', servers: 'ok' });

/** Whether the schema is in place; until then the app answers that the database is away, with the reason. */
export interface Readiness {
  ready: boolean;
  reason: string;
}

export const healthRoute =
  (app: App, readiness: Readiness, partsOf: PartsOf): RequestHandler =>
  async (_request, response) => {
    response.set('cache-control', 'no-store');
    const reason = readiness.ready ? await databaseProblem(app) : readiness.reason;
    if (reason === null) {
      const parts = partsOf();
      response.json({ status: isDegraded(parts) ? 'degraded' : 'ok', database: 'ok', parts, version: app.version });
    } else response.status(503).json({ status: 'unavailable', database: reason, version: app.version });
  };

/** Names of machines are the lead's business. */
export function serverRoutes(routes: Routes): void {
  routes.get<ServersAnswer>('/servers', async ({ account, servers }) => {
    const all = servers();
    return account.role === 'lead' ? all : { here: '', servers: [] };
  });
}

/** null when it answers. Only a code leaves the server, never an address or a password. */
async function databaseProblem(app: App): Promise<string | null> {
  try {
    await app.database.execute(sql`select 1`);
    return null;
  } catch (error) {
    return describeAway(error);
  }
}

export function describeAway(error: unknown): string {
  for (let current = error; current instanceof Error; current = current.cause) {
    const code = (current as Error & { code?: unknown }).code;
    if (typeof code === 'string')
      return code === 'ECONNREFUSED' ? 'the database refuses connections (ECONNREFUSED)' : `the database does not answer (${code})`;
  }
  return 'the database does not answer';
}
