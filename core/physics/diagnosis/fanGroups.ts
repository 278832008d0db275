import { BOARD, SUPPLY, type ElectricalSheet } from '../../machine/electrical/sheet.js';
import type { FanGroup } from './loadReading.js';

/** Groups of fans that a machine's connectors name, as a reading asks after them: who turns them is where they hang. */
export const groupsToRead = (sheet: ElectricalSheet | null): Omit<FanGroup, 'speed'>[] =>
  (sheet?.connectors ?? [])
    .filter(({ kind, openWhy }) => kind === 'fans' && openWhy === null)
    .map(({ name, from }) => ({ name, by: from === BOARD ? 'board' : from === SUPPLY ? 'fixed' : 'hub' }));
