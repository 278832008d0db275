import type { BenchOrder } from '../../../core/bench/simulated-bench/order.js';
import { fork, type ChildProcess } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Logger } from 'pino';

/** Starts simulated benches as processes of their own, one a bench, and ends them with the server. */
export class BenchKeeper {
  private readonly children = new Map<string, ChildProcess>();

  constructor(
    private readonly log: Logger,
    /** the program of a simulated bench */
    private readonly program: string = path.join(path.dirname(fileURLToPath(import.meta.url)), 'simulatedBench.mjs'),
    private readonly execArgv: readonly string[] = [],
  ) {}

  start(order: BenchOrder): void {
    this.children.get(order.benchId)?.kill('SIGTERM');
    const child = fork(this.program, [], { stdio: ['ignore', 'ignore', 'ignore', 'ipc'], execArgv: [...this.execArgv] });
    child.on('error', (error) => this.log.warn({ name: error.name }, 'the simulated bench could not be started'));
    child.on('exit', () => {
      if (this.children.get(order.benchId) === child) this.children.delete(order.benchId);
    });
    child.send(order);
    this.children.set(order.benchId, child);
  }

  /** Whether this server plays a bench. Another server may play it too. */
  plays(benchId: string): boolean {
    return this.children.has(benchId);
  }

  close(): void {
    for (const child of this.children.values()) child.kill('SIGTERM');
  }
}
