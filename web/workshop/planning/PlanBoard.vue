<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed, ref } from 'vue';
import { BOOKED_KINDS } from '@core/workshop/job-kinds/kinds.js';
import { KITS } from '@core/workshop/planning/capacities.js';
import { dragJob, type Dragged } from '@core/workshop/planning/board.js';
import { endOf, lateMinutes, QUARTER_MS, startOf, type PlacedJob, type PlanJob } from '@core/workshop/planning/problem.js';
import { fixedSlots, type BoardSlot, type BuiltProblem, type WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { heldWords, hinderedWords, spokenBar, underBar } from './barWords.js';
import { useDates } from '../../base/units/dates.js';
import { useWidth } from '../../base/units/useSize.js';
import { planScale } from './planScale.js';

/** Benches and hands over the coming days. Hands are solid, what runs alone is hatched; a bar can be dragged, or moved by keys. */
const props = defineProps<{
  board: WorkshopBoard;
  built: BuiltProblem;
  shown: readonly PlacedJob[];
  days: number;
  chosen: string | null;
}>();
const emit = defineEmits<{
  choose: [jobId: string];
  preview: [dragged: Dragged | null];
  drop: [dragged: Dragged];
  refused: [words: string];
}>();
const dates = useDates();
const frame = ref<HTMLElement | null>(null);
const frameWidth = useWidth(frame, 1100);

const LABEL = 118;
const ROW = 62;
const HANDS = 26;
const width = computed(() => Math.max(560, frameWidth.value || 1100));
/** what stands outside everybody's hours opens its day */
const held = computed(() =>
  props.board.slots.flatMap(({ steps }) => steps.flatMap(({ from, to, personId }) => (personId ? [Date.parse(from), Date.parse(to)] : []))),
);
const scale = computed(() =>
  planScale(props.board.timeZone, props.board.today, props.days, width.value - LABEL, props.board.shifts, held.value),
);
const height = computed(() => 30 + ROW * props.board.benches.length + 12 + HANDS * props.board.people.length + 8);
const benchY = (bench: number): number => 30 + bench * ROW;
const handsY = (person: number): number => 30 + ROW * props.board.benches.length + 12 + person * HANDS;
const x = (ms: number): number => LABEL + scale.value.x(ms);

interface Bar {
  readonly id: string;
  readonly bench: number;
  readonly label: string;
  readonly kind: string;
  readonly late: number;
  readonly fixed: boolean;
  readonly consented: boolean;
  readonly steps: readonly { from: number; to: number; attended: boolean; technician: number | null }[];
}
const nameOf = (id: string): { label: string; kind: string; consented: boolean } => {
  const job = props.board.jobs.find((each) => each.id === id);
  return {
    label: job?.systemName ?? 'a machine',
    kind: job ? sayWord(BOOKED_KINDS[job.kind].short) : '',
    consented: job?.consented ?? true,
  };
};
const fixedBar = (slot: BoardSlot): Bar => ({
  id: slot.jobId,
  bench: props.board.benches.findIndex(({ id }) => id === slot.benchId),
  ...nameOf(slot.jobId),
  late: 0,
  fixed: true,
  steps: slot.steps.map(({ from, to, personId }) => ({
    from: Date.parse(from),
    to: Date.parse(to),
    attended: personId !== null,
    technician: personId === null ? null : props.board.people.findIndex(({ id }) => id === personId),
  })),
});
const bars = computed<Bar[]>(() => [
  ...fixedSlots(props.board).map(fixedBar),
  ...props.shown.map((placed): Bar => {
    const job = props.built.problem.jobs[placed.job] as PlanJob;
    return {
      id: job.id,
      bench: placed.bench,
      ...nameOf(job.id),
      late: lateMinutes(job, endOf(placed)),
      fixed: false,
      steps: placed.steps.map(({ from, to, technician }) => ({ from, to, technician, attended: technician !== null })),
    };
  }),
]);
const running = computed(() =>
  props.board.running.map((each) => ({
    ...each,
    bench: props.board.benches.findIndex(({ id }) => id === each.benchId),
    from: Date.parse(props.board.now),
    to: Date.parse(each.until),
  })),
);
const hands = computed(() =>
  bars.value.flatMap((bar) =>
    bar.steps.flatMap((step) => (step.technician === null ? [] : [{ ...step, id: bar.id, technician: step.technician }])),
  ),
);

/** a bar in the hand: which job, and how far from its start the finger holds it */
const inHand = ref<{ index: number; grabMs: number } | null>(null);
function at(event: PointerEvent): { ms: number; bench: number } {
  const box = (frame.value as HTMLElement).getBoundingClientRect();
  const bench = Math.floor((event.clientY - box.top - 30) / ROW);
  return { ms: scale.value.ms(event.clientX - box.left - LABEL), bench: Math.max(0, Math.min(props.board.benches.length - 1, bench)) };
}
function grab(event: PointerEvent, bar: Bar): void {
  emit('choose', bar.id);
  const index = props.built.jobs.findIndex(({ id }) => id === bar.id);
  if (bar.fixed || index < 0) return;
  inHand.value = { index, grabMs: at(event).ms - (bar.steps[0]?.from ?? 0) };
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
}
let last: Dragged | null = null;
function move(event: PointerEvent): void {
  if (!inHand.value) return;
  const point = at(event);
  last = dragJob(props.built.problem, props.built.current, inHand.value.index, point.bench, point.ms - inHand.value.grabMs);
  emit('preview', last);
}
function drop(): void {
  if (!inHand.value) return;
  inHand.value = null;
  if (last && last.left.length === 0 && last.moved.length > 0) emit('drop', last);
  else {
    emit('preview', null);
    if (last?.left.length) emit('refused', hindered(last));
  }
  last = null;
}
/** the same by keys: a quarter of an hour, a day with shift, the bench above or below; it is saved at once, and can be undone */
function key(event: KeyboardEvent, bar: Bar): void {
  const steps: Record<string, [ms: number, bench: number]> = {
    ArrowLeft: [event.shiftKey ? -96 : -1, 0],
    ArrowRight: [event.shiftKey ? 96 : 1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  const by = steps[event.key];
  const index = props.built.jobs.findIndex(({ id }) => id === bar.id);
  if (!by || bar.fixed || index < 0) return;
  event.preventDefault();
  const bench = Math.max(0, Math.min(props.board.benches.length - 1, bar.bench + by[1]));
  const dragged = dragJob(props.built.problem, props.built.current, index, bench, (bar.steps[0]?.from ?? 0) + by[0] * QUARTER_MS);
  if (!dragged)
    emit(
      'refused',
      say('{label} fits nowhere on {name} from then on.', {
        label: bar.label,
        name: props.board.benches[bench]?.name ?? say('that bench'),
      }),
    );
  else if (dragged.left.length > 0) emit('refused', hindered(dragged));
  else if (dragged.moved.length > 0) emit('drop', dragged);
}
const hindered = ({ left }: Dragged): string => hinderedWords(left.map((id) => nameOf(id).label));
const spanOf = (bar: Bar) => ({
  from: x(startOf({ job: 0, bench: 0, steps: bar.steps })),
  to: x(endOf({ job: 0, bench: 0, steps: bar.steps })),
});
/** an hour's job is narrower than its name: the words run on as far as nothing else stands on that bench */
const roomBehind = (bench: number, from: number): number =>
  Math.min(width.value, ...bars.value.filter((each) => each.bench === bench && spanOf(each).from > from + 1).map((each) => spanOf(each).from - 4)) - from; // prettier-ignore
/** Where the words of a bar begin and how far they may run: in it, or behind one that is narrower than a name; nowhere, without room. */
function wordsOf(bench: number, from: number, to: number): { x: number; room: number }[] {
  const x = to - from >= LEAST_INSIDE ? from : Math.max(to, from + 4);
  const room = Math.max(x === from ? to - from : 0, from + roomBehind(bench, from) - x);
  return room < LEAST_ROOM ? [] : [{ x, room }];
}
/** px below which a word is a letter: then the chosen job says it under the board */
const LEAST_ROOM = 44;
/** px that a name of usual length takes */
const LEAST_INSIDE = 90;
/** px; WCAG 2.5.8 */
const LEAST_TARGET = 24;
</script>

<template>
  <div ref="frame" class="frame">
    <svg :width="Math.max(width, LABEL + scale.width)" :height="height" role="group" aria-label="Plan of the benches">
      <defs>
        <pattern id="alone" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" class="hatch" />
        </pattern>
      </defs>
      <g v-for="{ day, x: at0, width: wide, isFree } in scale.days" :key="day">
        <rect v-if="isFree" :x="LABEL + at0" y="24" :width="wide" :height="height - 24" class="free">
          <title>{{ dates.weekday(day) }}: nobody works</title>
        </rect>
        <line :x1="LABEL + at0" :x2="LABEL + at0" y1="24" :y2="height" class="day" />
        <text v-if="!isFree" :x="LABEL + at0 + 4" y="13" class="daytext">
          {{ dates.weekday(day).slice(0, wide > 74 ? undefined : wide > 46 ? 6 : 3) }}
        </text>
      </g>
      <text v-for="tick in scale.hours" :key="tick.x" :x="LABEL + tick.x" y="27" class="hour">{{ tick.hour }}</text>
      <g v-for="(person, index) in board.people" :key="person.id">
        <text x="0" :y="handsY(index) + 16" class="label small">{{ person.name }}</text>
        <rect
          v-for="span in built.problem.technicians[index]?.shifts ?? []"
          :key="span.from"
          :x="x(span.from)"
          :y="handsY(index) + 3"
          :width="Math.max(0, x(span.to) - x(span.from))"
          :height="HANDS - 8"
          class="shift"
        />
      </g>
      <rect
        v-for="(hand, index) in hands"
        :key="index"
        :x="x(hand.from)"
        :y="handsY(hand.technician) + 6"
        :width="Math.max(2, x(hand.to) - x(hand.from))"
        :height="HANDS - 14"
        class="busy"
        :class="{ chosen: hand.id === chosen }"
      />
      <g v-for="(bench, index) in board.benches" :key="bench.id">
        <line x1="0" :x2="width" :y1="benchY(index) + ROW - 2" :y2="benchY(index) + ROW - 2" class="plinth" />
        <text x="0" :y="benchY(index) + ROW / 2 + 4" class="label">{{ bench.name }}</text>
      </g>
      <g v-for="each in running" :key="each.runId">
        <rect
          :x="x(each.from)"
          :y="benchY(each.bench) + 10"
          :width="Math.max(3, x(each.to) - x(each.from))"
          :height="ROW - 14"
          class="running"
        >
          <title>{{ heldWords(each, dates) }}</title>
        </rect>
        <svg
          v-for="words in wordsOf(each.bench, x(each.from), x(each.to))"
          :key="words.x"
          :x="words.x"
          :y="benchY(each.bench)"
          :width="words.room"
          :height="ROW"
          overflow="hidden"
        >
          <text x="5" y="26" class="small">{{ each.systemName }}</text>
          <text v-if="each.holds.length" x="5" y="41" class="small">holds {{ each.holds.map(({ kit }) => KITS[kit]).join(', ') }}</text>
        </svg>
      </g>
      <g
        v-for="bar in bars"
        :key="bar.id"
        class="bar"
        :class="{ chosen: bar.id === chosen, fixed: bar.fixed, late: bar.late > 0, open: !bar.consented }"
        tabindex="0"
        role="button"
        :aria-label="spokenBar(bar, board.benches[bar.bench]?.name ?? '', dates)"
        @pointerdown="grab($event, bar)"
        @pointermove="move"
        @pointerup="drop"
        @pointercancel="drop"
        @keydown="key($event, bar)"
        @focus="emit('choose', bar.id)"
      >
        <!-- what a finger needs, where the bar is narrower -->
        <rect
          :x="spanOf(bar).from - Math.max(0, LEAST_TARGET - (spanOf(bar).to - spanOf(bar).from)) / 2"
          :y="benchY(bar.bench) + 8"
          :width="Math.max(LEAST_TARGET, spanOf(bar).to - spanOf(bar).from)"
          :height="ROW - 12"
          fill="transparent"
        />
        <rect
          :x="spanOf(bar).from"
          :y="benchY(bar.bench) + 8"
          :width="Math.max(4, spanOf(bar).to - spanOf(bar).from)"
          :height="ROW - 12"
          class="body"
        />
        <template v-for="(step, index) in bar.steps" :key="index">
          <rect
            :x="x(step.from)"
            :y="benchY(bar.bench) + ROW - 22"
            :width="Math.max(1, x(step.to) - x(step.from))"
            height="16"
            :class="step.attended ? 'hands' : 'alone'"
          />
        </template>
        <!-- a picture of its own cuts off what the bar has no room for -->
        <svg
          v-for="words in wordsOf(bar.bench, spanOf(bar).from, spanOf(bar).to)"
          :key="words.x"
          :x="words.x"
          :y="benchY(bar.bench)"
          :width="words.room"
          :height="ROW"
          overflow="hidden"
        >
          <text x="5" y="24" class="name">{{ bar.label }}</text>
          <text x="5" y="37" class="name small">{{ underBar(bar) }}</text>
        </svg>
      </g>
      <line :x1="x(Date.parse(board.now))" :x2="x(Date.parse(board.now))" y1="20" :y2="height" class="now" />
    </svg>
  </div>
</template>

<style scoped>
/* a bar is dragged, not its words */
svg text {
  user-select: none;
}
.frame {
  width: 100%;
  overflow-x: auto;
  touch-action: pan-y;
}
/* words over the hatch keep a ground of their own */
text {
  fill: var(--ink);
  font-size: 14px;
  font-variant-numeric: tabular-nums;
  paint-order: stroke;
  stroke: var(--ground);
  stroke-width: 4px;
  stroke-linejoin: round;
  pointer-events: none;
}
.small,
.daytext {
  font-size: 12.5px;
  fill: var(--ink-soft);
}
.label {
  font-weight: 620;
}
.day {
  stroke: var(--line);
}
.plinth {
  stroke: var(--ink);
  stroke-width: 3;
}
.shift {
  fill: var(--well);
}
.busy {
  fill: var(--ink-soft);
}
.busy.chosen {
  fill: var(--ink);
}
.body {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.bar {
  cursor: grab;
  outline: none;
}
.bar.fixed {
  cursor: default;
}
.open .body {
  stroke-dasharray: 5 3;
}
.free {
  fill: var(--well);
}
.hour {
  font-size: 11.5px;
  text-anchor: middle;
  fill: var(--ink-soft);
}
.fixed .body {
  stroke-width: 3.5;
}
.bar.chosen .body,
.bar:focus-visible .body {
  stroke: var(--ring);
  stroke-width: 4;
}
.late .body {
  stroke: var(--danger);
}
.late .name.small {
  fill: var(--danger);
}
.hands {
  fill: var(--ink);
}
.alone {
  fill: url(#alone);
}
.hatch {
  stroke: var(--ink-soft);
  stroke-width: 2.4;
}
.bar text {
  stroke: none;
}
.running {
  fill: url(#alone);
  stroke: var(--ink-soft);
}
.now {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 3 4;
}
</style>
