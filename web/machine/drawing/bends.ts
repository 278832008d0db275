import type { InjectionKey, Ref } from 'vue';

/** What the drawing lets a tube's bends do. Screen coordinates, 1 px = 1 mm. */
export interface BendActions {
  readonly chosen: Ref<string | null>;
  readonly colour: Ref<string | null>;
  /** what is written beside parts and tubes, by id */
  readonly figures: Ref<ReadonlyMap<string, string> | null>;
  move(run: string, bend: number, to: { x: number; y: number }): void;
  add(run: string, segment: number, at: { x: number; y: number }): void;
}

export const BENDS: InjectionKey<BendActions> = Symbol('bends');
