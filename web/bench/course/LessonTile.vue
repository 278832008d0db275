<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed } from 'vue';
import { wentWell, type Lesson, type LessonStanding } from '@core/bench/course/course.js';
import CountBar from './CountBar.vue';

/** One lesson, and where somebody stands with it. It can be taken at any time: the order is advice. */
const props = defineProps<{ lesson: Lesson; standing: LessonStanding | null; next: boolean; busy: boolean }>();
const emit = defineEmits<{ begin: [] }>();
const last = computed(() => props.standing?.last ?? null);
const words = computed(() => {
  const { state = 'new', inLessons = null } = props.standing ?? {};
  if (state === 'new') return say('not taken yet');
  if (state === 'done') return say('done');
  const well = last.value && wentWell(last.value) ? say('went well, comes once more') : say('comes again');
  return inLessons === 0 || inLessons === null
    ? say('{well} now', { well })
    : say('{well} in {inLessons} {inLessons2}', { well, inLessons, inLessons2: inLessons === 1 ? say('lesson') : say('lessons') });
});
const count = computed(() => (last.value ? last.value.noticed + last.value.missed + last.value.harmed : 1));
</script>

<template>
  <li class="lesson" :class="[standing?.state ?? 'new', { due: next }]">
    <button type="button" :disabled="busy" :aria-label="`${sayWord(lesson.title)}: ${words}. Begin it`" @click="emit('begin')">
      <span class="mark" aria-hidden="true" />
      <b>{{ sayWord(lesson.title) }}</b>
      <span class="quiet">{{ words }}</span>
      <span class="teaches">{{ sayWord(lesson.teaches) }}</span>
      <CountBar v-if="last" class="bar" :noticed="last.noticed" :missed="last.missed" :harmed="last.harmed" :most="count" />
    </button>
  </li>
</template>

<style scoped>
button {
  display: grid;
  grid-template-columns: 30px 1fr;
  gap: 2px 12px;
  width: 100%;
  height: 100%;
  align-content: start;
  text-align: left;
  padding: 14px;
  background: var(--sheet);
  border: 1.5px solid var(--line);
}
button > * {
  grid-column: 2;
}
.mark {
  grid-column: 1;
  grid-row: 1 / span 2;
  align-self: center;
  width: 26px;
  height: 26px;
  border: 3px solid var(--ink);
  border-radius: 50%;
}
.done .mark {
  background: var(--ink);
}
.again .mark {
  background: linear-gradient(90deg, var(--ink) 50%, transparent 50%);
}
.due button {
  border: 3px solid var(--ink);
}
.teaches {
  grid-column: 1 / -1;
  margin-top: 6px;
}
.bar {
  grid-column: 1 / -1;
  margin-top: 6px;
}
button:hover {
  background: var(--wash);
}
</style>
