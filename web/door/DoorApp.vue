<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import type { Said } from '@core/workshop/owner-door/said.js';
import { standsWords, readyWords } from '@core/edge/words/door.js';
import { computed, defineAsyncComponent, onMounted, onUnmounted, ref } from 'vue';
import { setReading } from '../base/units/reader.js';
import { DoorProblem, readDoor, sayAtDoor } from './doorApi.js';
import DoorPlaces from './DoorPlaces.vue';
import EstimateSheet from './EstimateSheet.vue';
import LevelSheet from './LevelSheet.vue';
import PutOffSheet from './PutOffSheet.vue';
import SaidList from './SaidList.vue';
import SendSheet from './SendSheet.vue';
import SlotSheet from './SlotSheet.vue';

/** One machine as its owner may see it, and what its owner can tell the workshop. */
// what is read once at the end comes when there is something to read
const ReportSheet = defineAsyncComponent(() => import('./ReportSheet.vue'));
const page = ref<DoorPage | null>(null);
const problem = ref('');
const isNone = ref(false);
const busy = ref(false);
const sent = ref('');
const SENT_MS = 8000;
/** the owner's choice of this visit, over what the workshop knows of him */
const language = ref<'en' | 'de' | null>(null);

function take(answer: DoorPage): void {
  page.value = answer;
  setReading({ ...answer.reading, ...(language.value ? { language: language.value } : {}) });
  document.title = say('{machine} · {workshop}', { machine: answer.machine, workshop: answer.workshop.name });
}
async function load(): Promise<void> {
  problem.value = '';
  isNone.value = false;
  try {
    take(await readDoor());
  } catch (error) {
    if (error instanceof DoorProblem && error.status === 404) {
      page.value = null;
      isNone.value = true;
    } else problem.value = error instanceof Error ? error.message : '';
  }
}
/** What is said keeps its id until it arrived: pressed twice, or sent again after a gap, it counts once. */
const pending = { text: '', id: '' };
async function tell(said: Said, file: string | null = null): Promise<boolean> {
  if (busy.value) return false;
  const text = JSON.stringify([said, file?.length ?? 0]);
  if (pending.text !== text) Object.assign(pending, { text, id: crypto.randomUUID() });
  busy.value = true;
  problem.value = '';
  sent.value = '';
  try {
    take(await sayAtDoor(pending.id, said, file));
    pending.text = '';
    sent.value = say('The workshop has it.');
    // what was sent stands below: the word need not cover the page for good
    window.setTimeout(() => (sent.value = ''), SENT_MS);
    return true;
  } catch (error) {
    problem.value = error instanceof Error ? error.message : '';
    // what was on this page is not what is there now
    if (error instanceof DoorProblem && error.status === 409) await readDoor().then(take).catch(() => undefined); // prettier-ignore
    return false;
  } finally {
    busy.value = false;
  }
}
function speak(next: 'en' | 'de'): void {
  language.value = next;
  if (page.value) take(page.value);
}
onMounted(() => {
  void load();
  window.addEventListener('hashchange', load);
});
onUnmounted(() => window.removeEventListener('hashchange', load));

const stands = computed(() => page.value && standsWords(page.value.stands, page.value.workshop.timeZone));
const ready = computed(() => page.value?.ready && readyWords(page.value.ready, page.value.workshop.timeZone));
const phone = computed(() => page.value?.workshop.contact.phone ?? '');
/** once it is here, nobody brings it */
const isToCome = computed(() => ['home', 'booked', 'awaited', 'missed'].includes(page.value?.stands.at ?? ''));
/** what the owner is asked for comes before what may be told */
const asks = computed(() => ({
  estimate: page.value?.job && page.value.job.agreed === null && page.value.job.declinedAt === null,
  slots: (page.value?.slots.offered.length ?? 0) > 0,
  level:
    page.value?.settle && page.value.may.includes('photo') && !page.value.settle.sent && (page.value.settle.from ?? '') <= page.value.today,
}));
</script>

<template>
  <main v-if="page" class="door">
    <header>
      <p>{{ page.workshop.name }}</p>
      <h1>{{ page.machine }}</h1>
    </header>
    <section class="stands" aria-labelledby="stands">
      <h2 id="stands">{{ stands?.large }}</h2>
      <p>{{ stands?.small }}</p>
      <DoorPlaces :at="page.stands.at" />
      <p v-if="ready" class="ready">
        <span>Ready</span> <strong>{{ ready.large }}</strong>
        <small>{{ ready.small }}</small>
      </p>
    </section>

    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <p v-else-if="sent" role="status" class="sent">{{ sent }}</p>

    <EstimateSheet
      v-if="page.job"
      :job="page.job"
      :may="page.may.includes('agree')"
      :time-zone="page.workshop.timeZone"
      :busy="busy"
      :tell="tell"
      :asked="!!asks.estimate"
    />
    <SlotSheet
      v-if="page.may.includes('slots') && isToCome"
      :slots="page.slots"
      :has-job="page.job !== null"
      :time-zone="page.workshop.timeZone"
      :today="page.today"
      :busy="busy"
      :tell="tell"
    />
    <LevelSheet v-if="page.settle && page.may.includes('photo')" :settle="page.settle" :open="!!asks.level" :busy="busy" :tell="tell" />
    <PutOffSheet v-if="page.due" :due="page.due" :may="page.may.includes('put-off')" :today="page.today" :busy="busy" :tell="tell" />
    <ReportSheet v-if="page.reports.length" :reports="page.reports" :time-zone="page.workshop.timeZone" />
    <SendSheet :may="page.may" :today="page.today" :busy="busy" :tell="tell" @problem="(words: string) => (problem = words)" />
    <SaidList v-if="page.said.length" :said="page.said" :time-zone="page.workshop.timeZone" />

    <footer>
      <p><strong>If something drips: supply off at the wall, then call.</strong></p>
      <a v-if="phone" class="call" :href="`tel:${phone.replace(/\s/g, '')}`">Call {{ phone }}</a>
      <p>{{ [page.workshop.contact.address, page.workshop.contact.email].filter(Boolean).join(' · ') }}</p>
      <p>
        This address is secret: whoever has it sees this page.
        <button v-if="page.reading.language !== 'de' ? language !== 'de' : language === 'en'" type="button" lang="de" @click="speak('de')">
          Deutsch
        </button>
        <button v-else type="button" lang="en" @click="speak('en')">English</button>
      </p>
    </footer>
  </main>
  <main v-else-if="isNone" class="door none">
    <h1>Nothing opens here</h1>
    <p>This link does not open anything. Ask the workshop for a new one.</p>
  </main>
  <main v-else class="door none">
    <p v-if="problem" role="alert">{{ problem }}</p>
    <p v-else role="status">One moment.</p>
    <button v-if="problem" type="button" class="plain" @click="load">Try again</button>
  </main>
</template>
