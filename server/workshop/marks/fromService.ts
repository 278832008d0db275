import type { RunState } from '../../../core/bench/runs/state.js';
import { tookOut } from '../../../core/bench/runs/state.js';
import type { LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import type { HandMark } from '../../../core/workshop/marks/schema.js';
import { machineMark } from '../../base/database/tables/logs.js';
import type { Scope } from '../../base/database/client.js';
import { refreshCondition } from '../../machine/condition/condition.js';
import { redate } from '../due-dates/redate.js';

interface Served {
  readonly workshopId: string;
  readonly systemId: string;
  readonly jobId: string;
  readonly personId: string;
  readonly on: string;
  readonly at: Date;
}

/** `card:<block>:wipe`: the card was separated and got new paste */
const CARD_WIPED = /^card:(.+):wipe$/;

/** What a service did that moves its machine's readings: ticks that tell of new paste, blocks that were exchanged. */
function marksOf({ steps, service }: RunState, file: LoopFile): { kind: HandMark; part: string | null }[] {
  const done = steps.flatMap(({ does, checks }) =>
    Object.entries(checks).flatMap(([id, { mark }]) => (mark === 'done' ? [{ id, isClosed: does.includes('dusts') }] : [])),
  );
  const blocks = new Set(file.components.filter(({ kind }) => kind === 'block').map(({ id }) => id));
  return [
    ...(done.some(({ id, isClosed }) => isClosed && id === 'paste') ? [{ kind: 'paste' as const, part: null }] : []),
    // a card is ticked in more than one step: it got its paste once
    ...[...new Set(done.flatMap(({ id }) => CARD_WIPED.exec(id)?.[1] ?? []))].map((part) => ({ kind: 'paste' as const, part })),
    ...service.swaps.filter((swap) => tookOut(swap) && blocks.has(swap.item)).map(({ item }) => ({ kind: 'part' as const, part: item })),
  ];
}

/** Keeps them; what was read before says nothing of what comes after. */
export async function keepMarks(scope: Scope, state: RunState, file: LoopFile, { on, at, ...own }: Served): Promise<void> {
  const marks = marksOf(state, file);
  if (marks.length === 0) return;
  await scope.insert(machineMark).values(marks.map((mark) => ({ ...own, ...mark, doneOn: on, createdAt: at })));
  await refreshCondition(scope, own.systemId);
  await redate(scope, { systemId: own.systemId });
}
