<script setup lang="ts">
import type { Stands } from '@core/workshop/owner-door/stands.js';
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';

/** The way of a machine through the workshop, drawn as one tube that has filled up to where it is. */
const props = defineProps<{ at: Stands['at'] }>();
const PLACES: readonly { readonly at: readonly Stands['at'][]; readonly words: string }[] = [
  { at: ['home', 'missed'], words: 'with you' },
  { at: ['booked', 'awaited'], words: 'booked' },
  { at: ['here', 'waits'], words: 'with us' },
  { at: ['bench'], words: 'bench' },
  { at: ['ready', 'fetched'], words: 'ready' },
];
const now = computed(() => PLACES.findIndex(({ at }) => at.includes(props.at)));
const x = (index: number): number => 36 + index * 67;
</script>

<template>
  <svg class="places" viewBox="0 0 340 84" role="img" :aria-label="say('{now} of {all}', { now: now + 1, all: PLACES.length })">
    <line class="tube" x1="36" y1="48" x2="304" y2="48" />
    <line v-if="now > 0" class="filled" x1="36" y1="48" :x2="x(now)" y2="48" />
    <g v-for="(place, index) in PLACES" :key="index" :class="{ now: index === now, past: index < now }">
      <circle :cx="x(index)" cy="48" :r="index === now ? 8 : 6" />
      <text :x="x(index)" y="78" text-anchor="middle">{{ place.words }}</text>
    </g>
    <!-- the machine itself, standing where it is: a case with its loop behind the glass -->
    <g class="machine" :transform="`translate(${x(now) - 13} 4)`">
      <rect width="26" height="34" rx="2" />
      <path d="M6 28 V12 H20 V24 H11" />
    </g>
  </svg>
</template>
