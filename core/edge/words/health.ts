import { say } from '../../base/words/say.js';
import type { Server } from '../../base/health/servers.js';
import { PARTS, type Part, type Parts, type PartState } from '../../base/health/parts.js';

/** What each part of the server is to somebody at the desk. */
const NAMES: Readonly<Record<Part, string>> = {
  queue: 'Night’s work and messages',
  push: 'News from other screens',
  instruments: 'Instruments at the benches',
  disk: 'Disk of the server',
  backup: 'Nightly backup',
  servers: 'Servers on this database',
};

const STATES: Readonly<Record<PartState, string>> = {
  ok: 'in order',
  away: 'not reached; it goes on by itself once it is',
  low: 'nearly full: free space before nothing more can be saved',
  failed: 'failed last night; look into the server’s log, and make one by hand',
  old: 'older than two nights; make one by hand',
  off: 'switched off',
  silent: 'one of them says nothing; the others go on',
};

/** One line a part, the ones that need somebody first. */
export const partLines = (
  parts: Parts,
): readonly { readonly part: Part; readonly name: string; readonly says: string; readonly well: boolean }[] =>
  PARTS.map((part) => ({ part, name: say(NAMES[part]), says: say(STATES[parts[part]]), well: ['ok', 'off'].includes(parts[part]) })).sort(
    (a, b) => Number(a.well) - Number(b.well),
  );

/** One of several servers: how it is called, and what it is at this moment. */
export function serverWords({ name, version, speaks, isSilent, silentS }: Server, here: string): string {
  const facts = [
    ...(name === here ? [say('this one')] : []),
    ...(speaks ? [say('speaks with the instruments')] : []),
    ...(isSilent ? [say('says nothing for {minutes} min', { minutes: Math.max(1, Math.round(silentS / 60)) })] : []),
    ...(version ? [say('version {version}', { version })] : []),
  ];
  return `${name}: ${facts.join(', ')}`;
}

/** What everybody should know of it, in a few words; null: nothing. What comes back by itself is nobody's business. */
export function urgentWords({ disk, backup }: Parts): string | null {
  if (disk === 'low') return say('Server: disk nearly full');
  if (backup === 'failed') return say('Server: backup failed');
  return backup === 'old' ? say('Server: backup is old') : null;
}
