import { sheetAfter, type ElectricalSheet, type ConnectorsAfter } from '../../machine/electrical/sheet.js';
import { usualConnectors } from '../../machine/electrical/usual.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { procedureNow } from './alsoPulled.js';
import { BACK, leadBeside, connectorOf, PULLED } from './checkIds.js';
import { stepThat, type CheckItem, type Procedure } from './procedure.js';
import { marksOf, type CheckState, type RunState } from './state.js';

interface Way {
  /** where it came back, or was said not to */
  readonly check: CheckItem;
  readonly off: CheckState | undefined;
  readonly back: CheckState | undefined;
}

/** Every connector of the return to power, with what was said of it on both ways. */
function ways(procedure: Procedure, state: RunState): Way[] {
  const off = marksOf(state, stepThat(procedure, 'isolates')?.id);
  return procedureNow(procedure, state)
    .steps.filter(({ kind }) => kind === 'power')
    .flatMap(({ id, checks }) =>
      checks
        .filter((check) => check.id.startsWith(BACK))
        .map((check) => ({ check, off: off[`${PULLED}${check.id.slice(BACK.length)}`], back: marksOf(state, id)[check.id] })),
    );
}

/** What was pulled, or was not connected before, and stays off: with the reason that somebody gave. */
export const stillOff = (procedure: Procedure, state: RunState): { id: string; lead: string; why: string }[] =>
  ways(procedure, state).flatMap(({ check: { id, lead, text }, off, back }) =>
    back?.mark === 'not-needed' && off?.mark !== 'not-needed' ? [{ id, lead: lead ?? text, why: back.reason ?? '' }] : [],
  );

/** What a run tells of the machine's connectors. */
function connectorsAfter(procedure: Procedure, state: RunState): ConnectorsAfter {
  const off = stillOff(procedure, state);
  return {
    open: off.flatMap(({ id, why }) => {
      const connector = connectorOf(id);
      return connector === null ? [] : [{ id: connector, why }];
    }),
    connected: ways(procedure, state).flatMap(({ check: { id }, back }) => (back?.mark === 'done' ? (connectorOf(id) ?? []) : [])),
    more: state.alsoPulled.map(({ line, name }) => ({
      name,
      openWhy: off.find(({ id }) => id === `${BACK}${leadBeside(line)}`)?.why ?? null,
    })),
  };
}

/**
 * The machine's sheet as the run leaves it. A machine without one gets it once there is something to remember: the connectors that any
 * machine has, as far as this one had them.
 * @returns null where nothing is to be kept
 */
export function sheetAfterRun(
  sheet: ElectricalSheet | null,
  loop: LoopFile,
  procedure: Procedure,
  state: RunState,
): ElectricalSheet | null {
  const after = connectorsAfter(procedure, state);
  if (sheet) return sheetAfter(sheet, after);
  if (after.open.length === 0 && after.more.length === 0) return null;
  const lacks = new Set(ways(procedure, state).flatMap(({ check: { id }, off }) => (off?.mark === 'not-needed' ? [connectorOf(id)] : [])));
  const known = usualConnectors(loop).filter(({ id }) => !lacks.has(id));
  return sheetAfter({ supply: '', connectors: known }, after);
}
