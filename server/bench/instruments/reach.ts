import { say } from '../../../core/base/words/say.js';
import type { Instruments } from '../../base/http/context.js';
import type { Brokers } from '../../../core/bench/instruments/answers.js';
import { DomainError } from '../../base/http/errors.js';
import type { BenchKeeper } from '../simulated-bench/keeper.js';

interface Reached {
  readonly brokers: Brokers;
  readonly reach: readonly string[];
  readonly embedded: boolean;
}

/** What requests see of the instruments: where devices connect, and simulated benches on demand. */
export const instrumentsFor = (service: Reached, keeper: BenchKeeper): Instruments => ({
  get broker() {
    return { ...service.brokers, embedded: service.embedded };
  },
  simulate: (order) => {
    const { reach } = service;
    if (reach.length === 0) throw new DomainError('refused', say('Instruments cannot be reached right now; try again in a moment.'));
    keeper.start({ ...order, urls: reach });
  },
});
