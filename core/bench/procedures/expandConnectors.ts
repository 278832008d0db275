import { say } from '../../base/words/say.js';
import { doubtfulCables, isolated, type Isolated, type OwnConnectors, type Connector } from '../../machine/electrical/sheet.js';
import { usualConnectors } from '../../machine/electrical/usual.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { BACK, leadOf, PULLED, SUPPLY_CABLES } from '../runs/checkIds.js';
import type { PumpBeside } from '../runs/facts.js';
import type { CheckItem } from '../runs/procedure.js';

export interface ConnectorsOf {
  readonly loop: LoopFile;
  readonly pumpsBeside: readonly PumpBeside[];
  readonly connectors: OwnConnectors | null;
}

/** One connector on its way off and back. */
interface Lead {
  readonly id: string;
  readonly name: string;
  /** null: nothing is pulled, it only comes on */
  readonly off: string | null;
  readonly back: string;
  readonly mayNotApply?: boolean;
}

/** Two loops on one supply: the pump of the one that is still dry would run with the other. */
const pumpsOfOthers = (pumps: readonly PumpBeside[]): Lead[] =>
  pumps.map(({ id, name, loop, isFilled }) => ({
    id: `pump:${id}`,
    name: say('Pump connector of {name}', { name }),
    off: isFilled
      ? say('Pump connector of {name} ({loop}) pulled: it would run with this loop’s', { name, loop })
      : say('Pump connector of {name} pulled until {loop} is filled', { name, loop }),
    back: isFilled
      ? say('Pump connector of {name} ({loop}) back in', { name, loop })
      : say('Pump connector of {name} back in only where {loop} is filled by now; else it stays pulled', { name, loop }),
  }));

/** The board is dead without both of its own; of the rest a machine may have lost one since. */
const mayNotApply = ({ kind }: Connector): { mayNotApply?: true } =>
  kind === 'board-main' || kind === 'board-processor' ? {} : { mayNotApply: true };

function leadOfConnector({ as, connector, off }: Isolated): Lead {
  const { id, kind, name, openWhy } = connector;
  const own = { id: leadOf(kind, id), name, ...mayNotApply(connector) };
  if (as === 'left')
    return {
      ...own,
      off: null,
      back: say('Connected, it was not until now ({why}): {name}', { name, why: openWhy ?? '' }),
      mayNotApply: true,
    };
  if (as === 'moved')
    return {
      ...own,
      off: say('Moved off the {source}, dead now, onto the supply by a lead of its own: {name}', { name, source: off ?? say('board') }),
      back: say('Moved back to the {source}, its own lead out: {name}', { name, source: off ?? say('board') }),
    };
  return {
    ...own,
    off: off === null ? say('Pulled: {name}', { name }) : say('Pulled off {source}: {name}', { name, source: off }),
    back: say('Reconnected: {name}', { name }),
  };
}

/** Connectors to pull, so that a leak meets dead electronics: the machine's own, or those of any. Each comes back by name in the return to power. */
function leads({ loop, pumpsBeside, connectors }: ConnectorsOf): Lead[] {
  const own = connectors
    ? isolated(connectors.sheet, connectors.loopId).map(leadOfConnector)
    : usualConnectors(loop).map((connector) => leadOfConnector({ as: 'pulled', connector, off: null }));
  return [...own, ...pumpsOfOthers(pumpsBeside)];
}

export const pulledChecks = (given: ConnectorsOf): CheckItem[] =>
  leads(given).flatMap(({ id, name, off, mayNotApply: may }): CheckItem[] =>
    off === null ? [] : [{ id: `${PULLED}${id}`, text: off, lead: name, beforePower: true, ...(may ? { mayNotApply: true } : {}) }],
  );

/** A lead of another supply burns what hangs on it: nothing is powered before each was looked at. */
function cableCheck(connectors: OwnConnectors | null): CheckItem[] {
  const doubtful = connectors ? doubtfulCables(connectors.sheet) : [];
  if (!connectors || doubtful.length === 0) return [];
  const names = doubtful.map(({ name }) => name).join(', ');
  const supply = connectors.sheet.supply || say('this supply');
  return [
    {
      id: SUPPLY_CABLES,
      text: say('Leads that came with {supply}, or each pin measured before power: {names}', { supply, names }),
      beforePower: true,
    },
  ];
}

export const backChecks = (given: ConnectorsOf): CheckItem[] => [
  ...cableCheck(given.connectors),
  ...leads(given).map(({ id, name, back }): CheckItem => ({
    id: `${BACK}${id}`,
    text: back,
    lead: name,
    mayNotApply: true,
    beforePower: true,
  })),
];

/** Groups of fans by name, for the look at each. */
export function fanWords(connectors: OwnConnectors | null): string {
  const groups = connectors?.sheet.connectors.filter(({ kind, openWhy }) => kind === 'fans' && openWhy === null) ?? [];
  return groups.length === 0
    ? say('every fan')
    : groups.map(({ name, fans }) => (fans ? say('{name} × {count}', { name, count: fans.count }) : name)).join(', ');
}
