/** What hangs on what in a machine: every connector by the name that it has at this bench, so that what is pulled comes back by name. */

export const CONNECTOR_KINDS = {
  'board-main': { label: 'board, main' },
  'board-processor': { label: 'board, processor' },
  'card-power': { label: 'graphics card' },
  'drive-power': { label: 'drives' },
  pump: { label: 'pump' },
  fans: { label: 'fans' },
  hub: { label: 'hub or controller' },
  lights: { label: 'lights' },
  sensor: { label: 'sensor or meter' },
  other: { label: 'something else' },
} as const;
export type ConnectorKind = keyof typeof CONNECTOR_KINDS;
export const CONNECTOR_KIND_KEYS = Object.keys(CONNECTOR_KINDS) as ConnectorKind[];

/** Where power comes from, besides a hub, which is a connector of its own. */
export const SUPPLY = 'supply';
export const BOARD = 'board';

/** A part of one of the machine's loops: its pump, or the radiator that fans stand on. */
export interface PartOfLoop {
  readonly loopId: string;
  readonly part: string;
}

/** Where a supply's lead comes from. The same connector at the supply's end may be wired otherwise in another series: it burns what hangs on it. */
export const CABLES = {
  own: { label: 'came with this supply' },
  foreign: { label: 'of another supply' },
  unknown: { label: 'nobody knows' },
} as const;
export type Cable = keyof typeof CABLES;

export interface Connector {
  readonly id: string;
  readonly kind: ConnectorKind;
  readonly name: string;
  /** `supply`, `board`, or the id of a hub */
  readonly from: string;
  /** why it is not connected; null: it is */
  readonly openWhy: string | null;
  /** of a lead out of the supply */
  readonly cable: Cable;
  /** the pump that it drives, or the radiator that the fans stand on; null: none of a loop's, or not said */
  readonly of: PartOfLoop | null;
  /** of a group of fans: how many, and the edge of one in mm */
  readonly fans: { readonly count: number; readonly sizeMm: number } | null;
}

export interface ElectricalSheet {
  /** what the supply is called; empty: not noted */
  readonly supply: string;
  readonly connectors: readonly Connector[];
}

/** The machine's own sheet, and which of its loops the run is about. */
export interface OwnConnectors {
  readonly sheet: ElectricalSheet;
  readonly loopId: string;
}

const isConnectorOf = ({ of }: Connector, loopId: string): boolean => of?.loopId === loopId;
/** Connectors that this source feeds. */
export const fedBy = ({ connectors }: ElectricalSheet, source: string): Connector[] => connectors.filter(({ from }) => from === source);

/** Where the power of a connector comes from in the end; a hub is followed to what feeds it. */
export function rootOf(sheet: ElectricalSheet, { from }: Connector): typeof SUPPLY | typeof BOARD {
  const seen = new Set<string>();
  let source = from;
  while (source !== SUPPLY && source !== BOARD && !seen.has(source)) {
    seen.add(source);
    source = sheet.connectors.find(({ id }) => id === source)?.from ?? SUPPLY;
  }
  return source === BOARD ? BOARD : SUPPLY;
}

/** What is done with a connector so that only this loop's pump (and fans, as a load) is on power. */
export interface Isolated {
  /** `pulled` off the supply; `moved` off the dead board onto the supply; `left`: connected to nothing, whatever is pulled */
  readonly as: 'pulled' | 'moved' | 'left';
  readonly connector: Connector;
  /** hub or board that it is moved off; null: the supply */
  readonly off: string | null;
}

/**
 * What is pulled, moved and left in this machine while one of its loops is filled and tested: each lead out of the supply but this loop's
 * pump and fans; what hangs on the board is dead with it, so a pump there is moved onto the supply; a hub that feeds this pump stays, and
 * what else hangs on it is pulled there. Pumps of the machine's other loops are told of by those who know what is in them.
 */
export function isolated(sheet: ElectricalSheet, loopId: string): Isolated[] {
  const feedsOwnPump = (connector: Connector): boolean =>
    (connector.kind === 'pump' && isConnectorOf(connector, loopId)) ||
    (connector.kind === 'hub' && fedBy(sheet, connector.id).some(feedsOwnPump));
  const under = (source: string, off: string | null): Isolated[] =>
    fedBy(sheet, source).flatMap((connector): Isolated[] => {
      if (connector.openWhy !== null) return [];
      if (feedsOwnPump(connector)) return connector.kind === 'hub' ? under(connector.id, connector.name) : [];
      if (connector.kind === 'fans' || (connector.kind === 'pump' && connector.of)) return [];
      return [{ as: 'pulled', connector, off }];
    });
  const moved = sheet.connectors
    .filter(
      (connector) =>
        connector.kind === 'pump' && isConnectorOf(connector, loopId) && connector.openWhy === null && rootOf(sheet, connector) === BOARD,
    )
    .map((connector): Isolated => ({
      as: 'moved',
      connector,
      off: sheet.connectors.find(({ id }) => id === connector.from)?.name ?? null,
    }));
  const left = sheet.connectors
    .filter(({ openWhy }) => openWhy !== null)
    .map((connector): Isolated => ({ as: 'left', connector, off: null }));
  return [...under(SUPPLY, null), ...moved, ...left];
}

/** Leads out of the supply that did not come with it, or of which nobody knows. */
export const doubtfulCables = (sheet: ElectricalSheet): Connector[] => fedBy(sheet, SUPPLY).filter(({ cable }) => cable !== 'own');

/** Groups of fans that stand on a loop's radiators. */
export const fanGroupsOf = ({ connectors }: ElectricalSheet, loopId: string): Connector[] =>
  connectors.filter((each) => each.kind === 'fans' && isConnectorOf(each, loopId));

/** What a run found of the connectors: pulled and not back, connected at last, pulled although no sheet knew it. */
export interface ConnectorsAfter {
  readonly open: readonly { readonly id: string; readonly why: string }[];
  readonly connected: readonly string[];
  readonly more: readonly { readonly name: string; readonly openWhy: string | null }[];
}

/** letters of a reason on the sheet; a run's may be longer, and stands whole in its log */
export const MOST_WHY = 200;

/** The sheet as a run leaves it. */
export function sheetAfter(sheet: ElectricalSheet, { open, connected, more }: ConnectorsAfter): ElectricalSheet {
  const known = new Set(sheet.connectors.map(({ name }) => name.toLowerCase()));
  const whyOf = new Map(open.map(({ id, why }) => [id, why.slice(0, MOST_WHY)]));
  const fresh = more.filter(({ name }) => !known.has(name.toLowerCase()));
  return {
    ...sheet,
    connectors: [
      ...sheet.connectors.map((connector) =>
        connected.includes(connector.id)
          ? { ...connector, openWhy: null }
          : whyOf.has(connector.id)
            ? { ...connector, openWhy: whyOf.get(connector.id) as string }
            : connector,
      ),
      ...fresh.map(({ name, openWhy }, index): Connector => ({
        id: freshConnectorId(sheet, index),
        kind: 'other',
        name,
        from: SUPPLY,
        openWhy,
        cable: 'unknown',
        of: null,
        fans: null,
      })),
    ],
  };
}

/** An id that no connector of the sheet has; `ahead` further ones may be asked for before any is in. */
export function freshConnectorId({ connectors }: ElectricalSheet, ahead = 0): string {
  const highest = connectors.reduce((most, { id }) => Math.max(most, Number(/^p(\d+)$/.exec(id)?.[1] ?? 0)), 0);
  return `p${highest + 1 + ahead}`;
}
