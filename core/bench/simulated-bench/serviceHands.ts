import { grouped } from '../../base/units/display.js';
import { say } from '../../base/words/say.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';
import { inspectItems } from '../inspection/items.js';
import type { Random } from '../../base/random/random.js';
import { seenClose } from './finding.js';
import type { ServiceMove } from './hands.js';
import type { LiquidInside } from './liquidInside.js';
import type { OldInside } from './oldInside.js';
import type { OpenPlaces } from './openPlaces.js';
import type { HiddenTruth } from './truth.js';

/** mL and share; how well a jug is read */
const JUG_SD_ML = 2;
const JUG_SD_SHARE = 0.01;
/** mL in a jug that are still an empty one */
const EMPTY_ML = 1;
/** share of old liquid from which water looks tinted in a jug (general estimate) */
const TINTED_FROM = 0.05;
/** pH of distilled water from the can, of a used coolant, and of what an acid cleaner leaves behind (general estimates) */
const PH = { water: 6.8, old: 8.2, cleaner: 4.6 } as const;

/** Hands at a loop that was in use: they drain, take apart, look closely, soak and rinse. */
export class ServiceHands {
  /** cleaner that came out again */
  soaks = 0;
  /** of the cleaner, what is still in the water: each rinse thins it */
  private cleanerShare = 0;

  constructor(
    private readonly loop: LoopFile,
    private readonly truth: HiddenTruth,
    private readonly liquid: LiquidInside,
    private readonly places: OpenPlaces,
    private readonly old: OldInside | null,
    private readonly random: Random,
  ) {}

  /** @returns what can be noticed, in words; null: nothing */
  act(move: ServiceMove): string | null {
    switch (move.do) {
      case 'shut':
        if (move.openings === null) this.places.shutAll();
        else this.places.shut(move.openings);
        return null;
      case 'read-jug':
        return this.readJug();
      case 'pour-away':
        this.places.jugMl = 0;
        return null;
      case 'take-out':
        this.places.catch(this.liquid.takeOut(move.part));
        return null;
      case 'take-apart':
        // what still stood inside is on towels and in parts
        this.liquid.empty();
        this.places.shutAll();
        return null;
      case 'look-at-water':
        return this.water();
      case 'look-close':
        return this.close(move.at);
      case 'soaked':
        this.soaks += 1;
        this.cleanerShare = 1;
        return null;
    }
  }

  /** Water came in and went out again: it took its share of the cleaner along. */
  rinsed(): void {
    this.cleanerShare *= 0.2;
  }

  private readJug(): string {
    const { jugMl } = this.places;
    if (jugMl < EMPTY_ML) return say('The jug is empty.');
    const read = jugMl * (1 + JUG_SD_SHARE * this.random.normal()) + JUG_SD_ML * this.random.normal();
    return say('The jug shows {read} mL.', { read: Math.max(1, Math.round(read)) });
  }

  private water(): string {
    const share = this.old?.lastOutShare ?? 0;
    const { finding } = this.truth;
    const dirty = finding && finding.findings.deposit !== 'none' && this.soaks < finding.soaks;
    const looks = dirty
      ? say('Small flakes turn in the water')
      : share > TINTED_FROM
        ? say('The water is tinted')
        : say('The water is clear');
    const ph = PH.water + share * (PH.old - PH.water) + this.cleanerShare * (PH.cleaner - PH.water);
    return say('{looks}; the strip says pH {ph}.', { looks, ph: grouped(Math.round(ph * 5) / 5, 1) });
  }

  private close(at: string): string {
    const item = inspectItems(this.loop).find(({ id }) => id === at);
    if (!item) return say('There is no such part here.');
    const { finding } = this.truth;
    if (this.soaks === 0) return seenClose(item, finding);
    const isGritty = finding?.item === at && finding.findings.deposit !== 'none' && this.soaks < finding.soaks;
    return isGritty ? say('Gritty to the finger.') : say('Smooth to the finger.');
  }
}
