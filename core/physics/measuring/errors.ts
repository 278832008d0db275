/** What hands, eyes and sensors at a bench are off by: standard deviations, each once (workshop practice). */
export const MEASURED = {
  /** mL and share of a measuring jug read by eye, drops on towels and in the scrap tube included */
  jugSdMl: 8,
  jugSdShare: 0.02,
  /** mL and share of a pour, read off a graduated jug or bottle before and after */
  pourSdMl: 3,
  pourSdShare: 0.015,
  /** share of a volume that was judged, not measured */
  judgedSdShare: 0.4,
  /** mL by which two people read the same fill mark differently */
  markSdMl: 15,
  /** mm by which a level is misread by eye, and by its sensor */
  levelByEyeSdMm: 2,
  levelBySensorSdMm: 0.5,
  /** g and share of a parcel scale that carries a whole machine (steps of 5 g, feet off its centre) */
  machineScaleSdG: 5,
  machineScaleSdShare: 2e-4,
  /** K of two sensors against each other, after a settled quarter of an hour */
  sensorsSdK: 1,
} as const;

/** two standard deviations still count as agreeing (19 of 20 of what agrees) */
export const AGREES_WITHIN_SD = 2;

/** °C; the room and the coolant at a bench before anything heats it: what is computed for the bench is computed at it */
export const BENCH_C = 25;

/** mL that a poured volume may be off. */
export const pourSdMl = (volumeMl: number): number => Math.hypot(MEASURED.pourSdMl, MEASURED.pourSdShare * volumeMl);

/** mL that a measured volume may be off. */
export const jugSdMl = (volumeMl: number): number => Math.hypot(MEASURED.jugSdMl, MEASURED.jugSdShare * volumeMl);

/** g that a weighed machine may be off. */
export const scaleSdG = (massG: number): number => Math.hypot(MEASURED.machineScaleSdG, MEASURED.machineScaleSdShare * massG);
