import { formatKpa, formatMl } from '../units/display.js';
import type { StandingName } from '../geometry/orientation.js';
import { describeServiceEntry } from '../jobs/describeEntry.js';
import { isServiceEntry } from '../jobs/entries.js';
import type { Override, ReadingSource, RunEvent, RunEventBody } from './events.js';
import type { Procedure } from './procedure.js';

/** One entry of the log as a sentence, readable years later without the procedure at hand. */
export function describeEntry(procedure: Procedure, event: RunEvent, all: readonly RunEvent[]): string {
  return sentence(procedure, event.body, all);
}

const placeName = ({ facts }: Procedure, id: string): string =>
  [...(facts?.parts ?? []), ...(facts?.joints ?? [])].find((each) => each.id === id)?.name ?? id;
const passedOver = (override: Override | undefined): string => (override ? `, interlock passed over: ${override.reason}` : '');
const SOURCE_WORDS: Record<ReadingSource, string> = { hand: '', instrument: ', by instrument', simulated: ', by a simulated instrument' };
const fromInstrument = (source: ReadingSource | undefined): string => SOURCE_WORDS[source ?? 'hand'];

const STAND_WORDS: Record<StandingName, string> = {
  upright: 'upright',
  'on-back': 'towards its back',
  'on-face': 'towards its face',
  'on-window-side': 'towards its window side',
  'on-blind-side': 'towards its blind side',
  'upside-down': 'upside down',
};

function sentence(procedure: Procedure, body: RunEventBody, all: readonly RunEvent[]): string {
  if (isServiceEntry(body)) return describeServiceEntry(procedure, body);
  const step = 'step' in body ? procedure.steps.find(({ id }) => id === body.step) : undefined;
  switch (body.type) {
    case 'check': {
      const text = step?.checks.find(({ id }) => id === body.check)?.text ?? body.check;
      return body.mark === 'done' ? text : body.mark === 'open' ? `Unticked: ${text}` : `Not needed: ${text} (${body.reason ?? ''})`;
    }
    case 'note':
      return `Note: ${body.text}`;
    case 'timer-started':
      return `Timer started: ${step?.timers.find(({ id }) => id === body.timer)?.label ?? body.timer}`;
    case 'timer-stopped':
      return `Timer stopped: ${step?.timers.find(({ id }) => id === body.timer)?.label ?? body.timer}`;
    case 'dry-reading':
      return `Gauge ${formatKpa(body.gaugeKpa)} at ${body.tempC.toFixed(1)} °C${fromInstrument(body.source)}`;
    case 'pump':
      return `Pump ${body.on ? 'on' : 'off'}${fromInstrument(body.source)}${passedOver(body.override)}`;
    case 'port':
      return `${body.open ? 'Opened' : 'Closed'}: ${procedure.facts?.ports.find(({ name }) => name === body.port)?.label ?? body.port}${passedOver(body.override)}`;
    case 'joint':
      return `${body.open ? 'Joint undone' : 'Joint closed'}: ${placeName(procedure, body.joint)}`;
    case 'turn':
      return body.angleDeg === 0
        ? 'Case upright'
        : `Case turned ${STAND_WORDS[body.to]}, ${Math.round(body.angleDeg)}°${passedOver(body.override)}`;
    case 'level':
      return `Level: ${formatMl(body.levelMl)} in the reservoir${fromInstrument(body.source)}`;
    case 'doubt':
      return `Felt wrong: ${placeName(procedure, body.part)} (${body.text})`;
    case 'part-test':
      return `Tested alone: ${placeName(procedure, body.part)} is ${body.tight ? 'tight' : 'leaking'} (${body.how})${body.leftMl > 0 ? `, ${formatMl(body.leftMl)} stay inside` : ''}`;
    case 'leak':
      return `Leak found at ${placeName(procedure, body.at)}: a ${body.amount}${body.text ? `, ${body.text}` : ''}`;
    case 'leak-mended':
      return `Leak mended: ${body.cause}, ${body.fix}`;
    case 'leak-retested':
      return body.dry ? 'Joint tested again: dry' : 'Joint tested again: still leaking';
    case 'spill':
      return `Spill${body.onElectronics ? ' on electronics' : ''}: ${body.text}`;
    case 'spill-rinsed':
      return `Rinsed with ${body.with}; drying since`;
    case 'dry-restarted':
      return `Dry test started again: ${body.reason}`;
    case 'coolant':
      return `Coolant: ${body.productName}${body.lot ? `, lot ${body.lot}` : ''}`;
    case 'pour':
      return `Poured ${formatMl(body.volumeMl)}${fromInstrument(body.source)}`;
    case 'bleed-cycle':
      return `Level ${body.runningMm} mm running, ${body.stoppedMm} mm stopped${body.bubbles ? ', bubbles at the return' : ''}${body.noise ? ', pump sounds of air' : ''}${fromInstrument(body.source)}`;
    case 'baseline':
      return `${body.before ? 'Before' : 'Baseline'}, ${body.reading.setting}: ${body.reading.sensor} ${body.reading.partC.toFixed(1)} °C in a room of ${body.reading.roomC.toFixed(1)} °C`;
    case 'step-done':
      return `Done: ${step?.title ?? body.step}`;
    case 'deviation':
      return `Passed over with a reason: ${step?.title ?? body.step} (${body.reason})`;
    case 'withdrawn': {
      const target = all.find(({ id }) => id === body.event);
      return `Taken back: ${target ? sentence(procedure, target.body, all) : 'an entry'}`;
    }
    case 'signed-off':
      return `Signed off${body.remark ? `: ${body.remark}` : ''}`;
    case 'correction':
      return `Correction: ${body.text}`;
  }
}
