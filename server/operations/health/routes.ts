import { sql } from 'drizzle-orm';
import type { RequestHandler } from 'express';
import type { App } from '../../base/http/context.js';

/** Whether the schema is in place; until then the app answers that the database is away, with the reason. */
export interface Readiness {
  ready: boolean;
  reason: string;
}

export const healthRoute =
  (app: App, readiness: Readiness): RequestHandler =>
  async (_request, response) => {
    response.set('cache-control', 'no-store');
    const reason = readiness.ready ? await databaseProblem(app) : readiness.reason;
    if (reason === null) response.json({ status: 'ok', database: 'ok', version: app.version });
    else response.status(503).json({ status: 'unavailable', database: reason, version: app.version });
  };

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
