import { ZERO_CELSIUS_K, STANDARD_ATMOSPHERE_KPA } from '../../base/units/physics.js';
import { SIMULATED } from './defaults.js';

/** Air under test pressure in the closed loop: settling, leaking, following the room's temperature. */
export class AirInside {
  /** kPa; leaking and temperature left out: where it settles */
  private heldKpa = 0;
  private settlingKpa = 0;
  private atTempC: number = SIMULATED.roomC;

  /** @param gasMl what the loop holds beside liquid */
  constructor(private readonly gasMl: () => number) {}

  get closed(): boolean {
    return this.heldKpa > 0;
  }

  /** Pumped up to a pressure; what was in it already counts. */
  pumpUp(gaugeKpa: number, roomC: number): void {
    const above = Math.max(0, gaugeKpa - this.gaugeKpa(roomC));
    const share = gaugeKpa > 0 ? above / gaugeKpa : 0;
    this.settlingKpa = SIMULATED.settlingKpa * share * (gaugeKpa / 50);
    this.heldKpa = gaugeKpa - this.settlingKpa;
    this.atTempC = roomC;
  }

  letOut(): void {
    this.heldKpa = 0;
    this.settlingKpa = 0;
  }

  /** @param leakMbarLs at the usual test pressure; smaller as the pressure falls (laminar: with the difference of squares) */
  advance(seconds: number, leakMbarLs: number): void {
    this.settlingKpa *= Math.exp(-seconds / SIMULATED.settlingTauS);
    if (leakMbarLs <= 0 || this.heldKpa <= 0) return;
    const litres = Math.max(0.01, this.gasMl() / 1000);
    const square = (kpa: number): number => (kpa + STANDARD_ATMOSPHERE_KPA) ** 2 - STANDARD_ATMOSPHERE_KPA ** 2;
    const kpaPerS = ((leakMbarLs * 0.1) / litres) * (square(this.heldKpa) / square(50));
    this.heldKpa = Math.max(0, this.heldKpa - kpaPerS * seconds);
  }

  gaugeKpa(roomC: number): number {
    if (!this.closed) return 0;
    const abs = this.heldKpa + this.settlingKpa + STANDARD_ATMOSPHERE_KPA;
    return (abs * (roomC + ZERO_CELSIUS_K)) / (this.atTempC + ZERO_CELSIUS_K) - STANDARD_ATMOSPHERE_KPA;
  }
}
