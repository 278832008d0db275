import { say, sayWord } from '../../../base/words/say.js';
import Joi from 'joi';
import { STANDING } from '../../../machine/loop-file/orientation.js';
import { positiveMl } from '../../../base/checking/fields.js';
import { formatMl } from '../../../base/units/display.js';
import { refusal, type EntryDefinition } from '../entry.js';
import type { OutflowWay } from '../state.js';
import { key, oneOf } from './fields.js';

/** How liquid left that was poured: it is not inside. */
export const OUTFLOWS: readonly OutflowWay[] = ['ran-over', 'drawn-off', 'spilled'];

export const OUTFLOW_WORDS: Readonly<Record<OutflowWay, string>> = {
  'ran-over': 'Ran over',
  'drawn-off': 'Drawn off',
  spilled: 'Spilled',
};

/** Standard deviations above the book beyond which a draw is a slip of the finger. */
const MOST_OVER_SD = 4;

export interface OutflowEntry {
  readonly type: 'outflow';
  readonly way: OutflowWay;
  readonly volumeMl: number;
  /** drawn down for a joint or a part to be undone, and kept clean: it goes back in */
  readonly kept?: boolean;
  /** the valve it was drawn at; missing: by hose out of the reservoir */
  readonly at?: string;
}

export const outflow: EntryDefinition<OutflowEntry> = {
  schema: { way: oneOf(OUTFLOWS).required(), volumeMl: positiveMl().max(20_000).required(), kept: Joi.boolean(), at: key },
  belongs: 'anytime',
  moves: (book, { way, volumeMl, kept, at }, { stand, openPorts }) => {
    if (way !== 'drawn-off') return book.ranOver(volumeMl);
    if (!kept) return book.drawnOff(volumeMl);
    const tilt = STANDING[stand.to];
    if (at === undefined) book.drawnOff(volumeMl, { tilt, open: [...openPorts] });
    else
      book.cameOut(volumeMl, {
        tilt,
        setup: { open: [...openPorts].filter((port) => port !== at), drains: [at], closed: [] },
      });
    return book.opened();
  },
  apply: (state, { way, volumeMl, kept }, { eventId, at }) => {
    state.outflows.push({ eventId, at, way, volumeMl, ...(kept ? { kept } : {}) });
    state.service.flows.push({ eventId, at, way: way === 'drawn-off' ? 'out' : 'lost', liquid: 'coolant', volumeMl });
  },
  refuse: ({ way, volumeMl, kept, at }, { procedure: { facts }, state }) => {
    if (at !== undefined && facts && !facts.ports.some(({ name }) => name === at))
      return refusal('unknown-item', { why: 'unknown-port', name: at });
    const { insideMl, insideSdMl } = state.contents;
    const mostMl = insideMl === null ? Infinity : Math.max(0, insideMl) + MOST_OVER_SD * insideSdMl;
    return way === 'drawn-off' && kept && volumeMl > mostMl
      ? refusal('unsafe', { why: 'too-much-out', ml: volumeMl, insideMl: Math.max(0, insideMl ?? 0) })
      : null;
  },
  reads: ({ way, volumeMl, kept, at }, { portOf }) =>
    kept
      ? say('Drawn down: {formatMl} {say}, kept clean', {
          formatMl: formatMl(volumeMl),
          say: at === undefined ? say('out of the reservoir') : say('at {portOf}', { portOf: portOf(at) }),
        })
      : say('{way}: about {formatMl}', { way: sayWord(OUTFLOW_WORDS[way]), formatMl: formatMl(volumeMl) }),
};
