import type { Instruments } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import type { BenchKeeper } from '../simulated-bench/keeper.js';

/** What requests see of the instruments: where devices connect, and simulated benches on demand. */
export const instrumentsFor = (service: { readonly url: string | null; readonly embedded: boolean }, keeper: BenchKeeper): Instruments => ({
  get url() {
    return service.url;
  },
  embedded: service.embedded,
  simulate: (order) => {
    const { url } = service;
    if (url === null) throw new DomainError('refused', 'Instruments cannot be reached right now; try again in a moment.');
    keeper.start({ ...order, url });
  },
});
