import { createServer, type AddressInfo, type Server } from 'node:net';
import { Aedes, type Client } from 'aedes';
import type { Logger } from 'pino';
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

/** The broker that ships with the app. A device sees its own bench's topics and no other; without the secret it sees none. */
export async function startBroker({ host, port, log, own, verify }: BrokerOptions): Promise<Broker> {
  const devices = new WeakMap<Client, Device | 'server'>();
  const aedes = await Aedes.createBroker({
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
      verify(bench.workshopId, bench.benchId, secret).then(
        (found) => {
          if (found === null) return refuse();
          devices.set(client, { ...bench, simulated: found === 'simulated' });
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
  const server: Server = createServer(aedes.handle);
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
