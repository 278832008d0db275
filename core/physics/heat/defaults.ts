/** General engineering estimates; a part's own sheet or the workshop's baselines go before them. */
export const HEAT = {
  /** J/(kg·K) of water at loop temperatures */
  heatCapacity: 4180,
  /** kg/m³ and J/(kg·K) of air at 25 °C */
  airDensity: 1.18,
  airHeatCapacity: 1006,
  /** W/K per m² of radiator face, 30 mm thick, at full fans and plenty of flow: about 28 W/K for a 360 × 30 in room air */
  faceConductance: 950,
  /** mm the figure above holds at, and the power of thickness it grows with: deep cores starve their rear for air */
  faceThicknessMm: 30,
  thicknessExponent: 0.4,
  /** m³/h per m² of radiator face at full fans */
  faceAirflowM3h: 4200,
  /** U grows with airflow to this power */
  airExponent: 0.6,
  /** L/h at which a radiator gives half of its liquid-side share; below it flow matters */
  radiatorHalfFlowLph: 25,
  /** K/W of a block at infinite flow, and K/W·√(L/h) of its flow-dependent part */
  blockBase: 0.05,
  blockPerRootFlow: 0.35,
} as const;

/** K, one standard deviation of what is told (engineering estimates). */
export const HEAT_SD = {
  /** of a part whose resistance comes from a recorded baseline */
  measuredK: 2,
  /** of a part that only its size and the flow speak for */
  estimatedK: 5,
  /** of the warmest coolant that fans follow */
  coolantK: 3,
} as const;
