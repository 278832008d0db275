import { hostname } from 'node:os';
import path from 'node:path';
import { readSecrets } from '../base/servers/secrets.js';

/** how far the broker's port lies behind the page's, unless it is set */
const MQTT_PORT_AFTER = 3;
const LOOPBACK: ReadonlySet<string> = new Set(['127.0.0.1', '::1', 'localhost']);

export interface Settings {
  /** this server among those on its database */
  readonly name: string;
  readonly host: string;
  readonly port: number;
  /** behind a proxy that speaks TLS */
  readonly behindProxy: boolean;
  /** keys of a setting, newest first; null: the database keeps them */
  readonly secrets: readonly string[] | null;
  readonly databaseUrl: string;
  /** as the owner of the tables, for migrations alone */
  readonly ownerUrl: string;
  readonly dataFolder: string;
  readonly demo: boolean;
  /** backups that are kept; 0: none is made by night */
  readonly backupsKept: number;
  readonly mail: { readonly smtpUrl: string | null; readonly sender: string; readonly textUrl: string | null };
  readonly mqtt: { readonly mqttUrl: string | null; readonly address: string | null; readonly host: string; readonly port: number };
}

/** Who may ask: without TLS in front, this machine alone. */
function readHost(behindProxy: boolean): string {
  const host = process.env.LAVACRUM_HOST ?? '127.0.0.1';
  if (!LOOPBACK.has(host) && !behindProxy)
    throw new Error(
      `LAVACRUM_HOST=${host} would serve other machines without TLS; put a proxy that speaks it in front and set LAVACRUM_PROXY=1`,
    );
  return host;
}

function readMqtt(port: number): Settings['mqtt'] {
  // beside the page's own port, so that two servers on one machine do not meet
  const mqttPort = readPort('LAVACRUM_MQTT_PORT', port === 0 ? 0 : port + MQTT_PORT_AFTER);
  return {
    mqttUrl: process.env.MQTT_URL ?? null,
    address: process.env.LAVACRUM_MQTT_ADDRESS ?? null,
    host: process.env.LAVACRUM_MQTT_HOST ?? '127.0.0.1',
    port: mqttPort,
  };
}

/** @throws Error that names the setting, and what it must be */
export function readSettings(): Settings {
  const port = readPort('LAVACRUM_PORT', 4180);
  const databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL is not set; start the app with ./lavacrum start');
  const behindProxy = process.env.LAVACRUM_PROXY === '1';
  return {
    name: process.env.LAVACRUM_NAME ?? `${hostname()}:${port}`,
    host: readHost(behindProxy),
    port,
    behindProxy,
    secrets: process.env.LAVACRUM_SECRET ? readSecrets(process.env.LAVACRUM_SECRET) : null,
    databaseUrl,
    ownerUrl: process.env.LAVACRUM_OWNER_URL ?? databaseUrl,
    dataFolder: path.resolve(process.env.LAVACRUM_DATA ?? '.data'),
    demo: process.env.LAVACRUM_DEMO !== '0',
    backupsKept: wholeNumber('LAVACRUM_BACKUPS_KEPT', 14, 1000),
    mail: {
      smtpUrl: process.env.SMTP_URL ?? null,
      sender: process.env.LAVACRUM_MAIL_FROM ?? 'workshop@lavacrum.local',
      textUrl: process.env.LAVACRUM_TEXT_URL ?? null,
    },
    mqtt: readMqtt(port),
  };
}

/** 0: any free one, for tests */
const readPort = (name: string, usual: number): number => wholeNumber(name, usual, 65_535, 'a port number');

export function wholeNumber(name: string, usual: number, most: number, what = 'a whole number'): number {
  const value = Number(process.env[name] ?? String(usual));
  if (!Number.isInteger(value) || value < 0 || value > most) throw new Error(`${name} must be ${what} from 0 to ${most}`);
  return value;
}
