import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { Aedes, type Client } from 'aedes';
import type { Logger } from 'pino';
import { Gate } from '../../base/http/gate.js';
import { boundReading } from './packetBounds.js';
import { mayPublish, maySubscribe, readDeviceName } from '../../../core/bench/instruments/topics.js';

/** A device that signed in. */
interface Device {
  readonly workshopId: string;
  readonly benchId: string;
  readonly simulated: boolean;
}

export interface BrokerOptions {
  readonly host: string;
  readonly port: number;
  readonly log: Logger;
  /** name and password of the server's own connection, which may do everything */
  readonly own: { readonly name: string; readonly password: string };
  /** whether a bench's secret is right, and whose it is; null: it is not */
  verify(workshopId: string, benchId: string, secret: string): Promise<'device' | 'simulated' | null>;
}

export interface Broker {
  readonly port: number;
  close(): Promise<void>;
}

const REFUSED = 4;

/** Who may connect, and how often a secret may be wrong. */
const CONNECTIONS = {
  /** at once: all of the server, and of one bench */
  most: 500,
  ofBench: 24,
  /** wrong secrets in the window: for one bench from one address, for it from all, from one address for all */
  wrong: { pair: 10, bench: 60, address: 120 },
  windowMs: 60_000,
  /** ms until a connection has signed in */
  signInMs: 10_000,
} as const;

/** secrets that are looked at once: each takes memory and a thread for a while */
const secrets = new Gate(2, 40);

/** Whose wrong secrets are counted together, and how many may be. */
type Counted = readonly (readonly [key: string, most: number])[];

/** Wrong secrets of the last while. */
class WrongSecrets {
  private readonly counts = new Map<string, { count: number; untilMs: number }>();

  constructor(private readonly nowMs: () => number) {}

  tooMany(counted: Counted): boolean {
    return counted.some(([key, most]) => {
      const known = this.counts.get(key);
      return known !== undefined && known.untilMs > this.nowMs() && known.count >= most;
    });
  }

  note(counted: Counted): void {
    const nowMs = this.nowMs();
    for (const [key, { untilMs }] of this.counts) if (untilMs <= nowMs) this.counts.delete(key);
    for (const [key] of counted) {
      const known = this.counts.get(key) ?? { count: 0, untilMs: nowMs + CONNECTIONS.windowMs };
      this.counts.set(key, { ...known, count: known.count + 1 });
    }
  }
}

/** The broker that ships with the app. A device sees its own bench's topics and no other; without the secret it sees none. */
export async function startBroker({ host, port, log, own, verify }: BrokerOptions): Promise<Broker> {
  const devices = new WeakMap<Client, Device | 'server'>();
  const wrong = new WrongSecrets(Date.now);
  const ofBench = new Map<string, number>();
  const aedes = await Aedes.createBroker({
    connectTimeout: CONNECTIONS.signInMs,
    maxClientsIdLength: 64,
    authenticate: (client, name, password, done) => {
      const refuse = (): void => done(Object.assign(new Error('not known here'), { returnCode: REFUSED }), false);
      const secret = password?.toString() ?? '';
      if (name === own.name) {
        if (secret !== own.password) return refuse();
        devices.set(client, 'server');
        return done(null, true);
      }
      const bench = readDeviceName(name ?? '');
      if (!bench) return refuse();
      const address = (client.conn as Socket).remoteAddress ?? '';
      const { pair, bench: ofOne, address: ofAddress } = CONNECTIONS.wrong;
      const counted = [[`${address} ${bench.benchId}`, pair], [bench.benchId, ofOne], [address, ofAddress]] as const; // prettier-ignore
      if (wrong.tooMany(counted) || (ofBench.get(bench.benchId) ?? 0) >= CONNECTIONS.ofBench) return refuse();
      secrets
        .through('', () => verify(bench.workshopId, bench.benchId, secret))
        .then(
          (found) => {
            if (found === null) {
              wrong.note(counted);
              return refuse();
            }
            devices.set(client, { ...bench, simulated: found === 'simulated' });
            ofBench.set(bench.benchId, (ofBench.get(bench.benchId) ?? 0) + 1);
            done(null, true);
          },
          () => refuse(),
        );
    },
    authorizePublish: (client, packet, done) => {
      const device = client && devices.get(client);
      if (device === 'server') return done(null);
      done(device && mayPublish(device, packet.topic, device.simulated) ? null : new Error('not a topic of this bench'));
    },
    authorizeSubscribe: (client, subscription, done) => {
      const device = client && devices.get(client);
      done(null, device === 'server' || (device && maySubscribe(device, subscription.topic)) ? subscription : null);
    },
    authorizeForward: (_client, packet) => packet,
  });
  aedes.on('clientError', (_client, error) => log.warn({ name: error.name }, 'an instrument’s connection was refused or broke'));
  aedes.on('clientDisconnect', (client) => {
    const device = devices.get(client);
    if (device && device !== 'server') ofBench.set(device.benchId, Math.max(0, (ofBench.get(device.benchId) ?? 1) - 1));
  });
  const server: Server = createServer((socket) => {
    boundReading(socket);
    aedes.handle(socket);
  });
  server.maxConnections = CONNECTIONS.most;
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    close: async () => {
      await new Promise<void>((resolve) => aedes.close(() => resolve()));
      await new Promise<void>((resolve) => server.close(() => resolve()));
    },
  };
}
