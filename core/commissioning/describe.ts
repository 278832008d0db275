import { formatKpa, formatMl } from '../units/display.js';
import type { RunEvent, RunEventBody } from './events.js';
import type { Procedure } from './procedure.js';

/** One entry of the log as a sentence, readable years later without the procedure at hand. */
export function describeEntry(procedure: Procedure, event: RunEvent, all: readonly RunEvent[]): string {
  return sentence(procedure, event.body, all);
}

function sentence(procedure: Procedure, body: RunEventBody, all: readonly RunEvent[]): string {
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
      return `Gauge ${formatKpa(body.gaugeKpa)} at ${body.tempC.toFixed(1)} °C`;
    case 'dry-restarted':
      return `Dry test started again: ${body.reason}`;
    case 'coolant':
      return `Coolant: ${body.productName}${body.lot ? `, lot ${body.lot}` : ''}`;
    case 'pour':
      return `Poured ${formatMl(body.volumeMl)}`;
    case 'bleed-cycle':
      return `Level ${body.runningMm} mm running, ${body.stoppedMm} mm stopped${body.bubbles ? ', bubbles at the return' : ''}${body.noise ? ', pump sounds of air' : ''}`;
    case 'baseline':
      return `Baseline, ${body.reading.setting}: ${body.reading.sensor} ${body.reading.partC.toFixed(1)} °C in a room of ${body.reading.roomC.toFixed(1)} °C`;
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
