import type { Scope } from '../../base/database/client.js';
import type { Clock } from '../../base/http/clock.js';
import type { Account } from '../../base/http/context.js';

/** Who writes into a log, and with which transaction and clock. A request has all of it. */
export interface Writer {
  readonly scope: Scope;
  readonly clock: Clock;
  readonly account: Pick<Account, 'workshopId' | 'personId' | 'personName'>;
}
