<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import type { LoopChange } from '@core/machine/loop-change/loopChange.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { DEFAULT_SCHOOLS } from '@core/physics/leak-testing/schools.js';
import { BESIDE, mayGoBeside, within, type BesideWork } from '@core/workshop/jobs/beside.js';
import type { BookedKind } from '@core/workshop/job-kinds/kinds.js';
import { leastTime } from '@core/workshop/jobs/leastTime.js';
import { schoolsAfter, type WorkshopSchools } from '@core/workshop/jobs/usualSchools.js';
import { givenUpWords, spanWords } from '@core/edge/words/leastTime.js';
import { computed, onMounted, ref } from 'vue';
import { get } from '../../base/http/api.js';

/** What goes along while the machine is open, and how long all of it takes: as the workshop does it, and at the least. */
const works = defineModel<BesideWork[]>({ required: true });
const props = defineProps<{ kind: BookedKind; file: LoopFile; work?: LoopChange | null }>();
const offered = computed(() => mayGoBeside(props.kind));
const own = computed(() => within(props.kind).map((each) => sayWord(BESIDE[each].label)));
const schools = ref<WorkshopSchools>(DEFAULT_SCHOOLS);
onMounted(async () => {
  const shop = await get<{ workshop: { schools: WorkshopSchools } }>('/workshop').catch(() => null);
  if (shop) schools.value = shop.workshop.schools;
});
const time = computed(() =>
  leastTime(props.kind, props.file, {
    beside: works.value,
    ours: schoolsAfter(props.kind, schools.value),
    work: props.work ?? null,
  }),
);
const isLeast = computed(() => time.value.givenUp.length === 0);
const longest = computed(() => Math.max(1, time.value.usual.handsMinutes + time.value.usual.aloneMinutes));
const bars = computed(() =>
  [
    { name: say('as we do it'), span: time.value.usual },
    ...(isLeast.value ? [] : [{ name: say('at the least'), span: time.value.least }]),
  ].map(({ name, span }) => ({
    name,
    words: spanWords(span),
    hands: `${(100 * span.handsMinutes) / longest.value}%`,
    alone: `${(100 * span.aloneMinutes) / longest.value}%`,
  })),
);
const toggle = (work: BesideWork, on: boolean): void => {
  works.value = offered.value.filter((each) => (each === work ? on : works.value.includes(each)));
};
</script>

<template>
  <section v-if="offered.length > 0" aria-label="While it is open">
    <h3>While it is open</h3>
    <label v-for="each in offered" :key="each" class="tick">
      <input type="checkbox" :checked="works.includes(each)" @change="toggle(each, ($event.target as HTMLInputElement).checked)" />
      <span
        >{{ sayWord(BESIDE[each].label) }} <small class="quiet figures">+{{ BESIDE[each].minutes }} min</small></span
      >
    </label>
    <p v-if="own.length > 0" class="quiet">In it anyway: {{ own.join(', ') }}.</p>
  </section>
  <section aria-label="How long it takes">
    <dl class="spans">
      <template v-for="bar in bars" :key="bar.name">
        <dt>{{ bar.name }}</dt>
        <dd>
          <span class="bar" aria-hidden="true"><i :style="{ width: bar.hands }" /><i class="alone" :style="{ width: bar.alone }" /></span>
          <span class="figures">{{ bar.words }}</span>
        </dd>
      </template>
    </dl>
    <p v-if="!isLeast" class="quiet">The least gives up: {{ givenUpWords(time).join('; ') }}. It is chosen on the day, at the bench.</p>
  </section>
</template>

<style scoped>
h3 {
  margin: 0 0 4px;
  font-size: 1rem;
}
.tick {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.tick input {
  width: 24px;
  height: 24px;
}
.spans {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 14px;
  margin: 0;
}
.spans dd {
  margin: 0;
}
.bar {
  display: flex;
  height: 10px;
  margin-top: 6px;
  background: var(--paper-deep, transparent);
}
.bar i {
  background: var(--ink);
}
.bar i.alone {
  background: repeating-linear-gradient(90deg, var(--ink-soft) 0 3px, transparent 3px 6px);
}
</style>
