<script setup lang="ts">
import { computed, ref, useId } from 'vue';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { unrollLoop, type ProfilePart, type ProfileRun } from '@core/physics/profile/chainProfile.js';
import { useWidth } from '../../base/units/useSize.js';
import { frameFor, frontPoint, liquidRect, placeLabels, rulerMarks, type FrontMark } from './profileLayout.js';

/**
 * The loop unrolled along its flow path, every height true. `filled` gives for each part how much of it holds liquid;
 * without it the loop stands full.
 */
const props = withDefaults(
  defineProps<{
    loop: LoopFile;
    colour?: string | null;
    filled?: ReadonlyMap<string, number> | null;
    height?: number;
    bare?: boolean;
    selected?: string | null;
    label?: string;
    /** where a filling front is expected, and where it was measured */
    fronts?: readonly FrontMark[];
  }>(),
  {
    colour: null,
    filled: null,
    height: 260,
    bare: false,
    selected: null,
    label: 'Loop profile: heights along the flow path',
    fronts: () => [],
  },
);
const emit = defineEmits<{ select: [id: string] }>();

/** several profiles on one page must not share their clips */
const own = useId();
const holder = ref<HTMLElement | null>(null);
const width = useWidth(holder);
const profile = computed(() => unrollLoop(props.loop));
const frame = computed(() => frameFor(profile.value, width.value, props.height, props.bare));
const marks = computed(() => (props.bare ? [] : rulerMarks(profile.value, frame.value)));
const labels = computed(() => (props.bare ? [] : placeLabels(profile.value.items, frame.value)));
const parts = computed(() => profile.value.items.filter((item): item is ProfilePart => item.shape !== 'run'));
const runs = computed(() => profile.value.items.filter((item): item is ProfileRun => item.shape === 'run'));
const bore = computed(() => (props.bare ? 4 : 7));

const share = (id: string): number => (props.filled === null ? 1 : (props.filled.get(id) ?? 0));
const pathOf = (run: ProfileRun): string =>
  run.points
    .map(({ x, yMm }, index) => `${index === 0 ? 'M' : 'L'}${frame.value.x(x).toFixed(1)} ${frame.value.y(yMm).toFixed(1)}`)
    .join('');
/** A pump is round, a vessel square, other parts between; never more than half the shorter side. */
function corner(part: ProfilePart): number {
  const half = Math.min(frame.value.x(part.x1) - frame.value.x(part.x0), frame.value.y(part.bottomMm) - frame.value.y(part.topMm)) / 2;
  return part.kind === 'pump' ? half : Math.min(half, part.shape === 'vessel' ? 3 : 4);
}

const frontsDrawn = computed(() =>
  props.fronts.flatMap((front) => {
    const at = frontPoint(profile.value.items, frame.value, front);
    return at ? [{ ...front, ...at }] : [];
  }),
);

/** The unrolled loop ends where it began: a dotted lead from the last run back to the first part. */
const homeward = computed(() => {
  const end = runs.value.at(-1)?.points.at(-1);
  return end && !props.bare ? { x: frame.value.x(end.x), y: frame.value.y(end.yMm) } : null;
});
</script>

<template>
  <div ref="holder" class="profile" :class="{ bare }">
    <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="label">
      <g v-for="mark in marks" :key="mark" class="ruler">
        <line :x1="40" :x2="width" :y1="frame.y(mark)" :y2="frame.y(mark)" />
        <text x="34" :y="frame.y(mark) + 4" text-anchor="end">{{ mark }}</text>
      </g>
      <text v-if="!bare" class="ruler-unit" x="34" y="12" text-anchor="end">mm</text>

      <g v-for="run in runs" :key="run.id" class="run" :class="{ selected: selected === run.id }" @click="emit('select', run.id)">
        <title>{{ run.name }}</title>
        <path class="wall" :d="pathOf(run)" :stroke-width="bore + 3" />
        <path class="inside" :d="pathOf(run)" :stroke-width="bore" />
        <path
          v-if="share(run.id) > 0"
          :d="pathOf(run)"
          :stroke="colour ?? 'var(--ink-soft)'"
          :stroke-width="bore"
          fill="none"
          pathLength="1"
          :stroke-dasharray="`${share(run.id)} 2`"
        />
      </g>

      <g v-for="part in parts" :key="part.id" class="part" :class="{ selected: selected === part.id }" @click="emit('select', part.id)">
        <title>{{ part.name }}, {{ Math.round(part.volumeMl) }} mL</title>
        <rect
          class="glass"
          :x="frame.x(part.x0)"
          :y="frame.y(part.topMm)"
          :width="frame.x(part.x1) - frame.x(part.x0)"
          :height="frame.y(part.bottomMm) - frame.y(part.topMm)"
          :rx="corner(part)"
        />
        <clipPath :id="`${own}-${part.id}`">
          <rect
            :x="frame.x(part.x0)"
            :y="frame.y(part.topMm)"
            :width="frame.x(part.x1) - frame.x(part.x0)"
            :height="frame.y(part.bottomMm) - frame.y(part.topMm)"
            :rx="corner(part)"
          />
        </clipPath>
        <rect
          :clip-path="`url(#${own}-${part.id})`"
          :x="frame.x(part.x0)"
          :width="frame.x(part.x1) - frame.x(part.x0)"
          :y="liquidRect(part, frame, share(part.id)).y"
          :height="liquidRect(part, frame, share(part.id)).height"
          :fill="colour ?? 'var(--ink-soft)'"
          class="level"
        />
        <rect
          class="outline"
          :x="frame.x(part.x0)"
          :y="frame.y(part.topMm)"
          :width="frame.x(part.x1) - frame.x(part.x0)"
          :height="frame.y(part.bottomMm) - frame.y(part.topMm)"
          :rx="corner(part)"
        />
        <g v-for="handle in bare ? [] : part.handles" :key="handle.port" class="handle">
          <title>{{ part.name }}: {{ handle.closure }} at {{ Math.round(handle.yMm) }} mm</title>
          <path v-if="handle.closure === 'valve'" :d="`M${frame.x(part.x1)} ${frame.y(handle.yMm)}h7m0 -6v12`" />
          <path v-else :d="`M${frame.x((part.x0 + part.x1) / 2) - 5} ${frame.y(handle.yMm) - 1}h10v-4h-10z`" />
        </g>
      </g>
      <g v-for="front in frontsDrawn" :key="front.kind" class="front" :class="front.kind">
        <line :x1="front.x" :x2="front.x" y1="6" :y2="height - 6" />
        <path :d="`M${front.x} ${front.y - 9}l8 -13h-16z`" />
        <text :x="front.x + 8" :y="front.kind === 'measured' ? height - 8 : height - 24">{{ front.kind }}</text>
      </g>
      <path v-if="homeward" class="homeward" :d="`M${homeward.x} ${homeward.y}H${width - 4}`" />
      <text v-for="each in labels" :key="each.id" class="name" :x="each.x" :y="each.y" text-anchor="middle">{{ each.text }}</text>
    </svg>
    <p v-if="profile.notShown.length && !bare" class="quiet">Beside the path: {{ profile.notShown.join(', ') }}</p>
  </div>
</template>

<style scoped src="../profile/strokes.css"></style>

<style scoped>
.profile {
  width: 100%;
  overflow: hidden;
}
.level {
  transition:
    y 0.3s,
    height 0.3s;
}
.handle path {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.75;
}
.front line {
  stroke: var(--ink);
  stroke-width: 1.25;
}
.front path {
  stroke: var(--ink);
  stroke-width: 1.75;
  fill: var(--sheet);
}
.front text {
  font-size: 12px;
  fill: var(--ink);
}
.front.predicted line {
  stroke-dasharray: 3 5;
}
.front.measured path {
  fill: var(--ink);
}
.homeward {
  stroke: var(--ink-soft);
  stroke-width: 2;
  stroke-dasharray: 2 5;
  fill: none;
}
.selected .outline {
  stroke: var(--ring);
  stroke-width: 3.5;
}
.selected .wall {
  stroke: var(--ring);
}
</style>
