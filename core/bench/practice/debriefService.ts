import { say } from '../../base/words/say.js';
import { formatMl, formatPercent, formatSpan } from '../../base/units/display.js';
import { gradeItem, SOUND, type ItemFindings } from '../inspection/grade.js';
import { rinseForecast } from '../runs/rinses.js';
import { line, type DebriefLine, type Saving, type Told } from './debriefLine.js';

/** What a practised service comes to: the jug, the old liquid that stays, the inspection sheet. */

/** what was written down may be off what ran by the larger of these (a jug read at a slant) */
const JUG_OFF_ML = 20;
const JUG_OFF_SHARE = 0.05;
/** s that one rinse takes with its drain (general estimate) */
const RINSE_TAKES_S = 720;

const sumMl = (of: readonly { readonly volumeMl: number }[]): number => of.reduce((sum, { volumeMl }) => sum + volumeMl, 0);

export function hiddenInService({ input: { report, procedure }, nameOf }: Told): string[] {
  const { finding } = report.truth;
  if (!procedure.service) return [];
  return [
    ...(finding ? [`${finding.findings.deposit === 'none' ? say('At its end') : say('Deposit')}: ${nameOf(finding.item)}.`] : []),
    ...(report.startMl === undefined ? [] : [say('{formatMl} stood inside when it came.', { formatMl: formatMl(report.startMl) })]),
  ];
}

export const onService = (told: Told): DebriefLine[] =>
  told.input.procedure.service ? [...onJug(told), ...onOldLiquid(told), ...onSheet(told)] : [];

/** What was written down against what ran into the jug. */
function onJug({ state, input: { report } }: Told): DebriefLine[] {
  const { drains } = state.service;
  const caught = report.caughtMl ?? 0;
  if (caught <= 0) return [];
  const written = sumMl(drains);
  const at = drains.at(-1)?.at ?? null;
  if (written <= 0)
    return [line('missed', say('{formatMl} ran into the jug, and none of it was written down.', { formatMl: formatMl(caught) }))];
  return [
    Math.abs(written - caught) > Math.max(JUG_OFF_ML, JUG_OFF_SHARE * caught)
      ? line(
          'missed',
          say('{formatMl} ran into the jug; {formatMl2} were written down.', { formatMl: formatMl(caught), formatMl2: formatMl(written) }),
          at,
        )
      : line(
          'good',
          say('What came out was measured: {formatMl} written down of {formatMl2}.', {
            formatMl: formatMl(written),
            formatMl2: formatMl(caught),
          }),
          at,
        ),
  ];
}

/** The share of the old liquid among what is inside at the end, where it was to be thinned. */
function onOldLiquid({ state, input: { report, procedure } }: Told): DebriefLine[] {
  const { service } = procedure;
  if (!service || state.pours.length === 0 || report.insideMl <= 0 || report.oldMl === undefined) return [];
  const share = report.oldMl / report.insideMl;
  const words = say('{formatPercent} of what is inside is the old liquid', { formatPercent: formatPercent(share) });
  if (!procedure.steps.some(({ kind }) => kind === 'rinse')) return [];
  return [
    share <= service.targetOldFraction
      ? line('good', say('{words}; at most {formatPercent} may be.', { words, formatPercent: formatPercent(service.targetOldFraction) }))
      : line(
          'missed',
          say('{words}; at most {formatPercent} may be: rinse until the book and the water say so.', {
            words,
            formatPercent: formatPercent(service.targetOldFraction),
          }),
        ),
  ];
}

/** Whether a line of the sheet says what the part looks like. */
const alike = (seen: ItemFindings, truth: ItemFindings): boolean =>
  (seen.deposit !== 'none') === (truth.deposit !== 'none') && seen.surface === truth.surface && seen.worn === truth.worn;

function onSheet({ state, input: { report, procedure }, nameOf }: Told): DebriefLine[] {
  const { sheet, swaps } = state.service;
  const { finding } = report.truth;
  const items = procedure.service?.items ?? [];
  return items.flatMap(({ id, kind }): DebriefLine[] => {
    const seen = sheet.get(id);
    if (finding?.item !== id)
      return seen && !alike(seen.first, SOUND)
        ? [line('missed', say('{nameOf} was sound; the sheet says otherwise.', { nameOf: nameOf(id) }))]
        : [];
    if (!seen) return sheet.size > 0 ? [line('missed', say('{nameOf} was not looked at.', { nameOf: nameOf(id) }))] : [];
    const want = gradeItem(kind, finding.findings).grade;
    const said = gradeItem(kind, seen.first).grade;
    if (said !== want && !alike(seen.first, finding.findings))
      return [line('missed', say('{nameOf} was not as sound as the sheet says.', { nameOf: nameOf(id) }))];
    const found = line('good', say('The sheet says what was wrong with {nameOf}.', { nameOf: nameOf(id) }));
    if (want === 'replace' && !swaps.some(({ item, action }) => item === id && action === 'replaced') && state.pours.length > 0)
      return [found, line('harm', say('{nameOf} went back in: it does not last to the next service.', { nameOf: nameOf(id) }))];
    const isGritty = finding.findings.deposit !== 'none' && (report.soaks ?? 0) < finding.soaks && state.pours.length > 0;
    return isGritty ? [found, line('missed', say('{nameOf} was still gritty when it went back in.', { nameOf: nameOf(id) }))] : [found];
  });
}

/** Rinses after the book was content and the water was clear. */
export function savedInService({ state, input: { procedure } }: Told): Saving[] {
  const { service } = procedure;
  const last = state.service.rinses.at(-1)?.at;
  if (!service || last === undefined) return [];
  const ofRinse = new Set(state.service.rinses.map(({ eventId }) => eventId));
  const flows = state.service.flows.filter(({ way, eventId }) => way !== 'in' || ofRinse.has(eventId));
  const { rinses, shares } = rinseForecast(service, { ...state, service: { ...state.service, flows } });
  const enough = shares.findIndex((share, index) => index > 0 && share <= service.targetOldFraction);
  const clear = state.service.waters.filter(({ clarity, at }) => clarity === 'clear' && at < last).length;
  const extra = enough < 0 ? 0 : Math.min(rinses - enough, clear);
  if (extra <= 0) return [];
  const savedS = extra * RINSE_TAKES_S;
  return [{ savedS, line: line('saving', `${extra === 1 ? 'One rinse' : `${extra} rinses`} more than the book and the water asked for. About ${formatSpan(savedS)}.`) }]; // prettier-ignore
}
