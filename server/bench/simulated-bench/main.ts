import type { BenchOrder } from '../../../core/bench/simulated-bench/order.js';
import { RunFold } from '../../../core/bench/runs/replay.js';
import mqtt from 'mqtt';
import type { InstrumentKind } from '../../../core/bench/instruments/kinds.js';
import { readGuard } from '../../../core/bench/instruments/guard.js';
import { readingPayload, statePayload } from '../../../core/bench/instruments/payloads.js';
import { guardTopic, handsTopic, instrumentTopic, reportTopic, seenTopic, type Channel } from '../../../core/bench/instruments/topics.js';
import { SimulatedBench } from '../../../core/bench/simulated-bench/bench.js';
import { readMove, type HandMove } from '../../../core/bench/simulated-bench/hands.js';
import { movesOfEntry } from '../../../core/bench/simulated-bench/movesOfEntry.js';
import { drawTruth } from '../../../core/bench/simulated-bench/truth.js';
import { processClock } from '../../base/http/clock.js';

/**
 * The simulated bench: a process of its own that plays a loop from hidden parameters, speaks the topics of real
 * instruments and obeys the supply switch. It ends with the server that started it.
 */

/** ms between two looks; readings of what moves fast go out each time */
const TICK_MS = 250;
/** each n-th look sends what moves slowly */
const SLOW_EVERY = 8;
/** s; a jump of the clock beyond it is passed in steps, each with its readings */
const JUMP_S = 4;
/** s and steps; how such a jump is cut */
const JUMP_STEP_S = 30;
const MOST_JUMP_STEPS = 240;

const FAST: readonly InstrumentKind[] = ['gauge', 'level', 'flow', 'scale'];

const clock = processClock();

// eslint-disable-next-line max-lines-per-function -- one process with one bench: its parts share clock, client and bench
function play(order: BenchOrder): void {
  const { workshopId, benchId, loop, coolant, seed, scenario, procedure, events } = order;
  let aheadMs = order.aheadMs;
  const nowMs = (): number => clock.now().getTime() + aheadMs;
  const job = procedure.service?.kind ?? null;
  const bench = new SimulatedBench(loop, drawTruth(loop, seed, scenario, job), coolant, Date.parse(order.startedAt), seed, job);
  const topic = (kind: InstrumentKind, channel: Channel): string => instrumentTopic({ workshopId, benchId, kind, channel });
  const client = connectTo(order.urls, {
    ...(order.name === '' ? {} : { username: order.name, password: order.secret }),
    reconnectPeriod: 1000,
    will: { topic: topic('supply', 'state'), payload: Buffer.from(statePayload('supply', { online: false, resolution: null, simulated: true })), qos: 1, retain: true }, // prettier-ignore
  });
  const online = new Map<InstrumentKind, boolean>();
  let lastReport = '';

  const say = (kind: InstrumentKind, on: boolean): void => {
    if (online.get(kind) === on) return;
    online.set(kind, on);
    const resolution = kind === 'gauge' ? 0.1 : kind === 'level' || kind.endsWith('temp') ? 0.1 : kind === 'supply' ? null : 1;
    client.publish(topic(kind, 'state'), statePayload(kind, { online: on, resolution, simulated: true }), { qos: 1, retain: true });
  };
  const publish = (kinds: readonly InstrumentKind[]): void => {
    const readings = bench.readings();
    for (const kind of kinds) {
      const value = readings[kind];
      say(kind, value !== null);
      if (value !== null)
        client.publish(topic(kind, 'reading'), readingPayload({ kind, value, at: bench.now }), { qos: 1, retain: kind === 'supply' });
    }
  };
  const report = (): void => {
    const told = JSON.stringify(bench.report());
    if (told === lastReport) return;
    lastReport = told;
    client.publish(reportTopic(workshopId, benchId), told, { qos: 1 });
  };
  /** Passes time up to now. Readings of a long jump carry the instants they belong to. */
  const catchUp = (): void => {
    const gapS = (nowMs() - Date.parse(bench.now)) / 1000;
    if (gapS <= 0) return;
    if (gapS <= JUMP_S) return bench.advance(gapS);
    const steps = Math.min(MOST_JUMP_STEPS, Math.ceil(gapS / JUMP_STEP_S));
    for (let step = 0; step < steps; step += 1) {
      bench.advance(gapS / steps);
      publish(bench.instruments);
    }
  };
  const move = (wanted: HandMove): void => {
    if (wanted.do === 'skip') aheadMs += wanted.seconds * 1000;
    catchUp();
    const seen = wanted.do === 'skip' ? null : bench.act(wanted);
    if (seen) client.publish(seenTopic(workshopId, benchId), JSON.stringify(seen), { qos: 1 });
    publish(bench.instruments);
    report();
  };

  // what the run has seen before this process began
  const fold = new RunFold(procedure);
  events.forEach((event) => {
    bench.advance(Math.max(0, (Date.parse(event.at) - Date.parse(bench.now)) / 1000));
    const { state } = fold.push(event);
    bench.switchSupply(state.pump?.on ?? false);
    for (const again of movesOfEntry(event.body, state, procedure, true)) bench.act(again);
  });

  client.on('connect', () => {
    online.clear();
    client.subscribe([topic('supply', 'set'), handsTopic(workshopId, benchId), guardTopic(workshopId, benchId)], { qos: 1 }, () =>
      publish(bench.instruments),
    );
  });
  client.on('error', () => undefined);
  client.on('message', (heard, payload) => {
    if (heard === guardTopic(workshopId, benchId)) return learnBrokers(client, readGuard(payload.toString())?.brokers ?? []);
    try {
      const message = JSON.parse(payload.toString()) as { on?: boolean; do?: string };
      if (heard === topic('supply', 'set')) {
        catchUp();
        bench.switchSupply(message.on === true);
        publish(bench.instruments);
        report();
      } else if (message.do === 'leave') leave();
      else move(readMove(message));
    } catch {
      // not a message of ours: a bench has nobody to tell
    }
  });

  let look = 0;
  const timer = setInterval(() => {
    catchUp();
    look += 1;
    publish(look % SLOW_EVERY === 0 ? bench.instruments : FAST);
    if (look % SLOW_EVERY === 0) report();
  }, TICK_MS);

  function leave(): void {
    clearInterval(timer);
    for (const kind of bench.instruments) say(kind, false);
    client.end(false, {}, () => process.exit(0));
    setTimeout(() => process.exit(0), 1000).unref();
  }
  process.on('SIGTERM', leave);
  process.on('disconnect', leave);
}

/** One broker after the other until one answers; what is learned later is tried as well. */
function connectTo(urls: readonly string[], options: mqtt.IClientOptions): mqtt.MqttClient {
  const [first = '', ...others] = urls;
  if (others.length === 0) return mqtt.connect(first, { ...options, servers: first.startsWith('mqtt:') ? urls.map(serverOf) : undefined });
  return mqtt.connect({ ...options, protocol: 'mqtt', servers: urls.map(serverOf) });
}

const serverOf = (url: string) => {
  const { hostname: host, port } = new URL(url);
  return { host, port: Number(port || '1883'), protocol: 'mqtt' as const };
};

/** An outside broker says nothing of others. */
function learnBrokers({ options }: mqtt.MqttClient, brokers: readonly string[]): void {
  const known = options.servers;
  if (known)
    for (const each of brokers.map(serverOf))
      if (!known.some(({ host, port }) => host === each.host && port === each.port)) known.push(each);
}

process.once('message', (order: BenchOrder) => play(order));
