/** Inside of a case seen from its window side: x to the front, y up, z towards the window. mm, general sizes. */
export interface CaseOutline {
  readonly key: string;
  readonly label: string;
  readonly depthMm: number;
  readonly heightMm: number;
  readonly widthMm: number;
}

export const CASES: readonly CaseOutline[] = [
  { key: 'mid-tower', label: 'mid tower', depthMm: 450, heightMm: 500, widthMm: 210 },
  { key: 'large-tower', label: 'large tower', depthMm: 560, heightMm: 620, widthMm: 240 },
  { key: 'small-cube', label: 'small cube', depthMm: 360, heightMm: 300, widthMm: 260 },
  { key: 'open-frame', label: 'open frame', depthMm: 480, heightMm: 480, widthMm: 300 },
];

export const findCase = (key: unknown): CaseOutline => CASES.find((outline) => outline.key === key) ?? (CASES[0] as CaseOutline);
