<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { dayIn, instantIn } from '@core/base/units/calendar.js';
import { dragJob, type Dragged } from '@core/workshop/planning/board.js';
import type { BuiltProblem, WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { computed, reactive, ref, watch } from 'vue';
import DayField from '../../base/units/DayField.vue';
import TimeField from '../../base/units/TimeField.vue';
import { hinderedWords } from './barWords.js';

/** Moves a job without dragging (WCAG 2.5.7): day, time, bench. The first whole quarter hour from then on that fits is taken. */
const props = defineProps<{ board: WorkshopBoard; built: BuiltProblem; jobId: string }>();
const emit = defineEmits<{ move: [dragged: Dragged] }>();
const index = computed(() => props.built.jobs.findIndex(({ id }) => id === props.jobId));
const placed = computed(() => props.built.current.find(({ job }) => job === index.value) ?? null);
const form = reactive({ day: '', time: '09:00', bench: 0 });
const why = ref<string | null>(null);
watch(
  () => props.jobId,
  () => {
    const at = placed.value?.steps[0]?.from;
    const zone = props.board.timeZone;
    const day = at === undefined ? props.board.today : dayIn(zone, new Date(at));
    form.day = day;
    form.bench = placed.value?.bench ?? 0;
    if (at !== undefined) {
      const minutes = Math.round((at - instantIn(zone, day, 0)) / 60_000);
      form.time = `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
    }
    why.value = null;
  },
  { immediate: true },
);
const nameOf = (id: string): string => props.built.jobs.find((job) => job.id === id)?.systemName ?? 'a machine';
function move(): void {
  const [hours = 0, minutes = 0] = form.time.split(':').map(Number);
  const bench = props.board.benches[form.bench]?.name ?? say('that bench');
  if (!form.day) {
    why.value = say('Say on which day.');
    return;
  }
  const dragged = dragJob(
    props.built.problem,
    props.built.current,
    index.value,
    form.bench,
    instantIn(props.board.timeZone, form.day, hours * 60 + minutes),
  );
  why.value = !dragged
    ? say('{nameOf} fits nowhere on {bench} from then on: hands, kits or its owner’s days end before.', {
        nameOf: nameOf(props.jobId),
        bench,
      })
    : dragged.left.length > 0
      ? hinderedWords(dragged.left.map(nameOf))
      : dragged.moved.length === 0
        ? say('It stands there already.')
        : null;
  if (dragged && why.value === null) emit('move', dragged);
}
</script>

<template>
  <form class="row move-to" novalidate @submit.prevent="move">
    <DayField v-model="form.day" label="Move it to" :min="board.today" />
    <TimeField v-model="form.time" label="from" />
    <v-select v-model="form.bench" :items="board.benches.map(({ name }, value) => ({ value, title: name }))" label="on" />
    <v-btn type="submit" variant="outlined">Move</v-btn>
    <p v-if="why" role="alert">{{ why }}</p>
  </form>
</template>

<style scoped>
.move-to > .v-input {
  flex: 1 1 130px;
}
.move-to p {
  flex-basis: 100%;
  margin: 0;
}
</style>
