import { say } from '../../../core/base/words/say.js';
import { DomainError } from './errors.js';

/**
 * Lets so many in at once for a key; the others wait outside in their order. What waits for one locked row, or one busy
 * workshop, holds no more than its share of the database's connections.
 */
export class Gate {
  private readonly keys = new Map<string, { inside: number; readonly waiting: (() => void)[] }>();

  /** @param mostWaiting beyond, whoever comes is told to try again: a queue that nobody could wait for is no queue */
  constructor(
    private readonly mostInside: number,
    private readonly mostWaiting: number,
  ) {}

  /** @throws DomainError `busy` */
  async through<T>(key: string, work: () => Promise<T>): Promise<T> {
    const own = this.keys.get(key) ?? { inside: 0, waiting: [] };
    this.keys.set(key, own);
    if (own.inside >= this.mostInside) {
      if (own.waiting.length >= this.mostWaiting)
        throw new DomainError('busy', say('Too many requests for the same thing are waiting. Nothing was saved; try again in a moment.'));
      // whoever leaves hands its place over: nobody slips in between
      await new Promise<void>((resolve) => own.waiting.push(resolve));
    } else own.inside += 1;
    try {
      return await work();
    } finally {
      const next = own.waiting.shift();
      if (next) next();
      else {
        own.inside -= 1;
        if (own.inside === 0) this.keys.delete(key);
      }
    }
  }
}
