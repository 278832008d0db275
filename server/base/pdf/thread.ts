import { parentPort } from 'node:worker_threads';
import { paperPdf } from './paperPdf.js';
import type { Drawn, ToDraw } from './drawer.js';

/** Draws papers away from requests: one after the other, each answered by its number. */
parentPort?.on('message', async ({ number, paper, pictures }: ToDraw) => {
  const answer: Drawn = await paperPdf(paper, pictures).then(
    (pdf) => ({ number, pdf }),
    (error: unknown) => ({ number, problem: error instanceof Error ? error.message : 'unknown' }),
  );
  parentPort?.postMessage(answer);
});
