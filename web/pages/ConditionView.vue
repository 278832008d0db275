<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { conditionWords, risenPercent, signedPercent, SOURCE_WORDS } from '@core/edge/words/condition.js';
import { differenceWords } from '@core/edge/words/readings.js';
import { formatDay } from '@core/base/units/dates.js';
import { formatDegrees, formatIn, formatKelvinPerWatt } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { liquidOf } from '@core/machine/liquids/fluids.js';
import { conditionOf, soundAndNow, type DatedReading } from '@core/physics/condition/series.js';
import { compareReadings } from '@core/physics/diagnosis/compareReadings.js';
import { allPowerW } from '@core/physics/diagnosis/loadReading.js';
import { partName } from '@core/physics/diagnosis/sensors.js';
import { CAUSE_JOBS } from '@core/workshop/jobs/causeJobs.js';
import { JOB_KINDS } from '@core/workshop/jobs/kinds.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import { call, get, wordsOf } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useNotices } from '../base/shell/notices.js';
import { useTwin, useTwinAnswer } from '../machine/compute/useTwin.js';
import CauseAnswer from '../machine/condition/CauseAnswer.vue';
import ConditionChart from '../machine/condition/ConditionChart.vue';
import HandReadingDialog from '../machine/condition/HandReadingDialog.vue';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import LogIntake from '../workshop/logs/LogIntake.vue';

/** What a machine's own readings say: each part over time, when it must come in, what it may be, and what to look at first. */
const props = defineProps<{ id: string }>();
const notices = useNotices();
const coolants = useCoolants();
const {
  data: page,
  problem,
  missing,
  load,
} = usePage(
  async (signal) => (await Promise.all([get<ConditionPage>(`/systems/${props.id}/condition`, signal), coolants.load()]))[0],
  () => props.id,
);
watch(page, (answer) => {
  if (answer) document.title = say('Condition of {name} · Lavacrum', { name: answer.system.name });
});
const nameOf = (part: string): string => partName(page.value?.parts ?? [], part);
/** what goes to the twin's worker is no reactive object */
const preview = shallowRef<readonly DatedReading[]>([]);
const reading = ref(false);
const listed = ref(false);
const seen = ref<string[]>([]);

/** what is kept, and what a log would add: a day that is known stays as it is */
const readings = computed((): readonly DatedReading[] => {
  const kept = page.value?.readings ?? [];
  const known = new Set(kept.filter(({ source }) => source === 'log').map(({ on }) => on));
  return [...kept, ...preview.value.filter(({ on }) => !known.has(on))];
});
const conditions = computed(() => {
  const { parts, marks, limits } = page.value ?? { parts: [], marks: [], limits: null };
  return limits ? conditionOf(parts, readings.value, marks, limits) : [];
});
/** parts that were read, the furthest from its best days first */
const shown = computed(() =>
  conditions.value
    .filter(({ points }) => points.length > 0)
    .map((condition) => ({
      condition,
      name: nameOf(condition.part),
      risen: risenPercent(condition),
    }))
    .sort((a, b) => (b.risen ?? -Infinity) - (a.risen ?? -Infinity)),
);

const pair = computed(() => soundAndNow(conditions.value, readings.value));
const newest = computed(() => [...(page.value?.readings ?? [])].sort((a, b) => a.on.localeCompare(b.on)).at(-1) ?? null);
/** the loop that the read parts belong to */
const loop = computed(() => {
  const parts = Object.keys(pair.value?.now.reading.partsC ?? {});
  return page.value?.loops.find(({ file }) => file.components.some(({ id }) => parts.includes(id))) ?? null;
});
const twin = useTwin(
  () => loop.value?.file ?? null,
  () => liquidOf(coolants.find(loop.value?.coolantProductId ?? null)),
);
const found = useTwinAnswer(
  twin,
  () => (pair.value && loop.value ? { sound: pair.value.sound.reading, now: pair.value.now.reading, signs: [...seen.value] } : null),
  ({ sound, now, signs }) => twin.engine.diagnose(sound, now, signs),
);
const job = computed(() => {
  const [first] = found.value?.explained ? found.value.causes : [];
  return first ? CAUSE_JOBS[first.cause] : null;
});
/** what the two readings share and where they differ, figure by figure */
const moved = computed(() => {
  if (!pair.value) return [];
  const [a, b] = [pair.value.sound.reading, pair.value.now.reading];
  const both = (x: number | undefined, y: number | undefined): x is number => x !== undefined && y !== undefined;
  return [
    ...Object.keys(b.partsC).flatMap((part) => {
      const theta = (of: typeof a): number => ((of.partsC[part] ?? NaN) - (of.coolantC ?? of.roomC)) / (of.powersW[part] ?? NaN);
      const over = both(a.coolantC, b.coolantC) ? say('{part} over the coolant', { part: nameOf(part) }) : say('{part} over the room', { part: nameOf(part) }); // prettier-ignore
      return Number.isFinite(theta(a)) && Number.isFinite(theta(b))
        ? [{ key: part, words: over, before: theta(a), after: theta(b), show: formatKelvinPerWatt }]
        : [];
    }),
    ...(both(a.coolantC, b.coolantC)
      ? [
          {
            key: 'coolant',
            words: say('coolant over the room'),
            before: (a.coolantC - a.roomC) / allPowerW(a),
            after: ((b.coolantC ?? NaN) - b.roomC) / allPowerW(b),
            show: formatKelvinPerWatt,
          },
        ]
      : []),
    ...(both(a.flowLph, b.flowLph)
      ? [{ key: 'flow', words: say('flow'), before: a.flowLph, after: b.flowLph ?? NaN, show: (lph: number) => formatIn('L/h', lph) }]
      : []),
  ];
});
const longest = (before: number, after: number): number => Math.max(before, after, 1e-9);
const unlike = computed(() =>
  pair.value
    ? compareReadings(pair.value.sound.reading, pair.value.now.reading)
        .differences.filter(({ what }) => what !== 'missing')
        .map(differenceWords)
    : [],
);

async function kept(words: string): Promise<void> {
  preview.value = [];
  notices.say(words);
  await load();
}
async function strike(id: string, struck: boolean): Promise<void> {
  try {
    await call('PUT', `/load-readings/${id}`, { body: { struck } });
    if (struck) notices.say(say('Reading struck out; its date follows.'), () => strike(id, false));
    await load();
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
const lines = computed(() =>
  [...(page.value?.readings ?? [])]
    .sort((a, b) => b.on.localeCompare(a.on))
    .map(({ id, on, source, reading: own }) => ({
      id,
      on,
      source,
      words: [
        ...Object.entries(own.partsC).map(([part, c]) => `${nameOf(part)} ${formatDegrees(c)}, ${Math.round(own.powersW[part] ?? 0)} W`),
        say('room {temp}', { temp: formatDegrees(own.roomC) }),
      ].join(' · '),
    })),
);
</script>

<template>
  <main class="page">
    <div v-if="problem" class="stack">
      <h1>{{ missing ? 'No such machine' : 'Its condition cannot be shown' }}</h1>
      <p role="alert">{{ problem }}</p>
    </div>
    <template v-else-if="page">
      <header class="head">
        <div>
          <h1>Condition of {{ page.system.name }}</h1>
          <p class="quiet">
            <router-link :to="`/systems/${page.system.id}`">{{ page.system.name }}</router-link>, {{ page.system.ownerName }} · per watt
            above the room: neither a hot day nor a heavier load moves it
          </p>
        </div>
        <div v-if="!page.system.retired" class="row no-print">
          <v-btn size="large" variant="outlined" @click="reading = true">Read it by hand</v-btn>
        </div>
      </header>

      <section v-for="{ condition, name, risen } in shown" :key="condition.part" class="part" :aria-label="name">
        <div class="says">
          <h2>{{ name }}</h2>
          <p class="big-number">{{ risen === null ? '–' : signedPercent(risen) }}<small v-if="risen !== null"> %</small></p>
          <p v-if="risen !== null">over its best days</p>
          <p v-if="condition.now !== null" class="figures quiet">
            {{ formatKelvinPerWatt(condition.now) }} now, {{ formatKelvinPerWatt(condition.best ?? condition.now) }} at its best
          </p>
          <p :class="{ danger: condition.isOver }">{{ conditionWords(condition) }}</p>
        </div>
        <ConditionChart :name="name" :condition="condition" :marks="page.marks" :today="page.today" />
      </section>
      <div v-if="shown.length" class="key quiet" aria-hidden="true">
        <span><i class="dot" /> a day of its log</span><span><i class="dot big" /> at the hand-over</span
        ><span><i class="dot square" /> before a service</span><span><i class="dot hollow" /> left out: other settings, still warming</span>
      </div>
      <p v-else class="empty">
        Nobody has read {{ page.system.name }} under load with its watts yet. A log of its owner’s monitoring program brings a reading for
        every day with a steady load: how it ages, when it must come in, and what it may be.
      </p>

      <section v-if="!page.system.retired" class="no-print log" aria-label="Its log">
        <h2>Its log</h2>
        <LogIntake :page="page" @preview="preview = $event" @kept="kept" />
        <button v-if="lines.length" type="button" class="link" :aria-expanded="listed" @click="listed = !listed">
          {{ lines.length }} {{ lines.length === 1 ? 'reading' : 'readings' }}
        </button>
        <ul v-if="listed" class="plain-list readings figures">
          <li v-for="line in lines" :key="line.id">
            <span>{{ formatDay(line.on) }}</span>
            <span>{{ line.words }}</span>
            <span class="quiet">{{ say(SOURCE_WORDS[line.source]) }}</span>
            <button
              v-if="line.source === 'log' || line.source === 'hand'"
              type="button"
              class="link"
              :aria-label="`Strike out the reading of ${formatDay(line.on)}`"
              @click="strike(line.id, true)"
            >
              strike out
            </button>
          </li>
        </ul>
      </section>
      <section v-if="pair" class="cause" aria-label="What it may be">
        <div>
          <h2>What it may be</h2>
          <p class="quiet">{{ formatDay(pair.sound.on) }}, one of its best days, against {{ formatDay(pair.now.on) }}.</p>
          <ul class="plain-list moved">
            <li v-for="each in moved" :key="each.key">
              <span>{{ each.words }}</span>
              <span class="bars" aria-hidden="true"
                ><i class="was" :style="{ width: `${(100 * each.before) / longest(each.before, each.after)}%` }" /><i
                  :style="{ width: `${(100 * each.after) / longest(each.before, each.after)}%` }"
              /></span>
              <span class="figures">{{ each.show(each.before) }} → {{ each.show(each.after) }}</span>
            </li>
          </ul>
          <p v-if="unlike.length" class="quiet">Not alike: {{ unlike.join('; ') }}.</p>
          <v-btn
            v-if="job && !page.system.retired"
            size="large"
            class="mt-3 no-print"
            :to="`/systems/${page.system.id}/jobs/new?kind=${job}${loop ? `&loop=${loop.id}` : ''}`"
            >Take it in: {{ JOB_KINDS[job].label }}</v-btn
          >
        </div>
        <CauseAnswer v-if="found && loop" v-model="seen" :loop="loop.file" :found="found" />
        <p v-else-if="!loop" class="quiet">Causes are ranked on the loop’s own twin: draw its loop first.</p>
      </section>
      <HandReadingDialog
        v-if="reading"
        :system-id="page.system.id"
        :parts="page.parts"
        :last="newest"
        :today="page.today"
        @close="reading = false"
        @saved="kept"
      />
    </template>
  </main>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 16px;
  align-items: start;
}
.part {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 24px;
  padding: 18px 0;
  border-top: 1px solid var(--line-soft);
}
.part .says {
  display: grid;
  gap: 8px;
  align-content: start;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  padding-left: 294px;
}
.dot {
  display: inline-block;
  width: 6px;
  height: 6px;
  border-radius: 50%;
  background: var(--ink-soft);
  margin-right: 4px;
}
.dot.big {
  width: 11px;
  height: 11px;
  background: var(--ink);
}
.dot.square {
  width: 10px;
  height: 10px;
  border-radius: 0;
  background: var(--ink);
}
.dot.hollow {
  background: none;
  border: 1.3px solid var(--ink-soft);
}
.cause {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px 40px;
  margin: 24px 0;
  align-items: start;
}
.cause > div {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.log {
  display: grid;
  gap: 10px;
  margin-top: 20px;
}
.log .link {
  justify-self: start;
}
.moved {
  width: 100%;
}
.empty {
  max-width: 60ch;
  font-size: 1.15rem;
  margin: 18px 0;
}
.moved li {
  display: grid;
  grid-template-columns: minmax(120px, 1fr) 1fr 180px;
  gap: 12px;
  align-items: center;
  padding: 5px 0;
}
.moved .figures {
  text-align: right;
}
.bars {
  display: grid;
  gap: 2px;
}
.bars i {
  display: block;
  height: 8px;
  background: var(--ink);
}
.bars .was {
  background: var(--line);
}
.readings {
  max-height: 340px;
  overflow-y: auto;
}
.readings li {
  display: grid;
  grid-template-columns: 104px 1fr auto auto;
  gap: 12px;
  min-height: 34px;
  align-items: center;
  border-top: 1px solid var(--line-soft);
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
p {
  margin: 0;
}
@media (max-width: 1000px) {
  .part,
  .cause {
    grid-template-columns: minmax(0, 1fr);
  }
  .key {
    padding-left: 0;
  }
}
</style>
