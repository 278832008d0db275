/** A colour in CIE L*a*b*, D65. */
export interface Lab {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

const RADIANS = Math.PI / 180;
const sin = (degrees: number): number => Math.sin(degrees * RADIANS);
const cos = (degrees: number): number => Math.cos(degrees * RADIANS);
/** the seventh power of the chroma at which grey turns to colour */
const GREY7 = 25 ** 7;
const greyness = (chroma: number): number => Math.sqrt(chroma ** 7 / (chroma ** 7 + GREY7));
/** degrees from 0 to 360; 0 for grey */
const hueOf = (a: number, b: number): number => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / RADIANS + 360) % 360);

/** Degrees from one hue to the other the short way; grey has none. */
function hueStep(from: number, to: number, isGrey: boolean): number {
  if (isGrey) return 0;
  const step = to - from;
  return step > 180 ? step - 360 : step < -180 ? step + 360 : step;
}

function hueBetween(one: number, other: number, isGrey: boolean): number {
  const sum = one + other;
  if (isGrey) return sum;
  if (Math.abs(one - other) <= 180) return sum / 2;
  return sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
}

/**
 * How unlike two colours look: ΔE₀₀, the CIEDE2000 formula with all weights one (Sharma, Wu & Dalal 2005, Color Res. Appl. 30, 21; their
 * equations 2 to 22). About 1 is the least that a trained eye sees side by side.
 */
export function colourDifference(one: Lab, other: Lab): number {
  const meanChroma = (Math.hypot(one.a, one.b) + Math.hypot(other.a, other.b)) / 2;
  const stretch = 1 + 0.5 * (1 - greyness(meanChroma));
  const [a1, a2] = [one.a * stretch, other.a * stretch];
  const [c1, c2] = [Math.hypot(a1, one.b), Math.hypot(a2, other.b)];
  const [h1, h2] = [hueOf(a1, one.b), hueOf(a2, other.b)];
  const isGrey = c1 * c2 === 0;
  const lightness = other.L - one.L;
  const chroma = c2 - c1;
  const hue = 2 * Math.sqrt(c1 * c2) * sin(hueStep(h1, h2, isGrey) / 2);
  const meanL = (one.L + other.L) / 2;
  const meanC = (c1 + c2) / 2;
  const meanH = hueBetween(h1, h2, isGrey);
  const t = 1 - 0.17 * cos(meanH - 30) + 0.24 * cos(2 * meanH) + 0.32 * cos(3 * meanH + 6) - 0.2 * cos(4 * meanH - 63);
  const byL = 1 + (0.015 * (meanL - 50) ** 2) / Math.sqrt(20 + (meanL - 50) ** 2);
  const byC = 1 + 0.045 * meanC;
  const byH = 1 + 0.015 * meanC * t;
  // blues are told apart along a tilted line
  const tilt = -sin(60 * Math.exp(-(((meanH - 275) / 25) ** 2))) * 2 * greyness(meanC);
  const [l, c, h] = [lightness / byL, chroma / byC, hue / byH];
  return Math.sqrt(l * l + c * c + h * h + tilt * c * h);
}

/** ΔE₀₀ between a liquid and the retained sample of its lot (workshop practice). */
export const COLOUR_LIMITS = { same: 2, changed: 5 } as const;
export type ColourVerdict = 'same' | 'watch' | 'changed';
export const colourVerdict = (difference: number): ColourVerdict =>
  difference < COLOUR_LIMITS.same ? 'same' : difference <= COLOUR_LIMITS.changed ? 'watch' : 'changed';
