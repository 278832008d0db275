import { Worker } from 'node:worker_threads';
import type { Paper } from '../../../core/edge/papers/paper.js';
import type { DrawPaper, Pictures } from './paperPdf.js';

export interface ToDraw {
  readonly number: number;
  readonly paper: Paper;
  readonly pictures: Pictures;
}
export type Drawn = { readonly number: number } & ({ readonly pdf: Uint8Array } | { readonly problem: string });

interface Waiting {
  readonly done: (pdf: Uint8Array) => void;
  readonly failed: (error: Error) => void;
}

/** Papers are drawn in a thread of their own, started with the first one: no request waits while fonts are read and pages are set. */
export class PaperDrawer {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private last = 0;

  /** @param file the built thread */
  constructor(private readonly file: string) {}

  readonly draw: DrawPaper = (paper, pictures) =>
    new Promise((done, failed) => {
      const number = (this.last += 1);
      this.waiting.set(number, { done, failed });
      this.started().postMessage({ number, paper, pictures } satisfies ToDraw);
    });

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(this.file);
    worker.unref();
    worker.on('message', (answer: Drawn) => {
      const own = this.waiting.get(answer.number);
      this.waiting.delete(answer.number);
      if ('pdf' in answer) own?.done(answer.pdf);
      else own?.failed(new Error(answer.problem));
    });
    const end = (): void => {
      if (this.worker !== worker) return;
      this.worker = null;
      for (const { failed } of this.waiting.values()) failed(new Error('the thread that draws papers ended'));
      this.waiting.clear();
    };
    worker.on('error', end);
    worker.on('exit', end);
    this.worker = worker;
    return worker;
  }

  close(): void {
    void this.worker?.terminate();
  }
}
