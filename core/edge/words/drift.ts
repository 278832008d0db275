import { formatDay } from '../../base/units/dates.js';
import { digitsIn, formatIn, formatPercent, grouped } from '../../base/units/display.js';
import { say } from '../../base/words/say.js';
import type { FlowSeries } from '../../physics/condition/flowSeries.js';
import type { LevelDrift } from '../../physics/condition/level.js';
import type { Obstruction } from '../../physics/diagnosis/obstruction.js';

const bare = (value: number): string => digitsIn('mm', Math.abs(value), 1);
const mm = (value: number): string => formatIn('mm', Math.abs(value), 1);

/** Why a level falls, in a sentence. */
export function levelWords({ verdict, mmPerMonth, sdMm, vapour, settledMm, points }: LevelDrift): string {
  const rate = { rate: bare(mmPerMonth ?? 0), sd: mm(sdMm ?? 0) };
  const walls = vapour === null ? '' : say('{low} to {high} a month', { low: bare(vapour.lowMm), high: mm(vapour.highMm) });
  switch (verdict) {
    case 'cannot-tell':
      return vapour === null && mmPerMonth !== null
        ? say('It falls by {rate} ± {sd} a month; nobody knows these walls, so vapour cannot be told from a leak.', rate)
        : say('Cannot tell yet: read it once in the first days after the fill, and again some weeks later.');
    case 'steady':
      return mmPerMonth === null ? say('Stands at its mark.') : say('Stands: what it moved may as well be the eye.');
    case 'air-home':
      return say('Fell by {settled} beyond vapour in the first days: the last air came home. Read it once more in some weeks.', {
        settled: mm(settledMm),
      });
    case 'vapour':
      return say('Falls by {rate} ± {sd} a month: vapour through the walls, which take {walls}.{before}', {
        ...rate,
        walls,
        before: settledMm > 0 ? say(' Before that {settled} of air came home.', { settled: mm(settledMm) }) : '',
      });
    case 'leak':
      return say('Falls by {rate} ± {sd} a month; the walls take {walls}. Look for a leak.', { ...rate, walls });
    case 'rises':
      return say('Rises by {rate} ± {sd} a month: air grows somewhere, or it was read warm. Read it cold, after {on}.', {
        ...rate,
        on: formatDay(points.at(-1)?.on ?? ''),
      });
  }
}

/** What the flow says, and what would explain it. */
export function flowWords({ best, now, pumpSpeed }: FlowSeries, found: Obstruction | null): string {
  if (best === null || now === null) return say('Never read at the pump’s usual setting.');
  const at = pumpSpeed === null ? '' : say(' at {percent} of the pump', { percent: formatPercent(pumpSpeed) });
  const plain = say('{now} now, {best} on its best days{at}.', { now: formatIn('L/h', now), best: formatIn('L/h', best), at });
  if (!found) return plain;
  return say('{plain} A resistance of {quadratic} ± {sd} kPa/(L/min)² explains it: {drop} at this flow.', {
    plain,
    quadratic: grouped(found.quadratic, 2),
    sd: grouped(Math.max(0.01, found.sd), 2),
    drop: formatIn('kPa', found.kpa, 1),
  });
}
