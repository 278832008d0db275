/** Estimates and tolerances of the flow computation. */
export const FLOW = {
  /** mm; drawn plastic and rubber tube (handbook B) */
  roughnessMm: 0.0015,
  /** share of total flow; the last Newton step must be smaller */
  stepShare: 1e-6,
  /** Newton steps before the solver gives up */
  mostSteps: 200,
  /** kPa/(L/min); least slope of any loss: keeps the equations solvable where a quadratic loss stands still */
  leastSlope: 1e-6,
  /** L/min; flow at which slopes are taken before anything is known */
  firstGuessLpm: 3,
  /** mm; a tube of no length still needs some loss, so that its flow is defined */
  leastTubeMm: 0.01,
  /** kPa/(L/min)²; loss of a pump that stands (contract) */
  standingPumpQuadratic: 0.25,
  /** m/s², standard gravity (ISO 80000-3) */
  gravity: 9.80665,
} as const;

/** Loss coefficients K of fittings: Δp = K·ρv²/2 at the tube's bore (general estimates, handbook B). */
const FITTING_K: Readonly<Record<string, number>> = {
  compression: 0.3,
  barb: 0.3,
  '45': 0.4,
  '90': 1.1,
  'tee-through': 0.4,
  'tee-branch': 1.3,
  valve: 0.2,
  coupling: 2.5,
};

/** K of a fitting; a kind from elsewhere counts as lossless. */
export const fittingK = (kind: string): number => (Object.hasOwn(FITTING_K, kind) ? (FITTING_K[kind] as number) : 0);

/** L/h in one L/min */
export const LPH_PER_LPM = 60;
