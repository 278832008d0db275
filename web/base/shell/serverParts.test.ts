// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import ServerParts from './ServerParts.vue';

const PARTS = { queue: 'ok', push: 'ok', instruments: 'ok', disk: 'ok', backup: 'ok', servers: 'silent' };
const server = (name: string, more: object = {}) => ({
  name,
  version: '1.0.0',
  broker: null,
  speaks: false,
  silentS: 1,
  isSilent: false,
  ...more,
});

async function shown(servers: object[]): Promise<string> {
  fakeServer(({ path }) =>
    path === '/health'
      ? { status: 200, body: { status: 'degraded', database: 'ok', parts: PARTS, version: '1.0.0' } }
      : { status: 200, body: { here: 'attic', servers } },
  );
  const screen = mountScreen(ServerParts);
  await settle();
  return wordsOf(screen);
}

describe('what the server stands on', () => {
  it('names several servers: which one answers, which one speaks, which one says nothing', async () => {
    const words = await shown([server('attic', { speaks: true }), server('cellar', { isSilent: true, silentS: 125 })]);
    expect(words).toContain('one of them says nothing; the others go on');
    expect(words).toContain('attic: this one, speaks with the instruments, version 1.0.0');
    expect(words).toContain('cellar: says nothing for 2 min');
  });

  it('names none where there is one', async () => {
    expect(await shown([server('attic')])).not.toContain('attic');
  });
});
