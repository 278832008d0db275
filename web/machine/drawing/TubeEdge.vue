<script setup lang="ts">
import { computed, inject, ref } from 'vue';
import { useVueFlow } from '@vue-flow/core';
import { nearestSegment, type TubeData } from './scene.js';
import { BENDS } from './bends.js';

/** A tube from port to port over its bends. A bend is dragged; a double press on the tube makes a new one. */
const props = defineProps<{ id: string; sourceX: number; sourceY: number; targetX: number; targetY: number; data: TubeData }>();
const bends = inject(BENDS);
const { screenToFlowCoordinate } = useVueFlow();
const dragged = ref<{ index: number; x: number; y: number } | null>(null);
const chosen = computed(() => bends?.chosen.value === props.id);

const points = computed(() => props.data.bends.map((bend, index) => (dragged.value?.index === index ? dragged.value : bend)));
/** px; the package hands over the top of a port's mark, a tube begins at its middle */
const MARK_RADIUS = 6.5;
const line = computed(() => [
  { x: props.sourceX, y: props.sourceY + MARK_RADIUS },
  ...points.value,
  { x: props.targetX, y: props.targetY + MARK_RADIUS },
]);
const d = computed(() => `M${line.value.map(({ x, y }) => `${x} ${y}`).join('L')}`);

const figure = computed(() => bends?.figures.value?.get(props.id) ?? null);
/** the middle of the longest straight piece: where a figure has room */
const middle = computed(() => {
  let best = { x: props.sourceX, y: props.sourceY };
  let longest = -1;
  line.value.slice(1).forEach((end, index) => {
    const start = line.value[index] as { x: number; y: number };
    const length = Math.hypot(end.x - start.x, end.y - start.y);
    if (length > longest) [longest, best] = [length, { x: (start.x + end.x) / 2, y: (start.y + end.y) / 2 }];
  });
  return best;
});

function begin(index: number, event: PointerEvent): void {
  event.stopPropagation();
  const follow = (move: PointerEvent): void => {
    dragged.value = { index, ...screenToFlowCoordinate({ x: move.clientX, y: move.clientY }) };
  };
  const end = (): void => {
    window.removeEventListener('pointermove', follow);
    window.removeEventListener('pointerup', end);
    if (dragged.value) bends?.move(props.id, index, { x: dragged.value.x, y: dragged.value.y });
    dragged.value = null;
  };
  window.addEventListener('pointermove', follow);
  window.addEventListener('pointerup', end);
}
function add(event: MouseEvent): void {
  const at = screenToFlowCoordinate({ x: event.clientX, y: event.clientY });
  bends?.add(props.id, nearestSegment(line.value, at), at);
}
</script>

<template>
  <g @dblclick.stop="add">
    <path class="reach" :d="d" />
    <path class="wall" :d="d" :stroke-width="data.boreMm + 4" />
    <path
      class="inside"
      :class="{ chosen }"
      :d="d"
      :stroke-width="data.boreMm"
      :style="{ stroke: bends?.colour.value ?? 'var(--ink-soft)' }"
    />
    <text v-if="figure" class="figure" :x="middle.x" :y="middle.y + 4" text-anchor="middle">{{ figure }}</text>
    <template v-if="chosen">
      <circle
        v-for="(bend, index) in points"
        :key="index"
        class="bend"
        :cx="bend.x"
        :cy="bend.y"
        r="8"
        @pointerdown="begin(index, $event)"
      />
    </template>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke-linejoin: round;
}
.reach {
  stroke: transparent;
  stroke-width: 26px;
}
.wall {
  stroke: var(--ink);
}
.inside.chosen {
  stroke-dasharray: 12 4;
}
.figure {
  font-size: 12px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
  stroke-linejoin: round;
  font-variant-numeric: tabular-nums;
}
.bend {
  fill: var(--sheet);
  stroke: var(--ring);
  stroke-width: 3;
  cursor: move;
  pointer-events: all;
}
</style>
