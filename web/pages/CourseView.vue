<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import type { RunAnswer } from '@core/bench/benches/answers.js';
import { wentWell, type CourseAnswer, type Lesson, type LessonKey } from '@core/bench/course/course.js';
import { call, get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useSubmit } from '../base/http/useSubmit.js';
import CountBar from '../bench/course/CountBar.vue';
import LessonTile from '../bench/course/LessonTile.vue';

/** The course at the practice table: what comes next, where one stands with each lesson, and, for a lead, everybody. */
const router = useRouter();
const submit = useSubmit();
const { data: course, problem } = usePage((signal) => get<CourseAnswer>('/course', signal), () => 'course'); // prettier-ignore
const standingOf = (key: LessonKey) => course.value?.own.standings.find(({ lesson }) => lesson === key) ?? null;
const done = computed(() => course.value?.own.standings.filter(({ state }) => state === 'done').length ?? 0);
const next = computed(() => course.value?.lessons.find(({ key }) => key === course.value?.own.next) ?? null);
const GRADES = [
  { grade: 1, name: 'One thing at a time, a small loop' },
  { grade: 2, name: 'Two blocks, things that hide' },
  { grade: 3, name: 'A large loop, anything' },
] as const;
const inGrade = (grade: number): Lesson[] => course.value?.lessons.filter((each) => each.grade === grade) ?? [];
const why = computed(() => {
  const own = next.value && standingOf(next.value.key);
  if (!own?.last || own.state === 'new') return null;
  if (!wentWell(own.last))
    return say('Last time {say}: it comes again.', {
      say: own.last.harmed > 0 ? say('it would have cost something') : say('something went unnoticed'),
    });
  return say('It went well since; once more, to be sure.');
});
const most = computed(() => Math.max(1, ...(course.value?.people ?? []).map(({ noticed, missed, harmed }) => noticed + missed + harmed)));

async function begin(key: LessonKey): Promise<void> {
  const answer = await submit.run((idempotencyKey) => call<RunAnswer>('POST', `/course/${key}`, { body: {}, idempotencyKey }));
  if (!answer) return;
  // the table comes alive at once; where it does not, its own bar offers it again
  await call('POST', `/runs/${answer.run.id}/simulated-bench`, { body: { scenario: 'surprise' } }).catch(() => undefined);
  await router.push(`/runs/${answer.run.id}`);
}
</script>

<template>
  <main class="page">
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <template v-if="course">
      <header class="head">
        <div>
          <h1>The course</h1>
          <p class="quiet">
            Led runs at a practice table, each on a loop of its own. Nothing here touches a machine, its stock or its dates.
          </p>
        </div>
        <p class="big-number">
          {{ done }} <small>of {{ course.lessons.length }} lessons done</small>
        </p>
      </header>
      <section class="next sheet" aria-label="The next lesson">
        <div>
          <p class="quiet">{{ next ? 'Next' : 'All done' }}</p>
          <h2>{{ next ? sayWord(next.title) : 'Every lesson went well' }}</h2>
          <p>{{ next ? sayWord(next.teaches) : 'Take any of them again: its loop is a new one each time.' }}</p>
          <p v-if="why" class="why">{{ why }}</p>
        </div>
        <v-btn v-if="next" size="x-large" :loading="submit.busy.value" @click="begin(next.key)">Begin this lesson</v-btn>
      </section>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <section v-for="{ grade, name } in GRADES" :key="grade" class="grade" :aria-label="`Grade ${grade}`">
        <h2>
          {{ grade }} <span class="quiet">{{ name }}</span>
        </h2>
        <ul class="plain-list">
          <LessonTile
            v-for="lesson in inGrade(grade)"
            :key="lesson.key"
            :lesson="lesson"
            :standing="standingOf(lesson.key)"
            :next="lesson.key === course.own.next"
            :busy="submit.busy.value"
            @begin="begin(lesson.key)"
          />
        </ul>
      </section>
      <section v-if="course.people.length > 1" class="people" aria-label="Everybody">
        <h2>Everybody</h2>
        <ul class="plain-list">
          <li v-for="each in course.people" :key="each.personId">
            <b>{{ each.person }}</b>
            <span class="quiet figures"
              >{{ each.standings.filter(({ state }) => state === 'done').length }} of {{ course.lessons.length }} done,
              {{ each.attempts }} taken</span
            >
            <CountBar :noticed="each.noticed" :missed="each.missed" :harmed="each.harmed" :most="most" />
          </li>
        </ul>
      </section>
    </template>
  </main>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: end;
  gap: 24px;
  flex-wrap: wrap;
}
.head p {
  margin: 0;
}
.next {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 24px;
  flex-wrap: wrap;
  margin-top: 18px;
  padding: 18px 22px;
}
.next h2 {
  font-size: 2rem;
  margin: 0;
}
.next p {
  margin: 4px 0 0;
}
.why {
  font-weight: 620;
}
.grade {
  margin-top: 22px;
}
.grade ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 12px;
  margin-top: 8px;
}
.people {
  margin-top: 28px;
}
.people li {
  display: grid;
  grid-template-columns: 200px 200px 1fr;
  gap: 16px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--line-soft);
}
@media (max-width: 900px) {
  .people li {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
