import { Worker } from 'node:worker_threads';
import type { Logger } from 'pino';
import type { Brokers } from '../../../core/bench/instruments/answers.js';
import { NO_BROKERS } from '../../base/servers/voice.js';
import type { InstrumentService, InstrumentSettings } from './service.js';

type Command = Parameters<InstrumentService['command']>[0];
export type ToThread = { readonly do: 'command'; readonly command: Command } | { readonly do: 'close' };
/** What the thread tells whenever it changes. */
export interface FromThread {
  readonly brokers: Brokers;
  readonly reach: readonly string[];
  readonly reached: boolean;
}
const NOTHING: FromThread = { brokers: NO_BROKERS, reach: [], reached: false };

/** ms before a thread that ended is started again */
const AGAIN_MS = 2000;

/** The instruments as the rest of the server sees them: in a thread of their own, started again where it ends. */
export class InstrumentsThread {
  private worker: Worker | null = null;
  private state = NOTHING;
  private closed = false;
  private timer: NodeJS.Timeout | null = null;

  /** @param file the built thread */
  constructor(
    private readonly settings: InstrumentSettings,
    private readonly file: string,
    private readonly log: Logger,
  ) {}

  /** Where devices connect, and where else to try. */
  get brokers(): Brokers {
    return this.state.brokers;
  }

  /** Where a simulated bench on this machine connects. */
  get reach(): readonly string[] {
    return this.state.reach;
  }

  get embedded(): boolean {
    return this.settings.mqttUrl === null;
  }

  get reached(): boolean {
    return this.state.reached;
  }

  start(): void {
    if (this.closed) return;
    const worker = new Worker(this.file, { workerData: this.settings });
    this.worker = worker;
    worker.on('message', (state: FromThread) => (this.state = state));
    worker.on('error', (error) => this.log.error({ name: error.name }, 'the thread of the instruments failed'));
    worker.on('exit', () => {
      if (this.worker !== worker) return;
      this.worker = null;
      this.state = NOTHING;
      if (this.closed) return;
      this.log.warn('the thread of the instruments ended; starting it again');
      this.timer = setTimeout(() => this.start(), AGAIN_MS);
    });
  }

  command(command: Command): void {
    this.worker?.postMessage({ do: 'command', command } satisfies ToThread);
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.timer !== null) clearTimeout(this.timer);
    const { worker } = this;
    if (!worker) return;
    const ended = new Promise((resolve) => worker.once('exit', resolve));
    worker.postMessage({ do: 'close' } satisfies ToThread);
    await ended;
  }
}
