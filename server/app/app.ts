import { say } from '../../core/base/words/say.js';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import express, { Router, type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import type pg from 'pg';
import type { Logger } from 'pino';
import type { ServersAnswer } from '../../core/base/health/servers.js';
import { boundShape, boundText } from '../../core/base/checking/bounds.js';
import { accountRoutes, openRoutes } from '../workshop/people/routes.js';
import { PasswordLinks } from '../workshop/people/passwordLink.js';
import { KnownDevices, SIGN_IN_LIMIT, type SignInLimit } from '../workshop/people/signInLimits.js';
import { sessions } from '../workshop/people/session.js';
import { closingRoutes } from '../bench/closing/routes.js';
import { waitingRoutes } from '../bench/waiting/routes.js';
import { commissioningRoutes } from '../bench/commissioning/routes.js';
import { runRoutes } from '../bench/runs/routes.js';
import { serviceRoutes } from '../bench/services/routes.js';
import { coolantRoutes } from '../workshop/coolants/routes.js';
import { catalogueRoutes } from '../machine/catalogue/routes.js';
import { drawingRoutes } from '../machine/drawing/routes.js';
import { openDatabase } from '../base/database/client.js';
import { dueRoutes } from '../workshop/due-dates/routes.js';
import { allWell, healthRoute, serverRoutes, type PartsOf, type Readiness } from '../operations/health/routes.js';
import { falloutRoutes } from '../workshop/fallout/routes.js';
import { fileRoutes } from '../workshop/files/routes.js';
import { callRoutes } from '../workshop/calls/routes.js';
import { firstWeekRoutes } from '../workshop/first-week/routes.js';
import { priceRoutes } from '../workshop/prices/routes.js';
import { importRoutes } from '../workshop/importing/routes.js';
import { instrumentRoutes } from '../bench/instruments/routes.js';
import { learnedLivesRoutes } from '../workshop/learned-lives/routes.js';
import { markRoutes } from '../workshop/marks/routes.js';
import { lotRoutes } from '../workshop/lots/routes.js';
import { logRoutes } from '../workshop/logs/routes.js';
import { usageRoutes } from '../workshop/usage/routes.js';
import { jobRoutes } from '../workshop/jobs/routes.js';
import { PHOTO } from '../workshop/photos/reencode.js';
import { paperRoutes } from '../workshop/papers/routes.js';
import { photoRoutes } from '../workshop/photos/routes.js';
import { planRoutes } from '../workshop/planning/routes.js';
import { calendarRoutes, openCalendar } from '../workshop/calendar/routes.js';
import { ownerDoorRoutes } from '../workshop/owner-door/insideRoutes.js';
import { ownersDoor } from '../workshop/owner-door/routes.js';
import { messageRoutes } from '../workshop/messages/routes.js';
import { searchRoutes } from '../workshop/search/routes.js';
import { leakFindingRoutes } from '../bench/leak-finding/routes.js';
import { learningRoutes } from '../machine/learning/routes.js';
import { electricalRoutes } from '../machine/electrical/routes.js';
import { fitRoutes } from '../machine/fit/routes.js';
import { layoutRoutes } from '../machine/layouts/routes.js';
import { loopRoutes } from '../machine/loops/routes.js';
import { courseRoutes } from '../bench/course/routes.js';
import { practiceRoutes } from '../bench/practice/routes.js';
import { storeRoutes } from '../workshop/store/routes.js';
import { systemRoutes } from '../workshop/machines/routes.js';
import { todayRoutes } from '../workshop/today/routes.js';
import { wasteRoutes } from '../workshop/waste/routes.js';
import type { Clock } from '../base/http/clock.js';
import { paperPdf, type DrawPaper } from '../base/pdf/paperPdf.js';
import type { PushHub } from '../base/push/hub.js';
import type { Secrets } from '../base/servers/secrets.js';
import { runScoped, type App, type Instruments, type SendLetter } from '../base/http/context.js';
import { answerOf, databaseErrorOf, DomainError } from '../base/http/errors.js';
import { fingerprints } from '../base/http/idempotency.js';
import { routesOn } from '../base/http/routes.js';
import { csrfGuard, NONCE_MARK, securityHeaders, styleNonce } from '../base/http/security.js';

export interface ServerParts {
  readonly pool: pg.Pool;
  readonly clock: Clock;
  readonly log: Logger;
  readonly version: string;
  /** what signs what browsers keep */
  readonly secrets: Secrets;
  readonly readiness: Readiness;
  /** folder of the built web application, or null to serve the API alone */
  readonly webFolder: string | null;
  readonly signInLimit?: SignInLimit;
  /** true behind a proxy that speaks TLS: cookies are then sent over TLS alone */
  readonly behindProxy?: boolean;
  readonly push: PushHub;
  readonly instruments: Instruments;
  readonly sendLetter: SendLetter;
  /** where this server is reached on its own machine, "http://localhost:4180" */
  readonly ownOrigin: string;
  /** this server and the others on its database; left out: it is alone */
  readonly servers?: () => ServersAnswer;
  /** how the parts beside the database do; left out: well */
  readonly partsOf?: PartsOf;
  /** draws papers in a thread of its own; left out: where it is asked */
  readonly drawPaper?: DrawPaper;
  /** bytes of photographs of one workshop; left out: the usual */
  readonly photoQuotaBytes?: number;
}

/** A photograph is the largest that most requests carry, a paper at its own address; a stranger sends a name and a password. */
const BODY_LIMIT = { paper: '7mb', signedIn: '2mb', stranger: '16kb' } as const;

/** Wires the application. Order matters: health before anything that needs the database. */
export function createServer(parts: ServerParts): Express {
  const app: App = {
    database: openDatabase(parts.pool),
    clock: parts.clock,
    log: parts.log,
    version: parts.version,
    instruments: parts.instruments,
    sendLetter: parts.sendLetter,
    servers: parts.servers ?? (() => ({ here: parts.ownOrigin, servers: [] })),
    photoQuotaBytes: parts.photoQuotaBytes ?? PHOTO.quotaBytes,
    ownOrigin: parts.ownOrigin,
    drawPaper: parts.drawPaper ?? paperPdf,
  };
  const server = express();
  server.disable('x-powered-by');
  if (parts.behindProxy) server.set('trust proxy', 1);
  server.use(securityHeaders(parts.behindProxy ?? false));
  server.get('/api/health', healthRoute(app, parts.readiness, parts.partsOf ?? allWell));
  server.use('/api', api(app, parts));
  if (parts.webFolder !== null) serveWeb(server, parts.webFolder);
  server.use(errorHandler(parts.log));
  return server;
}

function api(app: App, parts: ServerParts): Router {
  const router = Router();
  router.use((_request, response, next) => {
    response.set('cache-control', 'no-store');
    if (!parts.readiness.ready) throw new DomainError('database-away', say('Not ready: {reason}.', { reason: parts.readiness.reason }));
    next();
  });
  // before any session: owners have none, and get no cookie
  router.use('/door', ownersDoor(app));
  const overTls = parts.behindProxy ?? false;
  router.use(sessions({ pool: parts.pool, secrets: parts.secrets, overTls }));
  router.use(requireJson, readBody, requireBounds);
  router.use(csrfGuard);
  openCalendar(router, app);
  openRoutes(router, app, {
    limit: parts.signInLimit ?? SIGN_IN_LIMIT,
    devices: new KnownDevices(parts.secrets, overTls),
    links: new PasswordLinks(parts.secrets, parts.ownOrigin),
    overTls,
    onSignOut: (sessionId) => parts.push.endSession(sessionId),
  });
  router.get('/stream', async (request, response) => {
    const { workshopId, personId } = await runScoped(app, request, async (ask) => ask.account);
    parts.push.watch({ workshopId, personId, sessionId: request.sessionID }, response);
  });
  const routes = routesOn(router, app, fingerprints(parts.secrets));
  accountRoutes(routes);
  coolantRoutes(routes);
  catalogueRoutes(routes);
  drawingRoutes(routes);
  systemRoutes(routes);
  loopRoutes(routes);
  electricalRoutes(routes);
  layoutRoutes(routes);
  learningRoutes(routes);
  leakFindingRoutes(routes);
  runRoutes(routes);
  commissioningRoutes(routes);
  serviceRoutes(routes);
  closingRoutes(routes);
  waitingRoutes(routes);
  jobRoutes(routes);
  usageRoutes(routes);
  logRoutes(routes);
  lotRoutes(routes);
  markRoutes(routes);
  learnedLivesRoutes(routes);
  storeRoutes(routes);
  planRoutes(routes);
  messageRoutes(routes);
  ownerDoorRoutes(routes, router, app);
  searchRoutes(routes);
  calendarRoutes(routes);
  wasteRoutes(routes);
  photoRoutes(routes, router, app);
  paperRoutes(routes, router, app);
  fileRoutes(routes, router, app);
  falloutRoutes(routes);
  fitRoutes(router, app);
  callRoutes(routes);
  priceRoutes(routes);
  firstWeekRoutes(routes);
  importRoutes(routes);
  instrumentRoutes(routes);
  practiceRoutes(routes);
  courseRoutes(routes);
  dueRoutes(routes);
  todayRoutes(routes);
  serverRoutes(routes);
  router.use((request) => {
    if (!request.session.signedIn) throw new DomainError('signed-out', say('You are signed out. Sign in first.'));
    throw new DomainError('not-found', say('There is nothing at this address.'));
  });
  return router;
}

/** A form post from another site cannot carry JSON without asking first. */
const requireJson: RequestHandler = (request, _response, next) => {
  const hasBody = request.headers['transfer-encoding'] !== undefined || Number(request.headers['content-length'] ?? 0) > 0;
  if (hasBody && !request.is('application/json')) throw new DomainError('wrong-type', say('Send the body as application/json.'));
  next();
};

const jsonUpTo = (limit: string | number): RequestHandler =>
  express.json({ limit, strict: false, verify: (_request, _response, bytes) => boundText(bytes) });
const bodyOfSignedIn = jsonUpTo(BODY_LIMIT.signedIn);
const bodyWithPaper = jsonUpTo(BODY_LIMIT.paper);
const BRINGS_PAPER = /^\/(systems|coolants|own-parts)\/[^/]+\/files$/;
const bodyOfStranger = jsonUpTo(BODY_LIMIT.stranger);
/** Where somebody is let in: the only routes that read what a stranger sends. */
const DOORS = new Set(['/session', '/setup', '/password-link', '/new-password']);
/** A stranger's body is read at the door alone. Elsewhere the answer is "signed out", which a device waits for, whatever it sent. */
const readBody: RequestHandler = (request, response, next) => {
  if (request.session.signedIn) return (BRINGS_PAPER.test(request.path) ? bodyWithPaper : bodyOfSignedIn)(request, response, next);
  return DOORS.has(request.path) ? bodyOfStranger(request, response, next) : next();
};

/** Size before sense: a hostile document is refused by its shape, before session, database or schema see it. */
const requireBounds: RequestHandler = (request, _response, next) => {
  boundShape(request.body);
  next();
};

/** One page for every address; its assets carry a hash in their names and never change. */
function serveWeb(server: Express, folder: string): void {
  server.use('/assets', express.static(path.join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  const page = readFileSync(path.join(folder, 'index.html'), 'utf8');
  const sendPage: RequestHandler = (_request, response) => {
    response
      .set('cache-control', 'no-cache')
      .type('html')
      .send(page.replaceAll(NONCE_MARK, styleNonce(response)));
  };
  serveDoor(server, path.join(folder, 'door'));
  server.get('/index.html', sendPage);
  server.use(express.static(folder, { index: false, setHeaders: (response) => response.setHeader('cache-control', 'no-cache') }));
  server.get('/{*path}', sendPage);
}

/** The owners' page: a bundle of its own, for no search engine, and no address of it is told to anybody. */
function serveDoor(server: Express, folder: string): void {
  const headers = { 'x-robots-tag': 'noindex, nofollow', 'referrer-policy': 'no-referrer' } as const;
  server.use('/door/assets', express.static(path.join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  server.get('/door{/*path}', (_request, response) => {
    response.set({ ...headers, 'cache-control': 'no-cache' }).sendFile('index.html', { root: folder });
  });
}

/** The only place where an error becomes an answer. Unknown errors are logged by name and code, never with their parameters. */
function errorHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const fileMissing = (error as { status?: number } | null)?.status === 404 && !request.path.startsWith('/api');
    const { status, body } = fileMissing
      ? answerOf(new DomainError('not-found', say('There is nothing at this address.')))
      : answerOf(error);
    if (status >= 500) {
      const database = databaseErrorOf(error);
      log.error(
        {
          method: request.method,
          route: request.path.replace(/[0-9a-f-]{36}/g, ':id'),
          name: error instanceof Error ? error.name : typeof error,
          code: database?.code,
          constraint: database?.constraint,
          stack: stackOf(error, status),
        },
        'request failed',
      );
    }
    response.status(status).json(body);
  };
}

/** Frames only: the first line of a stack repeats the message, which may hold a query's parameters. */
function stackOf(error: unknown, status: number): string[] | undefined {
  if (status !== 500 || !(error instanceof Error)) return undefined;
  return error.stack
    ?.split('\n')
    .filter((line) => line.trimStart().startsWith('at '))
    .slice(0, 6);
}
