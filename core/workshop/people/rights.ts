import type { Role } from './roles.js';

/**
 * What somebody may change; everybody of a workshop may read all of it. `own`: one's own password, sign-ins, practice · `bench`: led
 * runs, inspection, parts as they are learned · `desk`: owners, dates, slots, letters · `machines`: machines, loops, files, jobs as
 * they come in · `store`: what goes in and out · `lead`: people, benches, policies, limits, procedures, the plan's own figures.
 */
export const RIGHTS = ['own', 'bench', 'desk', 'machines', 'store', 'lead'] as const;
export type Right = (typeof RIGHTS)[number];

const MAY: Readonly<Record<Role, readonly Right[]>> = {
  lead: RIGHTS,
  technician: ['own', 'bench', 'machines', 'store'],
  'front-desk': ['own', 'desk', 'machines', 'store'],
};
export const may = (role: Role, right: Right): boolean => MAY[role].includes(right);

/** Whose it is, said to somebody who may not. */
export const WHOSE: Readonly<Record<Right, string>> = {
  own: 'This is somebody else’s.',
  bench: 'Runs are led by technicians and the lead; the desk looks on.',
  desk: 'Owners, dates, slots and letters are the desk’s and the lead’s.',
  machines: 'This workshop’s machines are changed by its own people.',
  store: 'The store is kept by this workshop’s people.',
  lead: 'Only the workshop lead can change this.',
};

/** Every route that changes something, by its method and path. A route that is missing here is not served. */
const OF_ROUTE: Readonly<Record<Right, readonly string[]>> = {
  own: [
    'PUT /own-password',
    'PUT /own-reading',
    'DELETE /signed-in',
    'DELETE /signed-in/:id',
    'POST /course/:lesson',
    'POST /calendars',
    'DELETE /calendars/:whose',
  ],
  bench: [
    'POST /runs',
    'POST /loops/:id/unit-tests',
    'POST /runs/:id/abandon',
    'POST /runs/:id/bypass',
    'POST /runs/:id/rebuilt',
    'POST /runs/:id/relaid',
    'POST /runs/:id/debrief',
    'POST /runs/:id/events',
    'POST /runs/:id/go-on',
    'POST /runs/:id/rescope',
    'POST /runs/:id/sign-off',
    'POST /runs/:id/simulated-bench',
    'POST /runs/:id/skip',
    'POST /runs/:id/wait',
    'POST /jobs/:id/start',
    'POST /benches/:id/hands',
  ],
  desk: [
    'POST /owners',
    'PUT /owners/:id',
    'POST /messages',
    'PUT /limit-changes/:id/told',
    'POST /limit-changes/:id/letters',
    'PUT /early-lots/:id/told',
    'POST /early-lots/:id/letters',
    'POST /systems/:id/bookings',
    'POST /imports',
    'POST /imports/:id/undo',
    'PUT /jobs/:id/slot',
    'DELETE /jobs/:id/slot',
    'PUT /plan/slots',
    'PUT /due-items/:id/postpone',
    'POST /absences',
    'DELETE /absences/:id',
  ],
  machines: [
    'POST /systems',
    'PUT /systems/:id',
    'PUT /systems/:id/connectors',
    'POST /systems/:id/jobs',
    'POST /systems/:id/lots',
    'POST /systems/:id/files',
    'POST /coolants/:id/files',
    'POST /own-parts/:id/files',
    'POST /systems/:id/photos',
    'POST /systems/:id/services',
    'POST /systems/:id/usage',
    'PUT /usage-readings/:id',
    'POST /systems/:id/logs',
    'POST /systems/:id/readings',
    'PUT /load-readings/:id',
    'POST /systems/:id/marks',
    'PUT /machine-marks/:id',
    'POST /systems/:id/causes',
    'POST /systems/:id/levels',
    'PUT /systems/:id/kept-setting',
    'PUT /level-readings/:id',
    'PUT /confirmed-causes/:id',
    'DELETE /lots/:id',
    'PUT /jobs/:id',
    'POST /jobs/:id/cancel',
    'PUT /jobs/:id/arrival',
    'POST /jobs/:id/consent',
    'PUT /jobs/:id/loan',
    'DELETE /jobs/:id/loan',
    'PUT /due-items/:id/close',
    'POST /loops',
    'POST /layouts',
    'DELETE /layouts/:id',
    'POST /layouts/:id/back',
    'POST /loops/:id/revisions',
    'POST /loops/:id/came-filled',
    'DELETE /loops/:id/came-filled',
    'POST /loops/:id/part',
    'PUT /loops/:id/heat-setup',
    'PUT /loops/:id/fan-stacks',
    'POST /own-parts',
    'PUT /own-parts/:id',
    'DELETE /own-parts/:id',
    'POST /own-parts/:id/back',
    'POST /case-templates',
    'PUT /case-templates/:id',
    'DELETE /case-templates/:id',
    'POST /loops/:id/fallout',
    'DELETE /fallout-looks/:id',
    'POST /fallout-looks/:id/back',
    'DELETE /files/:id',
    'POST /files/:id/back',
  ],
  store: [
    'POST /coolants',
    'POST /coolant-lots',
    'PUT /coolant-lots/:id',
    'POST /store/items',
    'POST /store/items/:id/moves',
    'PUT /store/items/:id/price',
    'PUT /store/items/:id/count',
    'PUT /coolants/:id/price',
    'POST /kept-parts',
    'PUT /kept-parts/:id',
    'PUT /kept-parts/:id/gone',
    'PUT /kept-parts/:id/dry',
    'POST /waste',
    'POST /waste/:id/entries',
  ],
  lead: [
    'PUT /workshop',
    'DELETE /kit-learned/:id',
    'POST /kit-learned/:id/back',
    'PUT /workshop/rates',
    'PUT /first-week',
    'POST /first-week/sample',
    'PUT /workshop/contact',
    'PUT /workshop/reading',
    'PUT /workshop/heat-limits',
    'PUT /learned-lives/risk',
    'POST /learned-lives',
    'POST /people',
    'PUT /people/:id',
    'PUT /people/:id/password',
    'PUT /people/:id/shifts',
    'PUT /people/:id/skills',
    'POST /benches',
    'PUT /benches/:id',
    'POST /benches/:id/access',
    'PUT /kits',
    'PUT /coolants/:id/metals',
    'PUT /coolants/:id/limit',
    'POST /coolants/:id/limit/trial',
    'POST /limit-changes/:id/undo',
    'PUT /fills/:id/verdict',
    'PUT /waste/:id/hand-over',
    'POST /procedures',
  ],
};

const RIGHT_OF: ReadonlyMap<string, Right> = new Map(RIGHTS.flatMap((right) => OF_ROUTE[right].map((route) => [route, right] as const)));

/** The right that a route asks for; null: it only reads. @throws Error for a route that changes something and is nobody's */
export function rightOf(method: string, path: string): Right | null {
  if (method.toUpperCase() === 'GET') return null;
  const right = RIGHT_OF.get(`${method.toUpperCase()} ${path}`);
  if (!right) throw new Error(`${method.toUpperCase()} ${path} is nobody’s: say in rights.ts who may`);
  return right;
}
