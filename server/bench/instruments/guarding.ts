import { GUARD_EVERY_S, guardPayload } from '../../../core/bench/instruments/guard.js';
import { guardTopic } from '../../../core/bench/instruments/topics.js';
import type { Clock } from '../../base/http/clock.js';

/** Says to the devices of each bench that somebody watches, and where to go when that one goes. */
export class Guarding {
  private readonly benches = new Map<string, string>();
  private brokers: readonly string[] = [];
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly clock: Clock,
    private readonly publish: (topic: string, payload: string) => void,
  ) {}

  begin(): void {
    // whoever signed in before there was a way to tell it
    this.tellAll(true);
    this.timer = setInterval(() => this.tellAll(true), GUARD_EVERY_S * 1000);
    this.timer.unref();
  }

  /** A bench of which something was heard: it is told at once what it may not know yet. */
  meet(workshopId: string, benchId: string): void {
    if (this.benches.has(benchId)) return;
    this.benches.set(benchId, workshopId);
    this.tell(workshopId, benchId, true);
  }

  /** @param brokers that of the server that speaks first */
  at(brokers: readonly string[]): void {
    if (brokers.join(' ') === this.brokers.join(' ')) return;
    this.brokers = brokers;
    if (this.timer !== null) this.tellAll(true);
  }

  private tell(workshopId: string, benchId: string, on: boolean): void {
    this.publish(guardTopic(workshopId, benchId), guardPayload({ on, brokers: this.brokers, at: this.clock.now().toISOString() }));
  }

  private tellAll(on: boolean): void {
    for (const [benchId, workshopId] of this.benches) this.tell(workshopId, benchId, on);
  }

  /** Nobody watches from here on. */
  end(): void {
    if (this.timer === null) return;
    clearInterval(this.timer);
    this.timer = null;
    this.tellAll(false);
    this.benches.clear();
  }
}
