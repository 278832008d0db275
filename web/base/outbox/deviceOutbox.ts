import { onScopeDispose, shallowRef, type ShallowRef } from 'vue';
import { call } from '../http/api.js';
import { dropItem, keepItem, keptItems } from './deviceStore.js';
import type { Maker, OutboxItem } from './items.js';
import { Outbox, type OutboxView } from './outbox.js';

let who: () => Maker | null = () => null;

/** Who is signed in, as the application knows it. */
export function deliverAs(account: () => Maker | null): void {
  who = account;
}

function send(item: OutboxItem, madeBy: string | null): Promise<unknown> {
  const maker = madeBy === null ? {} : { madeBy };
  if (item.kind === 'entry')
    return call('POST', `/runs/${item.runId}/events`, { body: { id: item.id, at: item.at, body: item.body, ...maker } });
  const { id, caption, jobId, image } = item;
  return call('POST', `/systems/${item.systemId}/photos`, { body: { id, caption, jobId, image, ...maker } });
}

/** The one outbox of this device. */
export const deviceOutbox = new Outbox({
  store: { kept: keptItems, keep: keepItem, drop: dropItem },
  send,
  who: () => who(),
});

/** Starts with the application: what waits goes when the network is back, whatever page is open. */
export function startOutbox(account: () => Maker | null): void {
  deliverAs(account);
  window.addEventListener('online', () => void deviceOutbox.deliver());
  void deviceOutbox.start();
}

/** What the outbox holds, for a screen. */
export function useOutbox(): Readonly<ShallowRef<OutboxView>> {
  const view = shallowRef(deviceOutbox.view);
  onScopeDispose(
    deviceOutbox.watch(() => {
      view.value = deviceOutbox.view;
    }),
  );
  return view;
}
