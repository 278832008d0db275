import type { Priced } from '@core/workshop/prices/priced.js';
import { priceEstimate } from '@core/workshop/prices/lines.js';
import type { PriceList } from '@core/workshop/prices/rates.js';
import type { TypedPart } from '../prices/PartLines.vue';
import type { BookedKind } from '@core/workshop/job-kinds/kinds.js';
import type { BesideWork } from '@core/workshop/jobs/beside.js';
import type { ColourRead } from '@core/machine/liquids/colourSchema.js';
import type { EstimateInput } from '@core/workshop/prices/estimate.js';
import type { Intake, OwnerWindow } from '@core/workshop/jobs/schema.js';
import type { Sign } from '@core/workshop/jobs/scope.js';

export interface JobForm {
  kind: BookedKind;
  partId: string | null;
  /** number of the wanted drawing, where the job changes the loop */
  wanted: number | null;
  /** what will be poured; null: what the loop is filled with */
  productId: string | null;
  /** small works that go along with it */
  beside: BesideWork[];
  symptom: string;
  condition: string;
  signs: Sign[];
  dataSafe: Intake['dataSafe'];
  signsIn: string;
  flowLph: number | null;
  colour?: ColourRead | null;
  hours: number | null;
  partsText: string;
  coolantMl: number | null;
  priceText: string;
  parts: TypedPart[];
  neededBy: string;
  partsOn: string;
  dropOffOn: string;
  windows: { from: string; to: string }[];
  note: string;
}

export const blankForm = (): JobForm => ({
  kind: 'drain-refill',
  partId: null,
  wanted: null,
  productId: null,
  beside: [],
  symptom: '',
  condition: '',
  signs: [],
  dataSafe: 'unknown',
  signsIn: '',
  flowLph: null,
  colour: null,
  hours: null,
  partsText: '',
  coolantMl: null,
  priceText: '',
  parts: [],
  neededBy: '',
  partsOn: '',
  dropOffOn: '',
  windows: [],
  note: '',
});

export const intakeOf = ({ symptom, condition, signs, dataSafe, signsIn, flowLph, colour = null }: JobForm): Intake => ({
  symptom: symptom.trim(),
  condition: condition.trim(),
  signs: [...signs],
  dataSafe,
  signsIn: signsIn.trim(),
  flowLph,
  colour: colour === null ? null : { ...colour },
});

/** null in a field that must be filled in: the server names the place. */
export const estimateOf = ({
  hours,
  partsText,
  coolantMl,
  priceText,
  parts,
}: Pick<JobForm, 'hours' | 'partsText' | 'coolantMl' | 'priceText' | 'parts'>): Typed<EstimateInput> => ({
  hours,
  partsText: partsText.trim(),
  coolantMl,
  priceText: priceText.trim(),
  parts: parts.map((each) => ({ ...each })) as unknown as EstimateInput['parts'],
});
type Typed<T> = { [K in keyof T]: T[K] | null };

/** What the form's estimate comes to; null: prices are not reckoned here, or a figure is missing. */
export function priceOfForm(
  list: PriceList,
  kind: BookedKind,
  coolantId: string | null,
  form: Parameters<typeof estimateOf>[0],
): Priced | null {
  const { hours, coolantMl, parts, ...rest } = form;
  const whole = parts.flatMap(({ amount, ...part }) => (amount === null || part.what.trim() === '' ? [] : [{ ...part, amount }]));
  return hours === null ? null : priceEstimate(list, kind, coolantId, { ...rest, hours, coolantMl: coolantMl ?? 0, parts: whole });
}

/** The days of a form as the server takes them: an empty field is no day. */
export const daysOf = ({
  neededBy,
  partsOn,
  dropOffOn,
  windows,
}: JobForm): { neededBy: string | null; partsOn: string | null; dropOffOn: string | null; windows: OwnerWindow[] } => ({
  neededBy: neededBy || null,
  partsOn: partsOn || null,
  dropOffOn: dropOffOn || null,
  windows: windows.map(({ from, to }) => ({ from, to })),
});
