<script setup lang="ts">
import { SIGN_PLACES, SIGN_TILES, SIGNS, signsAt, type Sign } from '@core/workshop/jobs/scope.js';
import { signGlyphs } from './signGlyphs.js';

/** What is noticed before anything is opened: drawn, so that it is found by its look. */
const signs = defineModel<Sign[]>({ required: true });
</script>

<template>
  <div class="families">
    <fieldset v-for="(signsHere, place) in signsAt" :key="place">
      <legend>{{ SIGN_PLACES[place] }}</legend>
      <label v-for="sign in signsHere" :key="sign" class="tile" :title="SIGNS[sign]">
        <input v-model="signs" type="checkbox" :value="sign" />
        <svg viewBox="0 0 40 32" width="40" height="32" aria-hidden="true">
          <path class="filled" :d="signGlyphs[sign].filled" />
          <path class="lines" :d="signGlyphs[sign].lines" />
        </svg>
        <span>{{ SIGN_TILES[sign] }}</span>
      </label>
    </fieldset>
  </div>
</template>

<style scoped>
.families {
  display: grid;
  gap: 10px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(96px, 1fr));
  gap: 6px;
}
legend {
  font-weight: 620;
  padding: 0 0 4px;
}
.tile {
  position: relative;
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 4px;
  padding: 8px 4px;
  min-height: 82px;
  border: 1px solid var(--line);
  border-radius: 4px;
  text-align: center;
  font-size: 0.875rem;
  line-height: 1.15;
  cursor: pointer;
}
.tile input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  opacity: 0;
  /* the tile around it takes the finger */
  pointer-events: none;
}
.tile:has(:focus-visible) {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
/* the plate inverts, as everywhere */
.tile:has(:checked) {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--ground);
}
.lines {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.filled {
  fill: currentColor;
  opacity: 0.55;
}
@media print {
  .tile:not(:has(:checked)) {
    display: none;
  }
}
</style>
