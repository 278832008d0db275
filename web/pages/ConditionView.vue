<script setup lang="ts">
import type { Breathing } from '@core/physics/heat/steady.js';
import { computed, ref, shallowRef, watch } from 'vue';
import { conditionWords, risenPercent, signedPercent, SOURCE_WORDS } from '@core/edge/words/condition.js';
import { formatDay } from '@core/base/units/dates.js';
import { formatDegrees, formatKelvinPerWatt } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { liquidOf } from '@core/machine/liquids/fluids.js';
import { flowSeries } from '@core/physics/condition/flowSeries.js';
import { conditionOf, soundAndNow, type DatedReading } from '@core/physics/condition/series.js';
import { settingsOf, type Setting } from '@core/physics/condition/settings.js';
import type { HeatCause } from '@core/physics/diagnosis/causes.js';
import { partName } from '@core/physics/diagnosis/sensors.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import { call, get, wordsOf } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useNotices } from '../base/shell/notices.js';
import { useTwin, useTwinAnswer } from '../machine/compute/useTwin.js';
import ConditionChart from '../machine/condition/ConditionChart.vue';
import FlowDrift from '../machine/condition/FlowDrift.vue';
import LevelDrift from '../machine/condition/LevelDrift.vue';
import HandReadingDialog from '../machine/condition/HandReadingDialog.vue';
import MarkDialog from '../machine/condition/MarkDialog.vue';
import TwoSettings from '../machine/condition/TwoSettings.vue';
import WhatItMayBe from '../machine/condition/WhatItMayBe.vue';
import { useSession } from '../workshop/people/sessionStore.js';
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
  take,
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
const session = useSession();
const reading = ref(false);
const marking = ref(false);
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
  () => (pair.value && loop.value ? { sound: pair.value.sound.reading, now: pair.value.now.reading, signs: [...seen.value], known: { ...page.value?.found }, breathing: JSON.parse(JSON.stringify(loop.value.breathing)) as Breathing } : null), // prettier-ignore
  ({ sound, now, signs, known, breathing }) => twin.engine.diagnose(sound, now, signs, known, breathing),
);
const settings = computed(() => {
  const { parts, marks, limits } = page.value ?? { parts: [], marks: [], limits: null };
  return limits ? settingsOf(parts, readings.value, marks, limits) : [];
});
const flow = computed(() => flowSeries(readings.value, page.value?.marks ?? []));
const obstruction = useTwinAnswer(
  twin,
  () => (pair.value && loop.value ? { sound: pair.value.sound.reading, now: pair.value.now.reading } : null),
  ({ sound, now }) => twin.engine.obstruction(sound, now),
);
async function kept(words: string): Promise<void> {
  preview.value = [];
  notices.say(words);
  await load();
}
const strike = (id: string, struck: boolean): Promise<void> =>
  strikeOut(`/load-readings/${id}`, struck, say('Reading struck out; its date follows.'), () => strike(id, false));
async function confirm(cause: HeatCause, part: string | null): Promise<void> {
  try {
    take(await call<ConditionPage>('POST', `/systems/${props.id}/causes`, { body: { cause, part, on: page.value?.today } }));
    notices.say(say('Kept: it moves what is thought likely of the next machine.'));
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
async function keepSetting({ pumpSpeed, fanSpeed, profile }: Setting): Promise<void> {
  try {
    take(await call<ConditionPage>('PUT', `/systems/${props.id}/kept-setting`, { body: { pumpSpeed, fanSpeed, profile } }));
    notices.say(say('Kept.'));
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
async function strikeOut(path: string, struck: boolean, words: string, undo: () => Promise<void>): Promise<void> {
  try {
    await call('PUT', path, { body: { struck } });
    if (struck) notices.say(words, undo);
    await load();
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
const strikeCause = (id: string, struck: boolean): Promise<void> =>
  strikeOut(`/confirmed-causes/${id}`, struck, say('Struck out.'), () => strikeCause(id, false));
const strikeMark = (id: string, struck: boolean): Promise<void> =>
  strikeOut(`/machine-marks/${id}`, struck, say('Struck out; its date follows.'), () => strikeMark(id, false));
const strikeLevel = (id: string, struck: boolean): Promise<void> =>
  strikeOut(`/level-readings/${id}`, struck, say('Struck out.'), () => strikeLevel(id, false));
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
          <v-btn size="large" variant="text" @click="marking = true">Something was done to it</v-btn>
          <v-btn size="large" variant="outlined" @click="reading = true">Read it by hand</v-btn>
        </div>
      </header>

      <section v-for="{ condition, name, risen } in shown" :key="condition.part" class="drift" :aria-label="name">
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

      <TwoSettings
        v-if="settings.length > 1"
        :settings="settings"
        :limits="page.limits"
        :kept="page.keptSetting"
        :name-of="nameOf"
        :can-write="!page.system.retired && session.may('machines')"
        @keep="keepSetting"
      />
      <FlowDrift v-if="flow.points.length > 1" :series="flow" :marks="page.marks" :obstruction="obstruction ?? null" :today="page.today" />
      <LevelDrift
        v-for="each in page.levels"
        :key="each.loopId"
        :system-id="page.system.id"
        :levels="each"
        :name="page.levels.length > 1 ? (page.loops.find(({ id: own }) => own === each.loopId)?.name ?? null) : null"
        :file="page.loops.find(({ id: own }) => own === each.loopId)?.file ?? null"
        :today="page.today"
        :can-write="!page.system.retired && session.may('machines')"
        @saved="kept"
        @strike="strikeLevel($event, true)"
      />

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
      <WhatItMayBe
        v-if="pair"
        v-model="seen"
        :page="page"
        :pair="pair"
        :loop="loop"
        :found="found ?? null"
        :can-write="!page.system.retired && session.may('machines')"
        @confirm="confirm"
        @strike="strikeCause($event, true)"
      />
      <MarkDialog
        v-if="marking"
        :system-id="page.system.id"
        :parts="page.parts"
        :marks="page.marks"
        :today="page.today"
        @close="marking = false"
        @saved="kept"
        @strike="strikeMark($event, true)"
      />
      <HandReadingDialog
        v-if="reading"
        :system-id="page.system.id"
        :parts="page.parts"
        :last="newest"
        :fan-groups="page.fanGroups"
        :today="page.today"
        :may-be-old="!page.marks.some(({ kind }) => kind === 'filled')"
        @close="reading = false"
        @saved="kept"
      />
    </template>
  </main>
</template>

<style scoped src="../machine/condition/drift.css"></style>

<style scoped>
.head {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 16px;
  align-items: start;
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
.log {
  display: grid;
  gap: 10px;
  margin-top: 20px;
}
.log .link {
  justify-self: start;
}
.empty {
  max-width: 60ch;
  font-size: 1.15rem;
  margin: 18px 0;
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
  .key {
    padding-left: 0;
  }
}
</style>
