import { say } from '@core/base/words/say.js';
import { isStoredUnit, storedFrom, unitName, type StoredUnit } from '@core/base/units/shown.js';
import { digitsIn, formatIn, grouped, plainIn } from '@core/base/units/display.js';
import { expansionMl, levelAtReferenceMm } from '@core/physics/air/referenceLevel.js';
import { airFromRiseMl } from '@core/physics/air/rise.js';
import { InputProblem } from '@core/base/checking/input.js';
import { cutList } from '@core/machine/shop-sums/cutList.js';
import { doseConcentrate } from '@core/machine/shop-sums/dose.js';
import { planRinses } from '@core/machine/shop-sums/rinse.js';
import { wallLoss } from '@core/machine/shop-sums/wallLoss.js';
import { holdMinutes } from '@core/physics/leak-testing/hold.js';
import { TUBE_MATERIAL_NAMES, TUBE_MATERIALS, type TubeMaterialName } from '@core/machine/materials/tubes.js';
import { SCREWS, screwsOfStack, STOCK_SCREWS_MM, USUAL_STACK } from '@core/machine/shop-sums/fanScrews.js';
import { STANDARD_ATMOSPHERE_KPA } from '@core/base/units/physics.js';

/** One thing to enter. A list takes several numbers with spaces or commas that are not decimal; a choice takes a word. */
export type SumField =
  | {
      readonly id: string;
      readonly label: string;
      readonly unit: string;
      readonly kind: 'number';
      readonly start: number | null;
      readonly min: number;
    }
  | { readonly id: string; readonly label: string; readonly unit: string; readonly kind: 'list'; readonly start: string }
  | {
      readonly id: string;
      readonly label: string;
      readonly kind: 'choice';
      readonly start: string;
      readonly words: readonly { value: string; title: string }[];
    };

export type Entered = Readonly<Record<string, number | string | null>>;

export interface SumAnswer {
  readonly big: string;
  readonly unit: string;
  readonly lines: readonly string[];
}

export interface Sum {
  readonly title: string;
  readonly fields: readonly SumField[];
  /** where the formula comes from */
  readonly source: string;
  /** Before: every number is there and at or above its least. @throws InputProblem in words for people */
  readonly answer: (entered: Entered) => SumAnswer;
}

const number = (id: string, label: string, unit: string, start: number | null, min = 0): SumField => ({
  id,
  label,
  unit,
  kind: 'number',
  start,
  min,
});
const material: SumField = {
  id: 'material',
  label: 'Tube',
  kind: 'choice',
  start: 'epdm',
  words: TUBE_MATERIAL_NAMES.map((value) => ({ value, title: TUBE_MATERIALS[value].label })),
};
const n = (entered: Entered, id: string): number => entered[id] as number;
const digits = (value: number): string => grouped(value, Math.abs(value) < 10 ? 1 : 0);
/** two digits at least, in the unit of the reader */
const small = (unit: StoredUnit, value: number): string => digitsIn(unit, value, Math.abs(value) < 10 ? 1 : 0);
const inUnit = (unit: StoredUnit, value: number): string => `${small(unit, value)} ${unitName(unit)}`;
/** "400 300,5 250" → numbers, typed in the reader's unit of length */
const listOf = (entered: Entered, id: string): number[] =>
  String(entered[id] ?? '')
    .split(/[\s;]+/)
    .filter((word) => word !== '')
    .map((word) => storedFrom('mm', Number(word.replace(',', '.'))));
const tubeOf = (entered: Entered, lengthMm: number) => ({
  material: entered.material as TubeMaterialName,
  boreMm: n(entered, 'bore'),
  outerMm: n(entered, 'outer'),
  lengthMm,
});
/** a length of the stock, as it is written on it */
const plainMm = (mm: number): string => plainIn('mm', mm);
const refuseIf = (wrong: boolean, message: string): void => {
  if (wrong) throw new InputProblem([{ path: '', message }]);
};

export const SUMS: readonly Sum[] = [
  {
    title: 'Air left, from the rise',
    fields: [
      number('rise', 'Level rises at pump stop', 'mm', null),
      number('area', 'Reservoir cross-section', 'cm²', 25, 0.1),
      number('run', 'Pressure at the air, pump on', 'kPa', 20, 0.1),
      material,
      number('bore', 'Bore', 'mm', 10, 1),
      number('outer', 'Outer', 'mm', 16, 1),
      number('length', 'Tube under pressure', 'm', 1.5),
    ],
    source: 'Boyle’s law; soft tube swells by Lamé’s formula and is taken off.',
    answer: (entered) => {
      refuseIf(n(entered, 'outer') <= n(entered, 'bore'), 'The outer diameter must be larger than the bore.');
      const reading = {
        levelRiseMm: n(entered, 'rise'),
        areaMm2: 100 * n(entered, 'area'),
        runGaugeKpa: n(entered, 'run'),
        offGaugeKpa: 0,
        atmosphereKpa: STANDARD_ATMOSPHERE_KPA,
      };
      const air = airFromRiseMl({ ...reading, tubes: [tubeOf(entered, 1000 * n(entered, 'length'))] });
      const without = airFromRiseMl({ ...reading, tubes: [] });
      return {
        big: small('mL', air),
        unit: say('{unitName} of air', { unitName: unitName('mL') }),
        lines: [say('{inUnit} of the reading is tube that swells.', { inUnit: inUnit('mL', without - air) })],
      };
    },
  },
  {
    title: 'Fan screws',
    fields: [
      number('panel', 'Case panel', 'mm', USUAL_STACK.panelMm),
      number('washers', 'Washers and gasket', 'mm', USUAL_STACK.washersMm),
      number('spacer', 'Spacer', 'mm', USUAL_STACK.spacerMm),
      number('fan', 'Fan', 'mm', USUAL_STACK.fanMm),
      number('flange', 'Threaded flange', 'mm', USUAL_STACK.flangeMm),
      number('clearance', 'Flange to the tubes', 'mm', USUAL_STACK.clearanceMm),
      { id: 'stock', label: 'Stock lengths', unit: 'mm', kind: 'list', start: STOCK_SCREWS_MM.join(' ') },
    ],
    source: say('At least {formatIn} of thread, {formatIn2} off the tubes.', {
      formatIn: formatIn('mm', SCREWS.threadMinMm),
      formatIn2: formatIn('mm', SCREWS.tipGapMm),
    }),
    answer: (entered) => {
      const stock = listOf(entered, 'stock');
      refuseIf(
        stock.some((length) => !(length > 0)),
        'Stock lengths are numbers with spaces between them.',
      );
      const choice = screwsOfStack(
        {
          panelMm: n(entered, 'panel'),
          washersMm: n(entered, 'washers'),
          spacerMm: n(entered, 'spacer'),
          fanMm: n(entered, 'fan'),
          flangeMm: n(entered, 'flange'),
          clearanceMm: n(entered, 'clearance'),
        },
        stock,
      );
      // never rounded up: half a millimetre too long is a pierced tube
      const range = say('{digitsIn} to {formatIn} under the head', {
        digitsIn: digitsIn('mm', Math.ceil(choice.minMm * 10) / 10, 1),
        formatIn: formatIn('mm', Math.floor(choice.maxMm * 10) / 10, 1),
      });
      return choice.fits.length > 0
        ? {
            big: choice.fits.map(plainMm).join(', '),
            unit: say('{unitName} fit', { unitName: unitName('mm') }),
            lines: [say('{range}. A longer one drives into the radiator’s tubes.', { range })],
          }
        : {
            big: 'none',
            unit: say('of the stock fits'),
            lines: [say('Wanted: {range}. Add washers to a longer one; never force it.', { range })],
          };
    },
  },
  {
    title: 'Cut list',
    fields: [
      { id: 'pieces', label: 'Pieces', unit: 'mm', kind: 'list', start: '' },
      number('stock', 'Stock length', 'mm', 1000, 1),
      number('kerf', 'Saw kerf', 'mm', 0),
    ],
    source: 'Fewest stock lengths; exact up to 20 pieces.',
    answer: (entered) => {
      const pieces = listOf(entered, 'pieces');
      refuseIf(
        pieces.length === 0 || pieces.some((length) => !(length > 0)),
        'Give the pieces with spaces between them, like 420 380 150.',
      );
      refuseIf(Math.max(...pieces) > n(entered, 'stock'), 'A piece is longer than the stock.');
      const { stocks, wasteMm } = cutList(pieces, n(entered, 'stock'), n(entered, 'kerf'));
      return {
        big: String(stocks.length),
        unit: stocks.length === 1 ? 'stock length' : 'stock lengths',
        lines: [
          ...stocks.map((stock, index) => `${index + 1}: ${stock.map(plainMm).join(' + ')}`),
          say('{inUnit} left over. Cut the longest first.', { inUnit: inUnit('mm', wasteMm) }),
        ],
      };
    },
  },
  {
    title: 'Water lost through tube',
    fields: [
      material,
      number('bore', 'Bore', 'mm', 10, 1),
      number('outer', 'Outer', 'mm', 16, 1),
      number('length', 'All tube', 'm', 2),
      number('temp', 'Mean coolant', '°C', 34),
    ],
    source: 'General permeabilities, doubling every 10 K; makers differ by a factor of two.',
    answer: (entered) => {
      refuseIf(n(entered, 'outer') <= n(entered, 'bore'), 'The outer diameter must be larger than the bore.');
      const { mlPerMonth, range } = wallLoss([tubeOf(entered, 1000 * n(entered, 'length'))], n(entered, 'temp'));
      return {
        big: small('mL', mlPerMonth),
        unit: `${unitName('mL')} a month`,
        lines: [
          say('{small} to {inUnit} is usual; more than that is a leak to look for.', {
            small: small('mL', range[0]),
            inUnit: inUnit('mL', range[1]),
          }),
        ],
      };
    },
  },
  {
    title: 'Concentrate and water',
    fields: [
      number('loop', 'Loop volume', 'mL', null, 1),
      number('left', 'Water still in it', 'mL', 0),
      number('target', 'Wanted strength', '%', 25, 0.1),
    ],
    source: 'Volume shares; keep to the product’s sheet.',
    answer: (entered) => {
      refuseIf(n(entered, 'left') > n(entered, 'loop'), 'More water than the loop holds.');
      refuseIf(n(entered, 'target') > 100, 'At most 100 %.');
      const dose = doseConcentrate(n(entered, 'loop'), n(entered, 'left'), n(entered, 'target') / 100);
      if (!dose.possible)
        return {
          big: say('drain more'),
          unit: '',
          lines: [say('{inUnit} more has to come out first.', { inUnit: inUnit('mL', dose.drainMoreMl ?? 0) })],
        };
      return {
        big: small('mL', dose.concentrateMl),
        unit: say('{unitName} concentrate', { unitName: unitName('mL') }),
        lines: [
          say('{inUnit} distilled water; the mix you pour is {digits} % strong.', {
            inUnit: inUnit('mL', dose.waterMl),
            digits: digits(100 * (dose.pourFraction ?? 0)),
          }),
        ],
      };
    },
  },
  {
    title: 'Rinses',
    fields: [
      number('left', 'Stays after a drain', 'mL', null),
      number('rinse', 'Water per rinse', 'mL', 600, 1),
      number('target', 'Old coolant may remain', '%', 1, 0.001),
    ],
    source: 'Each rinse leaves left ÷ (left + rinse).',
    answer: (entered) => {
      const { rinses, fractionAfter } = planRinses(n(entered, 'left'), n(entered, 'rinse'), Math.min(1, n(entered, 'target') / 100));
      return {
        big: String(rinses),
        unit: rinses === 1 ? 'rinse' : 'rinses',
        lines: fractionAfter
          .slice(0, 6)
          .map((share, index) => say('after {index}: {toPrecision} %', { index: index + 1, toPrecision: (100 * share).toPrecision(2) })),
      };
    },
  },
  {
    title: 'How long to hold air',
    fields: [
      number('volume', 'Gas in loop and hose', 'mL', 700, 1),
      number('resolution', 'Gauge reads to', 'kPa', 0.1, 0.001),
      number('limit', 'Leak limit', '10⁻³ mbar·L/s', 10, 0.01),
    ],
    source: 'ASTM E2930 practice: a leak at the limit told from none, 5 % risk either way.',
    answer: (entered) => ({
      big: digits(
        Math.ceil(
          holdMinutes({ volumeMl: n(entered, 'volume'), limitMbarLs: n(entered, 'limit') / 1000, resolutionKpa: n(entered, 'resolution') }),
        ),
      ),
      unit: 'min after it has settled',
      lines: [say('At {formatIn}, thermometer good to {formatIn2}.', { formatIn: formatIn('kPa', 50), formatIn2: formatIn('K', 0.1, 1) })],
    }),
  },
  {
    title: 'Level at a set temperature',
    fields: [
      number('level', 'Level as read', 'mm', null),
      number('temp', 'Coolant', '°C', 38),
      number('volume', 'Liquid in the loop', 'mL', 700, 1),
      number('area', 'Reservoir cross-section', 'cm²', 25, 0.1),
      number('glycol', 'Glycol', '%', 0),
    ],
    source: 'Density of water (Kell 1975), glycol by a general estimate; a filled fill tube counts to the cross-section.',
    answer: (entered) => {
      refuseIf(n(entered, 'temp') > 90, say('Up to {formatIn}.', { formatIn: formatIn('°C', 90) }));
      const reading = {
        levelMm: n(entered, 'level'),
        coolantC: n(entered, 'temp'),
        volumeMl: n(entered, 'volume'),
        areaMm2: 100 * n(entered, 'area'),
        glycolFraction: Math.min(1, n(entered, 'glycol') / 100),
      };
      return {
        big: digitsIn('mm', levelAtReferenceMm(reading), 1),
        unit: say('{unitName} at {formatIn}', { unitName: unitName('mm'), formatIn: formatIn('°C', 25) }),
        lines: [
          say('{inUnit} of the reading is warmth. Compare levels at this temperature only.', {
            inUnit: inUnit('mL', expansionMl(reading)),
          }),
        ],
      };
    },
  },
];

/** What is still missing, in words, or null. */
export function missingOf(sum: Sum, entered: Entered): string | null {
  for (const field of sum.fields) {
    if (field.kind !== 'number') continue;
    const value = entered[field.id];
    if (typeof value !== 'number') return `${field.label}?`;
    if (value < field.min)
      return `${field.label}: at least ${isStoredUnit(field.unit) ? formatIn(field.unit, field.min, 1) : `${field.min} ${field.unit}`}.`;
  }
  return null;
}
