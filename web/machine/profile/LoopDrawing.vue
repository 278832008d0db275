<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { formatMl, groupedUpTo } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import { computed, ref, useId } from 'vue';
import type { Fate, LiquidPicture } from '@core/physics/draining/picture.js';
import type { DrawnPart, DrawnTube, DrawnVessel, UnrolledLoop } from '@core/physics/profile/unroll.js';
import { useWidth } from '../../base/units/useSize.js';
import {
  frameOf,
  frontPoint,
  heightMarks,
  LABEL_PX,
  placeDots,
  placeNames,
  tubePathOf,
  tubePieces,
  vesselPath,
  type FrontMark,
  type PlaceDot,
} from '@core/physics/profile/drawing.js';
import type { OpeningState } from './openings.js';
import { drawSecondLine, type SecondLine } from './secondLine.js';

/**
 * The one drawing of a loop, small or large: unrolled along its flow path as it stands, every height true, every
 * vessel's area its volume. What stands where is told by `picture`; ports are handles that go from closed to air to
 * drain.
 */
const props = withDefaults(
  defineProps<{
    unrolled: UnrolledLoop;
    picture: LiquidPicture;
    colour: string | null;
    height?: number;
    /** state of every port that can be opened; none: the handles rest */
    openings?: ReadonlyMap<string, OpeningState> | null;
    /** pressure, temperature */
    line?: SecondLine | null;
    label: string;
    /** without ruler, names and handles: a sign of the machine rather than a plan of it */
    bare?: boolean;
    /** part or tube that is marked */
    selected?: string | null;
    /** where a filling front is expected, and where it was measured */
    fronts?: readonly FrontMark[];
    /** places that are looked at: touched on the picture. A list beside it says the same to a keyboard and a screen reader */
    dots?: readonly PlaceDot[];
    /** px; size of the names */
    labelPx?: number;
  }>(),
  { height: 400, openings: null, line: null, bare: false, selected: null, fronts: () => [], dots: () => [], labelPx: LABEL_PX.usual },
);
const emit = defineEmits<{ turn: [port: string]; select: [id: string]; touch: [id: string] }>();

const own = useId();
const holder = ref<HTMLElement | null>(null);
const width = useWidth(holder);
const frame = computed(() => frameOf(props.unrolled, width.value, props.height, props.bare));
const vessels = computed(() => props.unrolled.items.filter((item): item is DrawnVessel => item.shape === 'vessel'));
const parts = computed(() => props.unrolled.items.filter((item): item is DrawnPart => item.shape === 'part'));
const tubes = computed(() => props.unrolled.items.filter((item): item is DrawnTube => item.shape === 'tube'));
/** each tube cut where what stands in it changes */
const pieces = computed(() => new Map(tubes.value.map((tube) => [tube.id, tubePieces(tube, props.picture, frame.value)])));
const names = computed(() => (props.bare ? [] : placeNames(props.unrolled.items, frame.value, props.labelPx, dotsDrawn.value)));
const dotsDrawn = computed(() => placeDots(props.unrolled, frame.value, props.dots));
const marks = computed(() => (props.bare ? [] : heightMarks(props.unrolled, frame.value)));

const liquid = computed(() => props.colour ?? 'var(--ink-soft)');
function paint(fate: Fate): string {
  if (fate === 'gas') return 'var(--glass)';
  if (fate === 'held') return `url(#${own}-held)`;
  if (fate === 'high') return `url(#${own}-high)`;
  return liquid.value;
}
const px = (bore: number): number => (props.bare ? 4 : Math.max(6, Math.min(11, bore * 0.7)));
/** px; half the height of a part that is no vessel */
const partHalf = computed(() => (props.bare ? 6 : 9));

/** ports that open, and the joints at both ends of every tube where they are offered as openings */
const handles = computed(() => {
  if (props.bare) return [];
  const ports = [...vessels.value, ...parts.value].flatMap((item) =>
    item.ports.filter(({ name, closure }) => closure !== null || props.openings?.get(name) !== undefined),
  );
  const joints = tubes.value.flatMap((tube) =>
    (['from', 'to'] as const).flatMap((end) => {
      const at = end === 'from' ? tube.points[0] : tube.points.at(-1);
      const name = `${tube.id}.${end}`;
      return at && props.openings?.has(name)
        ? [{ name, label: say('Joint of {name}, {end} end', { name: tube.name, end: end === 'from' ? 'first' : 'far' }), ...at }]
        : [];
    }),
  );
  return [...ports, ...joints].map(({ name, label, x, mm }) => ({
    name,
    label,
    x,
    mm,
    state: props.openings?.get(name) ?? ('closed' as const),
  }));
});
const STATE_WORDS: Record<OpeningState, string> = { closed: 'closed', air: 'open for air', drain: 'open over the jug' };

/** Bridges forward are drawn; the way home is only named. */
const across = computed(() => props.unrolled.bridges.filter(({ from, to }) => to.x > from.x));
const home = computed(() => props.unrolled.bridges.filter(({ from, to }) => to.x <= from.x));

/** A vessel's level as a line, and a dashed middle through what stands empty in it. */
function surfaces({ part, x0, x1, topMm, bottomMm }: DrawnVessel) {
  const bands = props.picture.vessels.get(part) ?? [];
  const wet = bands.filter(({ fate }) => fate !== 'gas');
  const levelMm = wet.length === 0 ? bottomMm : Math.max(...wet.map(({ toMm }) => toMm));
  const [left, right, middle] = [frame.value.x(x0) - 2, frame.value.x(x1) + 2, frame.value.x((x0 + x1) / 2)];
  const y = frame.value.y(levelMm);
  return [
    ...(wet.length > 0 && levelMm < topMm ? [{ key: 'level', of: 'surface', at: { x1: left, x2: right, y1: y, y2: y } }] : []),
    ...(levelMm < topMm ? [{ key: 'empty', of: 'empty', at: { x1: middle, x2: middle, y1: frame.value.y(topMm), y2: y } }] : []),
  ];
}

/** whether the tube that ends there comes from below: its name stands on the free side */
const risesTo = ({ x, mm }: { readonly x: number; readonly mm: number }): boolean =>
  tubes.value.some(({ points }) => {
    const [before, end] = points.slice(-2);
    return before !== undefined && end?.x === x && end.mm === mm && before.mm < mm;
  });

const frontsDrawn = computed(() =>
  props.fronts.flatMap((front) => {
    const at = frontPoint(props.unrolled, props.picture, frame.value, front);
    return at ? [{ ...front, ...at }] : [];
  }),
);

const secondLine = computed(() => {
  const ends = [...vessels.value, ...parts.value]
    .sort((a, b) => a.x0 - b.x0)
    .flatMap(({ ports }) => ports.filter(({ x }, _index, all) => x === all[0]?.x || x === Math.max(...all.map((port) => port.x))));
  return props.line && drawSecondLine(props.line, ends.map(({ name, x }) => ({ name, x: frame.value.x(x) })), props.height); // prettier-ignore
});
</script>

<template>
  <div ref="holder" class="twin" :class="{ bare }">
    <svg
      :width="width"
      :height="height"
      :viewBox="`0 0 ${width} ${height}`"
      :role="openings === null ? 'img' : 'group'"
      :aria-label="label"
    >
      <defs>
        <pattern :id="`${own}-held`" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="8" height="8" fill="var(--glass)" />
          <rect width="4" height="8" :fill="liquid" />
        </pattern>
        <pattern :id="`${own}-high`" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect width="6" height="6" fill="var(--glass)" />
          <rect width="6" height="6" :fill="liquid" opacity="0.28" />
          <circle cx="3" cy="3" r="1.3" :fill="liquid" />
        </pattern>
        <clipPath v-for="vessel in vessels" :id="`${own}-${vessel.part}`" :key="vessel.id">
          <path :d="vesselPath(vessel, frame)" />
        </clipPath>
      </defs>

      <g v-for="mark in marks" :key="mark.label" class="ruler" aria-hidden="true">
        <line :x1="40" :x2="width - (secondLine ? 28 : 0)" :y1="frame.y(mark.mm)" :y2="frame.y(mark.mm)" />
        <text x="34" :y="frame.y(mark.mm) + 4" text-anchor="end">{{ mark.label }}</text>
      </g>
      <text v-if="!bare" class="ruler-unit" x="34" y="14" text-anchor="end" aria-hidden="true">{{ unitName('mm') }}</text>

      <path
        v-for="(bridge, index) in across"
        :key="`across-${index}`"
        class="bridge"
        :d="`M${frame.x(bridge.from.x)} ${frame.y(bridge.from.mm)}L${frame.x(bridge.to.x)} ${frame.y(bridge.to.mm)}`"
      />
      <g v-for="(bridge, index) in bare ? [] : home" :key="`home-${index}`" class="home">
        <path class="bridge" :d="`M${frame.x(bridge.from.x)} ${frame.y(bridge.from.mm)}h18`" />
        <text
          v-if="bridge.towards"
          :x="frame.x(bridge.from.x) + 18"
          :y="frame.y(bridge.from.mm) + (risesTo(bridge.from) ? -10 : 20)"
          text-anchor="end"
        >
          → {{ bridge.towards }}
        </text>
      </g>

      <g v-for="tube in tubes" :key="tube.id" class="tube" :class="{ selected: selected === tube.id }" @click="emit('select', tube.id)">
        <title>{{ tube.name }}</title>
        <path class="wall" :d="tubePathOf(tube, frame)" :stroke-width="px(tube.boreMm) + 3.5" />
        <path class="inside" :d="tubePathOf(tube, frame)" :stroke-width="px(tube.boreMm)" />
        <path
          v-for="(piece, index) in pieces.get(tube.id)"
          :key="index"
          class="content"
          :d="piece.d"
          :style="{ stroke: paint(piece.fate) }"
          :stroke-width="px(tube.boreMm)"
        />
        <!-- what holds no liquid has a dashed middle: a white liquid is no empty tube -->
        <path
          v-for="(piece, index) in bare ? [] : pieces.get(tube.id)?.filter(({ fate }) => fate === 'gas')"
          :key="`empty-${index}`"
          class="empty"
          :d="piece.d"
        />
      </g>

      <g
        v-for="vessel in vessels"
        :key="vessel.id"
        class="part"
        :class="{ selected: selected === vessel.id }"
        @click="emit('select', vessel.id)"
      >
        <title>{{ vessel.name }}, {{ formatMl(vessel.volumeMl) }}</title>
        <path class="glass" :d="vesselPath(vessel, frame)" />
        <g :clip-path="`url(#${own}-${vessel.part})`">
          <rect
            v-for="(band, index) in picture.vessels.get(vessel.part) ?? []"
            :key="index"
            class="level"
            :data-fate="band.fate"
            :x="frame.x(vessel.x0) - 2"
            :width="frame.x(vessel.x1) - frame.x(vessel.x0) + 4"
            :y="frame.y(band.toMm)"
            :height="Math.max(0, frame.y(band.fromMm) - frame.y(band.toMm))"
            :fill="paint(band.fate)"
          />
        </g>
        <line
          v-for="mark in bare ? [] : surfaces(vessel)"
          :key="mark.key"
          :class="mark.of"
          v-bind="mark.at"
          :clip-path="`url(#${own}-${vessel.part})`"
        />
        <path class="outline" :d="vesselPath(vessel, frame)" />
      </g>
      <g v-for="part in parts" :key="part.id" class="part" :class="{ selected: selected === part.id }" @click="emit('select', part.id)">
        <title>{{ part.name }}, {{ formatMl(part.volumeMl) }}</title>
        <rect
          class="outline"
          :x="frame.x(part.x0)"
          :width="frame.x(part.x1) - frame.x(part.x0)"
          :y="frame.y(part.mm) - partHalf"
          :height="2 * partHalf"
          :rx="part.kind === 'pump' ? partHalf : 4"
          :style="{ fill: paint(picture.fates[part.node] ?? 'gas') }"
        />
      </g>

      <g v-if="secondLine && line" class="second" aria-hidden="true">
        <path :d="secondLine.d" />
        <text v-for="tick in secondLine.ticks" :key="tick.value" :x="width - 4" :y="tick.y + 4" text-anchor="end">
          {{ groupedUpTo(tick.value, 1) }}
        </text>
        <text :x="width - 4" y="14" text-anchor="end">{{ unitName(line.unit) }}</text>
      </g>

      <g v-for="front in frontsDrawn" :key="front.kind" class="front" :class="front.kind">
        <line :x1="front.x" :x2="front.x" y1="6" :y2="height - 6" />
        <path :d="`M${front.x} ${front.y - 9}l8 -13h-16z`" />
        <text :x="front.x + 8" :y="front.kind === 'measured' ? height - 8 : height - 24">{{ front.kind }}</text>
      </g>

      <text
        v-for="each in names"
        :key="each.id"
        class="name"
        :style="{ fontSize: `${labelPx}px` }"
        :x="each.x"
        :y="each.y"
        text-anchor="middle"
        aria-hidden="true"
      >
        {{ each.text }}
      </text>

      <g
        v-for="port in handles"
        :key="port.name"
        class="handle"
        :class="[port.state, { still: openings === null }]"
        :transform="`translate(${frame.x(port.x).toFixed(1)} ${frame.y(port.mm).toFixed(1)})`"
        :role="openings === null ? undefined : 'button'"
        :tabindex="openings === null ? undefined : 0"
        :aria-label="openings === null ? undefined : `${port.label}: ${STATE_WORDS[port.state]}`"
        @click="openings !== null && emit('turn', port.name)"
        @keydown.enter.prevent="openings !== null && emit('turn', port.name)"
        @keydown.space.prevent="openings !== null && emit('turn', port.name)"
      >
        <title>{{ port.label }}: {{ STATE_WORDS[port.state] }}</title>
        <circle class="reach" r="17" />
        <path v-if="port.state === 'drain'" class="drop" d="M0 -11C5 -4 7 0 7 4a7 7 0 0 1-14 0C-7 0-5-4 0-11Z" :style="{ fill: liquid }" />
        <circle v-else-if="port.state === 'air'" class="ring" r="7" />
        <rect v-else class="cap" x="-5" y="-5" width="10" height="10" rx="1.5" />
      </g>

      <g
        v-for="dot in dotsDrawn"
        :key="dot.id"
        class="dot"
        :class="dot.state"
        :data-place="dot.id"
        :transform="`translate(${dot.x.toFixed(1)} ${dot.y.toFixed(1)})`"
        aria-hidden="true"
        @click.stop="emit('touch', dot.id)"
      >
        <title>{{ dot.label }}</title>
        <circle class="reach" r="24" />
        <circle v-if="dot.state === 'next'" class="halo" r="18" />
        <circle class="disc" r="11" />
        <path v-if="dot.state === 'done'" d="M-5 .5l3.5 4 6.5-9" />
        <path v-if="dot.state === 'wrong'" d="M0-6v7M0 4v2" />
      </g>
    </svg>
  </div>
</template>

<style scoped src="./strokes.css"></style>
<style scoped src="./dots.css"></style>

<style scoped>
.twin {
  width: 100%;
  overflow: hidden;
}
.twin > svg {
  display: block;
}
.home text {
  font-size: 14px;
  fill: var(--ink-soft);
  font-variant-numeric: tabular-nums;
}
.content {
  fill: none;
  stroke-linejoin: round;
}
.level {
  transition:
    y 0.3s,
    height 0.3s;
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
.selected .outline {
  stroke: var(--ring);
  stroke-width: 3.5;
}
.selected .wall {
  stroke: var(--ring);
}
.bridge {
  stroke: var(--ink-soft);
  stroke-width: 2;
  stroke-dasharray: 2 5;
  fill: none;
}
.second path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.25;
  stroke-dasharray: 7 4;
}
.second text {
  font-size: 14px;
  fill: var(--ink);
  font-variant-numeric: tabular-nums;
}
.handle {
  cursor: pointer;
}
.handle.still {
  cursor: default;
}
.handle:focus-visible {
  outline: none;
}
.handle:focus-visible .reach {
  stroke: var(--ring);
  stroke-width: 3;
}
.reach {
  fill: transparent;
}
.handle:hover:not(.still) .reach {
  fill: var(--wash);
}
.cap {
  fill: var(--ink);
  stroke: var(--glass);
  stroke-width: 2;
}
.ring {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 3;
}
.drop {
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
