import { INSTRUMENT_KEYS, isInstrument, type InstrumentKind } from './kinds.js';

/**
 * Topics of the instruments, all below `lavacrum/<workshop>/<bench>/`. A device may write and read below its own bench
 * only. Described for builders of devices in docs/instruments.md.
 */
export const TOPIC_ROOT = 'lavacrum';

/** What an instrument sends, and what is sent to a bench. */
export type Channel = 'state' | 'reading' | 'set';

export interface InstrumentTopic {
  readonly workshopId: string;
  readonly benchId: string;
  readonly kind: InstrumentKind;
  readonly channel: Channel;
}

export const benchTopic = (workshopId: string, benchId: string): string => `${TOPIC_ROOT}/${workshopId}/${benchId}`;

export const instrumentTopic = ({ workshopId, benchId, kind, channel }: InstrumentTopic): string =>
  `${benchTopic(workshopId, benchId)}/${kind}/${channel}`;

/** Movements of hands, for a simulated bench; its answers; what it hid. Real benches never see them. */
export const handsTopic = (workshopId: string, benchId: string): string => `${benchTopic(workshopId, benchId)}/hands`;
export const seenTopic = (workshopId: string, benchId: string): string => `${benchTopic(workshopId, benchId)}/seen`;
export const reportTopic = (workshopId: string, benchId: string): string => `${benchTopic(workshopId, benchId)}/report`;

/** What the servers tell a bench's devices of themselves. */
export const guardTopic = (workshopId: string, benchId: string): string => `${benchTopic(workshopId, benchId)}/guard`;

/** Every state and reading, of every bench. */
export const ALL_STATES = `${TOPIC_ROOT}/+/+/+/state`;
export const ALL_READINGS = `${TOPIC_ROOT}/+/+/+/reading`;
export const ALL_SEEN = `${TOPIC_ROOT}/+/+/seen`;
export const ALL_REPORTS = `${TOPIC_ROOT}/+/+/report`;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** The workshop and bench a topic belongs to, or null where it is none of ours. */
export function benchOfTopic(topic: string): { workshopId: string; benchId: string; rest: readonly string[] } | null {
  const [root, workshopId = '', benchId = '', ...rest] = topic.split('/');
  return root === TOPIC_ROOT && UUID.test(workshopId) && UUID.test(benchId) ? { workshopId, benchId, rest } : null;
}

/** null where the topic is none of an instrument. */
export function readTopic(topic: string): InstrumentTopic | null {
  const found = benchOfTopic(topic);
  const [kind = '', channel = '', more] = found?.rest ?? [];
  if (!found || more !== undefined || !isInstrument(kind)) return null;
  if (channel !== 'state' && channel !== 'reading' && channel !== 'set') return null;
  return { workshopId: found.workshopId, benchId: found.benchId, kind, channel };
}

/** The name a device signs in with. */
export const deviceName = (workshopId: string, benchId: string): string => `${workshopId}.${benchId}`;

export function readDeviceName(name: string): { workshopId: string; benchId: string } | null {
  const [workshopId = '', benchId = '', more] = name.toLowerCase().split('.');
  return more === undefined && UUID.test(workshopId) && UUID.test(benchId) ? { workshopId, benchId } : null;
}

/** Whether a device may write or read a topic: its own bench, and no commands of its own making. */
export function mayPublish(device: { workshopId: string; benchId: string }, topic: string, simulated: boolean): boolean {
  const found = benchOfTopic(topic);
  if (!found || found.workshopId !== device.workshopId || found.benchId !== device.benchId) return false;
  const [first = '', second, more] = found.rest;
  if (more !== undefined) return false;
  if (second === undefined) return simulated && (first === 'seen' || first === 'report');
  return (INSTRUMENT_KEYS as readonly string[]).includes(first) && (second === 'state' || second === 'reading');
}

export function maySubscribe(device: { workshopId: string; benchId: string }, filter: string): boolean {
  const own = `${benchTopic(device.workshopId, device.benchId)}/`;
  return filter.startsWith(own);
}
