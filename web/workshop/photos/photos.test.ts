// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { fakeServer, mountScreen, settle, wordsOf } from '../../../tests/screens/mountScreen.js';
import { deliverAs, deviceOutbox } from '../../base/outbox/deviceOutbox.js';
import PhotoButton from './PhotoButton.vue';

const tess = { personId: 'p', personName: 'Tess', workshopId: 'w' };
const add = (id: string) =>
  deviceOutbox.add({
    kind: 'photo',
    id,
    at: '2026-03-10T09:00:00Z',
    made: tess,
    why: null,
    tries: 0,
    systemId: 's',
    jobId: null,
    caption: 'as it came in',
    image: 'data:image/jpeg;base64,AA',
  });

afterEach(() => vi.useRealTimers());

describe('a picture taken away from the network', () => {
  it('waits on the device, says so, and reaches the server once under its own id', async () => {
    fakeServer(() => 'unreachable');
    deliverAs(() => tess);
    const screen = mountScreen(PhotoButton, { props: { systemId: 's', jobId: null, caption: '' } });
    await add('p1');
    await settle();
    expect(wordsOf(screen)).toContain('one waits on this device for the server');
    const asked = fakeServer(() => ({ status: 201, body: {} }));
    await deviceOutbox.deliver();
    await deviceOutbox.deliver();
    await settle();
    const photos = asked.filter(({ path }) => path.endsWith('photos'));
    expect(photos).toHaveLength(1);
    expect(photos[0]).toMatchObject({ path: '/systems/s/photos', body: { id: 'p1', caption: 'as it came in' } });
    expect(wordsOf(screen)).not.toContain('waits');
  });

  it('that the server refuses says why beside the button, until it was read', async () => {
    fakeServer(() => ({ status: 422, body: { error: { code: 'invalid', message: 'image: is not a picture', fields: [] } } }));
    const screen = mountScreen(PhotoButton, { props: { systemId: 's', jobId: null, caption: '' } });
    await add('p2');
    await settle();
    expect(wordsOf(screen)).toContain('is not a picture');
    await screen.find('button.link').trigger('click');
    await settle();
    expect(wordsOf(screen)).not.toContain('is not a picture');
  });
});
