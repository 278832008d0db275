import { AUTO } from './defaults.js';

/** What a supply's word is: the answer to a command, something said before it heard of one, or a hand at its switch. */
export type SupplyWord = 'answer' | 'under-way' | 'by-hand';

/**
 * Tells what a supply says back from a hand that turned its switch. Messages of one switch come in their order: while a
 * command waits for its answer, whatever differs was said before the switch heard of it. Without this a pump that is
 * switched off and on again in one breath would be booked as switched off at the bench.
 */
export class SupplyEcho {
  /** not answered yet, oldest first */
  private waiting: { readonly on: boolean; readonly atMs: number }[] = [];

  /** The supply was told to switch. @param atMs by the clock that also dates what is received */
  told(on: boolean, atMs: number): void {
    if (this.waiting.at(-1)?.on !== on) this.waiting.push({ on, atMs });
  }

  /** What this word of the supply is. A command that is never answered is forgotten after a while. */
  of(on: boolean, receivedMs: number): SupplyWord {
    this.waiting = this.waiting.filter(({ atMs }) => receivedMs - atMs <= AUTO.echoS * 1000);
    const [oldest] = this.waiting;
    if (!oldest) return 'by-hand';
    if (oldest.on !== on) return 'under-way';
    this.waiting.shift();
    return 'answer';
  }
}
