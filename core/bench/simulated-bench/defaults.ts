/** Figures of the simulated bench (general estimates; chosen so that every fault can be found with the tools of a bench). */
export const SIMULATED = {
  /** share by which a volume may be off its sheet, where the file states no sd */
  volumeSdShare: 0.1,
  /** K and s; how the room drifts */
  roomC: 21.4,
  roomSwingK: 0.25,
  roomPeriodS: 5400,
  /** kPa and s; warm air and soft tube after pumping up */
  settlingKpa: 1.1,
  settlingTauS: 75,
  /** share of the path that starts as bubbles when the return is reached */
  looseGasShare: 0.03,
  /** share of the path's volume that hangs on its walls after a drain, until it is wetted again */
  filmShare: 0.03,
  /** s of running after which 1/e of the loose gas is left */
  bleedTauS: 420,
  /** s that a turn must be held before a pocket finds its way up */
  turnHoldS: 4,
  /** degrees from which a turn lets a pocket out */
  turnDeg: 45,
  /** W that the pump puts into the coolant, and W/K that the standing loop gives off */
  pumpHeatW: 6,
  coolingWPerK: 2,
  /** J/K of what the coolant warms with it: blocks, radiators, tube (general estimate for a loop of usual size) */
  metalJPerK: 1200,
  /** share of full speed at which the fans turn under load */
  loadFans: 0.5,
  /** s in which a part comes to 63 % of where it stands over its coolant */
  partTauS: 25,
  /** share of its load that a part draws at idle */
  idleShare: 0.08,
  /** °C at which a part gives up work rather than get hotter, and K over the coolant that it would reach were nothing to flow */
  throttlesAtC: 95,
  withoutFlowK: 140,
  /** W; steps of what a machine says of its own power, and its noise as a share */
  powerNoiseShare: 0.01,
  /** kPa, mm, L/h, K, g; standard deviations of the instruments */
  gaugeNoiseKpa: 0.06,
  levelNoiseMm: 0.15,
  flowNoiseShare: 0.02,
  tempNoiseK: 0.05,
  scaleNoiseG: 0.6,
  /** g; a full can with its bottle */
  canG: 4200,
  /** s; longest step of time while liquid moves */
  stepS: 0.2,
  /** s; step while only bubbles and temperatures change */
  slowStepS: 10,
  /** mL/s; a bottle held well over while the pump runs */
  pourMlPerS: 80,
  /** mL between two looks at the mark */
  gulpMl: 2,
  /** mL that must have come out before a drop hangs on a joint */
  seenFromMl: 0.4,
} as const;
