import { say } from '../../base/words/say.js';
import { shortName } from '../catalogue/names.js';
import { usualFans } from './fans.js';
import type { LoopFile } from '../loop-file/loopFile.js';
import { BOARD, SUPPLY, type ElectricalSheet, type Connector, type ConnectorKind } from './sheet.js';

const connector = (kind: ConnectorKind, name: string, given: Partial<Connector> = {}): Connector => ({
  id: kind,
  kind,
  name,
  from: SUPPLY,
  openWhy: null,
  cable: 'own',
  of: null,
  fans: null,
  ...given,
});

/** The connectors of any machine, as long as nobody wrote down its own: what meets a leak first is pulled first. */
export function usualConnectors(loop: LoopFile): Connector[] {
  const cards = loop.components.filter(({ kind, place }) => kind === 'block' && place === 'card').length;
  return [
    connector('board-main', say('Board main connector')),
    connector('board-processor', say('Board processor connector')),
    connector('card-power', cards > 1 ? say('Graphics card connectors, {cards} cards', { cards }) : say('Graphics card connectors')),
    connector('drive-power', say('Drives, lights and hubs')),
  ];
}

/** What a machine with these loops usually has: a sheet to begin from, with every pump and the fans of every radiator. */
export function usualSheet(loops: readonly { readonly id: string; readonly file: LoopFile }[]): ElectricalSheet {
  const [first] = loops;
  const parts = loops.flatMap(({ id, file }) => file.components.map((part) => ({ loopId: id, part })));
  const several = (kind: string): boolean => parts.filter(({ part }) => part.kind === kind).length > 1;
  const pumps = parts
    .filter(({ part }) => part.kind === 'pump')
    .map(({ loopId, part }) =>
      connector('pump', several('pump') ? say('Pump {name}', { name: shortName(part) }) : say('Pump'), { of: { loopId, part: part.id } }),
    );
  const fans = parts
    .filter(({ part }) => part.kind === 'radiator')
    .map(({ loopId, part }) =>
      connector('fans', say('Fans of {name}', { name: shortName(part) }), {
        from: BOARD,
        of: { loopId, part: part.id },
        fans: usualFans(part),
      }),
    );
  // hubs and lights have lines of their own on a sheet
  const board = first
    ? usualConnectors(first.file).map((each) => (each.kind === 'drive-power' ? { ...each, name: say('Drives') } : each))
    : [];
  const connectors = [...board, ...pumps, ...fans];
  return { supply: '', connectors: connectors.map((each, index) => ({ ...each, id: `p${index + 1}` })) };
}
