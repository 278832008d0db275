import { say } from '../../base/words/say.js';
import { formatMoney } from '../../workshop/prices/money.js';
import type { Priced } from '../../workshop/prices/priced.js';
import { lineAmount, lineEach, lineName, taxWords, totalWords } from '../words/prices.js';
import type { Block } from './paper.js';

/** An estimate or a bill line by line, as a table of a paper. */
export const priceTable = (caption: string, priced: Priced): Block => ({
  kind: 'table',
  caption,
  head: [say('What'), say('How much'), say('Each'), say('Sum')],
  rows: priced.lines.map((line) => [
    lineName(line),
    lineAmount(line),
    lineEach(line, priced.currency),
    line.sumMinor === null ? '–' : formatMoney(line.sumMinor, priced.currency),
  ]),
  foot: [say('In all'), '', taxWords(priced), totalWords(priced)],
  figures: [1, 2, 3],
});
