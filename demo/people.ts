import { DEFAULT_RATES } from '../core/workshop/prices/rates.js';
import type { CaseOutline } from '../core/machine/drawing/cases.js';

/** Invented people, machines and coolants of the demo workshop. Any likeness is chance. */

export const DEMO_SIGN_IN = { email: 'lead@fernhollow.example', password: 'towel-under-joint' } as const;

export const DEMO_WORKSHOP = {
  name: 'Fernhollow Loop Works',
  timeZone: 'Europe/Lisbon',
  rates: { ...DEFAULT_RATES, hourMinor: 5800, hourMinorByKind: { 'strip-clean': 5200 }, taxPercent: 23 },
  contact: { address: 'Weir Lane 4, Fernhollow', phone: '+351 555 010 200', email: 'desk@fernhollow.example', publicAddress: '' },
};

export const DEMO_PEOPLE = [
  { name: 'Maruna Osk', email: DEMO_SIGN_IN.email, role: 'lead', skills: null },
  { name: 'Jorrit Vantle', email: 'jorrit@fernhollow.example', role: 'technician', skills: ['rigid-tube', 'cleaner'] },
  { name: 'Ilse Darrow', email: 'ilse@fernhollow.example', role: 'technician', skills: ['electronics', 'cleaner'] },
  { name: 'Pell Anwick', email: 'desk@fernhollow.example', role: 'front-desk', skills: null },
] as const;

export const DEMO_BENCHES = ['Window bench', 'Long bench', 'Corner bench'] as const;

export const FIRST_NAMES = [
  'Aldo',
  'Brisa',
  'Corin',
  'Dalla',
  'Edrik',
  'Fenna',
  'Garro',
  'Hesper',
  'Imre',
  'Jolan',
  'Kettil',
  'Lunete',
  'Moss',
  'Neriah',
  'Orla',
  'Perrin',
  'Quill',
  'Rosk',
  'Senna',
  'Tobin',
  'Ulla',
  'Verrin',
  'Wenna',
  'Yorick',
] as const;
export const LAST_NAMES = [
  'Ambleforth',
  'Brackwater',
  'Candlewick',
  'Dunmere',
  'Elderby',
  'Farrowgate',
  'Gravelle',
  'Hollinder',
  'Inkersole',
  'Jessamy',
  'Kestwick',
  'Larkenfield',
  'Mossop',
  'Netherby',
  'Oakhanger',
  'Pennywell',
] as const;
export const COMPANIES = ['Studio Halvlight', 'Tidewrack Animation', 'Greyfen Surveying', 'Lantern & Loom'] as const;

export const MACHINES = [
  'Slate tower',
  'Night desk',
  'Render box',
  'Glass cube',
  'Attic machine',
  'Red studio',
  'Quiet one',
  'Edit suite',
  'Moss tower',
  'Harbour PC',
  'White slab',
  'Sim rig',
  'Low bench',
  'Oak case',
  'Twin card box',
  'Music room',
  'Survey station',
  'Loft tower',
  'Small black',
  'Copper build',
] as const;

export const CASES = [
  'tall tower, glass side',
  'mid tower, mesh front',
  'open frame',
  'small cube, two chambers',
  'wide case, dual chamber',
] as const;

export const DEMO_COOLANTS = [
  {
    name: 'Stillbrook Clear',
    coolantClass: 'clear',
    colour: '#7fb8c9',
    form: 'concentrate',
    targetFraction: 0.25,
    bottleMl: 500,
    priceMinor: 3400,
    sheetLifeMonths: null,
    glycol: 'ethylene',
    glycolFraction: 0.27,
  },
  {
    name: 'Stillbrook Blue',
    coolantClass: 'clear',
    colour: '#2f6fb3',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 1000,
    priceMinor: 3600,
    sheetLifeMonths: 18,
    glycol: 'propylene',
    glycolFraction: 0.3,
  },
  {
    name: 'Emberlow Red',
    coolantClass: 'clear',
    colour: '#b23a3f',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 1000,
    priceMinor: 2900,
    sheetLifeMonths: 12,
    glycol: 'ethylene',
    glycolFraction: 0.25,
  },
  {
    name: 'Chalkdown Pastel White',
    coolantClass: 'opaque',
    colour: '#d9d6c9',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 1000,
    priceMinor: 3100,
    sheetLifeMonths: 6,
  },
  {
    name: 'Fernhollow Pastel Green',
    coolantClass: 'opaque',
    colour: '#6ea66a',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 1000,
    priceMinor: 2600,
    sheetLifeMonths: null,
  },
  {
    name: 'Distilled + biocide',
    coolantClass: 'biocide',
    colour: '#9fc7d6',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 1000,
    priceMinor: 2800,
    sheetLifeMonths: null,
  },
  {
    name: 'Lanternfest Pearl',
    coolantClass: 'show',
    colour: '#a06cc0',
    form: 'ready-mix',
    targetFraction: null,
    bottleMl: 500,
    priceMinor: 3400,
    sheetLifeMonths: null,
  },
] as const;

/** Cases this workshop builds in often, measured inside, with where it mounts radiators and boards. */
export const DEMO_CASES: readonly CaseOutline[] = [
  { label: 'Tall tower, glass side', depthMm: 480, heightMm: 560, widthMm: 225, mounts: { roof: [35, 552, 18], front: [472, 70, 18] } },
  { label: 'Small cube, two chambers', depthMm: 345, heightMm: 290, widthMm: 275, mounts: { roof: [20, 284, 40], front: [338, 20, 40] } },
];

export const SERVICE_NOTES = [
  'Drained through the low valve, two turns.',
  'Front radiator dusted before opening.',
  'New O-rings at the reservoir base.',
  'Owner asked for a quieter pump setting.',
  'Retained sample matched.',
  'Thermal paste renewed on the processor.',
] as const;
export const FINDINGS = [
  'Faint film on the reservoir floor; colour unchanged.',
  'Plug at the roof radiator lost some plating on its inlet side.',
  'Soft tube slightly milky at the return.',
  'Fins dusty behind the front panel.',
  'One compression nut was loose by half a turn.',
] as const;
export const POSTPONE_REASONS = ['needs the machine for a deadline', 'travelling until then', 'says it still runs cool'] as const;
