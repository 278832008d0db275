import { say } from '../../../core/base/words/say.js';
import { HINDERED_BYPASS } from '../../../core/edge/words/bypass.js';
import { bypassPart, cannotBypass } from '../../../core/machine/drawing/bypass.js';
import { partName, type LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { jointAgainst } from '../../../core/bench/runs/locks.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import { wouldLeave } from '../../../core/bench/runs/wouldLeave.js';
import { heldByBook } from '../../../core/bench/services/changedLoop.js';
import type { BypassInput } from '../../../core/bench/services/bypassSchema.js';
import { formatMl } from '../../../core/base/units/display.js';
import { refusedBy } from '../runs/append.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { goOnWith, runInProgress } from './goOn.js';

/** mL that may run at the part's joints when they are undone: drops */
const MAY_RUN_ML = 5;

/**
 * A part is left out of the loop in the middle of a run. The loop gets a revision without it, what is inside passes over to that, and
 * what is still to come (joints to test, what to pour) is made for it.
 */
export async function bypass(ask: Ask, input: BypassInput) {
  const { clock } = ask;
  const { row, state, own } = await runInProgress(ask);
  demandReady(row.procedure, state, own.file, input.part, clock.now().getTime());
  const left = bypassPart(own.file, input.part);
  const heldMl = input.heldMl ?? Math.round(heldByBook(row.procedure, state, input.part) ?? 0);
  const name = nameOf(own.file, input.part);
  return goOnWith(ask, {
    row,
    kind: own.kind,
    file: left.loop,
    reason: say('left out: {name} ({text})', { name, text: input.text }),
    gone: [input.part, left.goneTube],
    body: { type: 'bypassed', step: stepNow(row.procedure, state), item: input.part, goneTube: left.goneTube, text: input.text, heldMl },
  });
}

const nameOf = ({ components }: LoopFile, id: string): string => {
  const part = components.find((each) => each.id === id);
  return part ? partName(part) : id;
};

/** The step that an entry of a changed loop belongs to. */
export const stepNow = ({ steps }: Procedure, { current }: RunState): string => current ?? steps[0]?.id ?? 'kit';

/** Before its joints are undone: the pump stands, no air is pressed in, and nothing would run out of them. */
function demandReady(procedure: Procedure, state: RunState, file: LoopFile, part: string, nowMs: number): void {
  const hindered = cannotBypass(file, part);
  if (hindered) throw new DomainError('refused', `${nameOf(file, part)} ${say(HINDERED_BYPASS[hindered])}`);
  const [locked] = jointAgainst(procedure, state);
  if (locked) throw refusedBy(procedure, { code: 'interlock', fact: locked.fact, rule: locked.rule, mayOverride: false });
  const runs = file.tubes
    .filter(({ from, to }) => from[0] === part || to[0] === part)
    .map(({ id }) => wouldLeave(procedure, state, id, nowMs)?.alone ?? 0);
  const most = Math.max(0, ...runs);
  if (most > MAY_RUN_ML)
    throw new DomainError(
      'refused',
      say('About {formatMl} would run where {nameOf} is undone: draw it down first.', {
        formatMl: formatMl(most),
        nameOf: nameOf(file, part),
      }),
    );
}
