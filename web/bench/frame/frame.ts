import type { InjectionKey } from 'vue';

/** Regions of the frame that a step fills with its own: the rest of it stays among the checks. */
export type FrameRegion = 'order' | 'figure' | 'limit' | 'curve' | 'so-far' | 'work' | 'pump' | 'act';

export interface Frame {
  /** something stands in a region from now on; returns what says that it is gone */
  fill(region: FrameRegion): () => void;
}

/** The frame a step stands in. Without one (a dialog, a test of a part alone) what it has stands where it is written. */
export const FRAME: InjectionKey<Frame> = Symbol('frame');
