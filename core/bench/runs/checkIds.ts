import { CONNECTOR_KINDS, type ConnectorKind } from '../../machine/electrical/sheet.js';

/** Ids of checks that mean something to the rules. */

/** a connector that was pulled */
export const PULLED = 'pulled:';
/** the same one brought back */
export const BACK = 'back:';
export const backOf = (pulled: string): string => `${BACK}${pulled.slice(PULLED.length)}`;
/** a connector by what it is and its place on the machine's own sheet; without a sheet it is known by what it is alone */
export const leadOf = (kind: ConnectorKind, connector: string): string => (connector === kind ? kind : `${kind}:${connector}`);
/** a connector that no sheet knew, written down as it was pulled */
export const leadBeside = (line: string): string => `beside:${line}`;
/** The connector of the machine's sheet that such a check is about; null: it stands on none. */
export function connectorOf(check: string): string | null {
  const [kind = '', id] = check.slice(check.indexOf(':') + 1).split(':');
  return Object.hasOwn(CONNECTOR_KINDS, kind) ? (id ?? kind) : null;
}
/** loads that a lead may allow to stay on the supply; the board’s main connector never (the jumper goes where it was), nor a pump */
const MAY_STAY: readonly ConnectorKind[] = ['board-processor', 'card-power', 'drive-power', 'lights', 'hub', 'other'];
export const loadMayStay = (check: string): boolean =>
  check.startsWith(PULLED) && MAY_STAY.some((kind) => kind === check.slice(PULLED.length).split(':')[0]);
/** leads that did not come with the supply */
export const SUPPLY_CABLES = 'supply-cables';
/** the one check of the return to power that comes before any power: it may be ticked while electronics still dry */
export const SUPPLY_OFF_AGAIN = 'supply-off-again';
/** the level stays at the mark and liquid comes back */
export const LEVEL_STAYS = 'level-stays';
/** the air of a passed test was let out again */
export const AIR_OUT = 'air-out';
/** the machine on a scale, before the first pour and once the last one is in */
export const WEIGHED = { before: 'weighed-before', after: 'weighed-after' } as const;
/** fins and fans are free of dust */
export const FINS = 'fins';
/** blocks are on new paste */
export const PASTE_ON = 'paste';
