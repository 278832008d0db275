<script setup lang="ts">
import { STANDING, STANDING_NAMES, STANDING_WORDS, type StandingName, type Tilt } from '@core/machine/loop-file/orientation.js';

/** How the case stands: six ways at a touch, or tilted freely. */
const tilt = defineModel<Tilt>({ required: true });

const isNow = (name: StandingName): boolean =>
  STANDING[name].pitchDeg === tilt.value.pitchDeg && STANDING[name].rollDeg === tilt.value.rollDeg;
/** The case seen from its window side, its front edge heavy: turned the way it lies. */
const SKETCH_TURN: Readonly<Record<StandingName, number>> = {
  upright: 0,
  'on-back': -90,
  'on-face': 90,
  'on-window-side': 0,
  'on-blind-side': 0,
  'upside-down': 180,
};
const flat = (name: StandingName): boolean => name === 'on-window-side' || name === 'on-blind-side';
const set = (part: Partial<Tilt>): void => {
  tilt.value = { ...tilt.value, ...part };
};
</script>

<template>
  <fieldset class="standing">
    <legend class="quiet">The case stands</legend>
    <div class="ways">
      <button
        v-for="name in STANDING_NAMES"
        :key="name"
        type="button"
        class="way"
        :class="{ now: isNow(name) }"
        :aria-pressed="isNow(name)"
        @click="tilt = { ...STANDING[name] }"
      >
        <svg viewBox="-20 -20 40 40" width="38" height="38" aria-hidden="true">
          <g v-if="flat(name)">
            <rect x="-16" y="2" width="32" height="10" rx="1.5" />
            <path :d="name === 'on-window-side' ? 'M-12 12h24' : 'M-12 2h24'" class="window" />
          </g>
          <g v-else :transform="`rotate(${SKETCH_TURN[name]})`">
            <rect x="-12" y="-15" width="24" height="30" rx="1.5" />
            <path d="M12 -13v26" class="front" />
            <path d="M-8 -15h10" class="window" />
          </g>
          <path d="M-19 17h38" class="table" />
        </svg>
        <span>{{ STANDING_WORDS[name] }}</span>
      </button>
    </div>
    <div class="tilts">
      <label class="tilt">
        <span
          >Front down <b class="figures">{{ tilt.pitchDeg }}°</b></span
        >
        <input
          type="range"
          min="-180"
          max="180"
          step="1"
          :value="tilt.pitchDeg"
          @input="set({ pitchDeg: Number(($event.target as HTMLInputElement).value) })"
        />
      </label>
      <label class="tilt">
        <span
          >Window side down <b class="figures">{{ tilt.rollDeg }}°</b></span
        >
        <input
          type="range"
          min="-180"
          max="180"
          step="1"
          :value="tilt.rollDeg"
          @input="set({ rollDeg: Number(($event.target as HTMLInputElement).value) })"
        />
      </label>
    </div>
  </fieldset>
</template>

<style scoped>
.standing {
  border: 0;
  padding: 0;
}
.ways {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 6px;
  margin-top: 6px;
}
.way {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  padding: 6px 2px;
  min-height: var(--touch);
  border-radius: 3px;
  font-size: 0.84rem;
  line-height: 1.15;
  color: var(--ink-soft);
}
.way.now {
  background: var(--slab);
  color: var(--on-slab);
}
.way svg rect {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
}
.window,
.table {
  stroke: currentColor;
  stroke-width: 1.6;
}
.front {
  stroke: currentColor;
  stroke-width: 4;
}
.tilts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  margin-top: 10px;
}
.tilt {
  display: block;
  font-size: 0.92rem;
}
.tilt span {
  display: flex;
  justify-content: space-between;
}
.tilt input {
  width: 100%;
  height: 32px;
  accent-color: var(--ink);
}
</style>
