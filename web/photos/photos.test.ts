// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { fakeServer } from '../../tests/screens/mountScreen.js';
import { keepAndSend, sendWaitingPhotos, waitingPhotos, type WaitingPhoto } from './photoOutbox.js';

const photo = (): WaitingPhoto => ({
  id: crypto.randomUUID(),
  systemId: 's',
  jobId: null,
  caption: 'as it came in',
  image: 'data:image/jpeg;base64,AA',
});

describe('a picture taken away from the network', () => {
  it('is kept on the device, and reaches the server once under its own id', async () => {
    fakeServer(() => 'unreachable');
    const taken = photo();
    expect(await keepAndSend(taken)).toEqual({ waits: true });
    expect(waitingPhotos.value).toBe(1);
    await sendWaitingPhotos();
    expect(waitingPhotos.value).toBe(1);
    const asked = fakeServer(() => ({ status: 201, body: {} }));
    await sendWaitingPhotos();
    await sendWaitingPhotos();
    expect(asked).toHaveLength(1);
    expect(asked[0]).toMatchObject({ path: '/systems/s/photos', body: { id: taken.id, caption: 'as it came in' } });
    expect(waitingPhotos.value).toBe(0);
  });

  it('that the server refuses is told at once; one that waited stays for whoever took it', async () => {
    const refusal = { status: 422, body: { error: { code: 'invalid', message: 'image: is not a picture', fields: [] } } };
    fakeServer(() => refusal);
    await expect(keepAndSend(photo())).rejects.toThrow('is not a picture');
    expect(waitingPhotos.value).toBe(0);
    fakeServer(() => 'unreachable');
    await keepAndSend(photo());
    fakeServer(() => ({ status: 404, body: { error: { code: 'not-found', message: 'There is no such system.', fields: [] } } }));
    await sendWaitingPhotos();
    expect(waitingPhotos.value).toBe(1);
  });

  it('waits while the session has ended', async () => {
    fakeServer(() => ({ status: 401, body: { error: { code: 'signed-out', message: 'Sign in.', fields: [] } } }));
    expect(await keepAndSend(photo())).toEqual({ waits: true });
  });
});
