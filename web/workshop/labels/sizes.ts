/** Label stocks by their size, mm: strips of a label printer, and sheets that are cut. */
export const LABEL_SIZES = {
  '62x29': { title: '62 × 29 mm, strip', widthMm: 62, heightMm: 29, sheet: null },
  '89x36': { title: '89 × 36 mm, strip', widthMm: 89, heightMm: 36, sheet: null },
  '70x37': { title: '70 × 37 mm, 24 on a sheet', widthMm: 70, heightMm: 37, sheet: { columns: 3, rows: 8 } },
  '105x74': { title: '105 × 74 mm, 8 on a sheet', widthMm: 105, heightMm: 74, sheet: { columns: 2, rows: 4 } },
} as const;
export type LabelSize = keyof typeof LABEL_SIZES;
export const LABEL_SIZE_KEYS = Object.keys(LABEL_SIZES) as LabelSize[];
/** mm; an A4 sheet, ISO 216 */
export const SHEET_MM = { width: 210, height: 297 } as const;

const KEY = 'lavacrum.label-size';
/** The stock that lies in this device's printer. */
export function rememberedSize(): LabelSize {
  const known = window.localStorage.getItem(KEY);
  return LABEL_SIZE_KEYS.find((each) => each === known) ?? '70x37';
}
export const rememberSize = (size: LabelSize): void => window.localStorage.setItem(KEY, size);
