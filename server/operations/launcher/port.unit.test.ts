import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { readPort } from './port.js';
import { pidFile, startService } from './service.js';

describe('the port to serve on', () => {
  it('takes a port number', () => {
    expect(readPort('4180')).toBe(4180);
  });

  it.each(['0', '65536', '80.5', 'eighty'])('refuses %j and says what would be right', (text) => {
    expect(() => readPort(text)).toThrow(`from 1 to 65535 (got ${text})`);
  });

  it('refuses a port that no browser opens, rather than wait for visitors who cannot come', () => {
    expect(() => readPort('4190')).toThrow(/browsers refuse/);
  });

  it.each(['4190', 'eighty'])('refuses %j before anything is installed, in the same words', (text) => {
    const words = (() => {
      try {
        return String(readPort(text));
      } catch (error) {
        return (error as Error).message;
      }
    })();
    const { status, stderr } = spawnSync('./lavacrum', ['start'], { env: { ...process.env, LAVACRUM_PORT: text }, encoding: 'utf8' });
    expect([status, stderr.trim()]).toEqual([1, `lavacrum: ${words}`]);
  });

  it('that somebody else serves on is not taken for our own, and nothing is started', async () => {
    const other = createServer().listen(0, '127.0.0.1');
    await new Promise((resolve) => other.once('listening', resolve));
    const { port } = other.address() as AddressInfo;
    const dataFolder = mkdtempSync(path.join(tmpdir(), 'lavacrum-port-'));
    const login = 'postgres://nobody@127.0.0.1:1/none';
    const started = startService({ root: dataFolder, dataFolder, port, databaseUrl: login, ownerUrl: login });
    await expect(started).rejects.toThrow(`Port ${port} is taken`);
    expect(existsSync(pidFile(dataFolder))).toBe(false);
    other.close();
    rmSync(dataFolder, { recursive: true });
  });
});
