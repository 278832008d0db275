import { describe, expect, it } from 'vitest';
import { isDegraded, type Parts } from '../../base/health/parts.js';
import type { Server } from '../../base/health/servers.js';
import { partLines, serverWords, urgentWords } from './health.js';

const well: Parts = { queue: 'ok', push: 'ok', instruments: 'ok', disk: 'ok', backup: 'ok', servers: 'ok' };

describe('the server’s parts in words', () => {
  it('put first what needs somebody', () => {
    expect(partLines({ ...well, disk: 'low' })[0]).toMatchObject({
      part: 'disk',
      well: false,
      says: expect.stringContaining('nearly full') as string,
    });
    expect(partLines(well).every(({ well: isWell, says }) => isWell && says === 'in order')).toBe(true);
  });

  it('are degraded where one is down, not where one was switched off', () => {
    expect(isDegraded(well)).toBe(false);
    expect(isDegraded({ ...well, backup: 'off' })).toBe(false);
    expect(isDegraded({ ...well, queue: 'away' })).toBe(true);
  });

  it('name the servers, what each is, and which says nothing', () => {
    const server: Server = { name: 'attic', version: '1.2.0', broker: null, speaks: true, silentS: 2, isSilent: false };
    expect(serverWords(server, 'attic')).toBe('attic: this one, speaks with the instruments, version 1.2.0');
    expect(serverWords({ ...server, speaks: false, isSilent: true, silentS: 200 }, 'cellar')).toBe(
      'attic: says nothing for 3 min, version 1.2.0',
    );
  });

  it('tell everybody only what does not mend itself', () => {
    expect(urgentWords({ ...well, queue: 'away', push: 'away' })).toBeNull();
    expect(urgentWords({ ...well, disk: 'low', backup: 'failed' })).toContain('disk');
    expect(urgentWords({ ...well, backup: 'old' })).toContain('backup is old');
  });
});
