<script setup lang="ts">
import type { FromOwner, OwnersNow, WaitsForOwner } from '@core/workshop/owner-door/answers.js';
import { DESK_ANSWERS } from '@core/workshop/owner-door/whoAnswers.js';
import { saidWords } from '@core/edge/words/door.js';
import { say, sayWord } from '@core/base/words/say.js';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { call, get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { usePush } from '../../base/push/usePush.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import { useSession } from '../people/sessionStore.js';

/** What owners sent and nobody answered, and what waits for an owner and since when. */
const emit = defineEmits<{ changed: []; /** what it shows is known, or cannot be */ settled: [] }>();
/** a refusal is seldom, and its dialog no part of the first load */
const ReasonDialog = defineAsyncComponent(() => import('../../base/look/ReasonDialog.vue'));
const LevelPhotoDialog = defineAsyncComponent(() => import('./LevelPhotoDialog.vue'));
const dates = useDates();
const notices = useNotices();
const session = useSession();
const submit = useSubmit();
const { data: owners, load, take, settled } = usePage((signal) => get<OwnersNow>('/owners-now', signal));
watch(settled, () => emit('settled'));
usePush({ owners: () => void load(), resync: () => void load() });

const WAITS: Readonly<Record<WaitsForOwner['what'], string>> = {
  estimate: 'agrees to its estimate',
  'larger-scope': 'agrees to more than was told',
  slots: 'chooses a slot',
  answer: 'answers, so that its run goes on',
  level: 'photographs its level',
};
/** what taking it does, said on the button */
const TAKES: Readonly<Record<FromOwner['said']['kind'], string>> = {
  agreed: 'Read',
  declined: 'Read',
  slot: 'Keep that slot',
  days: 'Plan around them',
  'put-off': 'Move the date',
  photo: 'Read the level',
  meter: 'Count the hours',
  log: 'Read',
  line: 'Read',
};
const mayRefuse = ({ said }: FromOwner): boolean => !['agreed', 'declined', 'line', 'log'].includes(said.kind);
const mayAnswer = ({ said }: FromOwner): boolean => session.may(DESK_ANSWERS.includes(said.kind) ? 'desk' : 'machines');
const zone = computed(() => session.account?.timeZone ?? 'UTC');
const refusing = ref<FromOwner | null>(null);
const reading = ref<FromOwner | null>(null);

/** rows that stand before the benches; all of them on request */
const FEW = 4;
const allSent = ref(false);
const allWaiting = ref(false);
const shown = <T,>(rows: readonly T[], all: boolean): readonly T[] => (all ? rows : rows.slice(0, FEW));

async function answer(entry: FromOwner, taken: boolean, words = ''): Promise<void> {
  const after = await submit.run(() => call<OwnersNow>('PUT', `/door-entries/${entry.id}`, { body: { taken, words } }));
  if (!after) return void load();
  take(after);
  refusing.value = null;
  reading.value = null;
  if (taken && entry.said.kind === 'slot') notices.say(say('The slot is kept, and {owner} hears it.', { owner: entry.ownerName }));
  emit('changed');
}
const takeIt = (entry: FromOwner): void => {
  if (entry.said.kind === 'photo') reading.value = entry;
  else void answer(entry, true);
};
const addressOf = (each: { jobId: string | null; systemId: string }): string =>
  each.jobId ? `/jobs/${each.jobId}` : `/systems/${each.systemId}`;
</script>

<template>
  <section v-if="owners && (owners.sent.length || owners.waiting.length)" class="lists owners" aria-label="Owners">
    <div v-if="owners.sent.length" class="sent">
      <h2>Owners wrote</h2>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <ul class="plain-list">
        <li v-for="each in shown(owners.sent, allSent)" :key="each.id">
          <span class="figures time">{{
            dates.dayOf(each.at) === dates.today() ? dates.time(each.at) : dates.weekday(dates.dayOf(each.at))
          }}</span>
          <span>
            <router-link :to="addressOf(each)"
              ><strong>{{ each.systemName }}</strong></router-link
            >
            <span class="quiet">{{ [each.ownerName, each.phone].filter(Boolean).join(', ') }}</span>
            <span class="words">{{ saidWords(each.said, zone) }}</span>
            <a v-if="each.file?.mediaType === 'text/csv'" :href="`/api/door-files/${each.file.id}`" download>Take the file</a>
          </span>
          <span v-if="mayAnswer(each)" class="acts">
            <button
              type="button"
              :disabled="submit.busy.value"
              :aria-label="`${sayWord(TAKES[each.said.kind])}: ${each.systemName}`"
              @click="takeIt(each)"
            >
              {{ sayWord(TAKES[each.said.kind]) }}
            </button>
            <button v-if="mayRefuse(each)" type="button" class="no" :aria-label="`No: ${each.systemName}`" @click="refusing = each">
              No
            </button>
          </span>
        </li>
      </ul>
      <button v-if="owners.sent.length > FEW && !allSent" type="button" class="link" @click="allSent = true">
        All {{ owners.sent.length }}
      </button>
    </div>
    <div v-if="owners.waiting.length" class="waiting">
      <h2>Waits for its owner</h2>
      <ul class="plain-list">
        <li v-for="(each, index) in shown(owners.waiting, allWaiting)" :key="index">
          <span class="figures time">{{ dates.weekday(dates.dayOf(each.since)) }}</span>
          <span>
            <router-link :to="addressOf(each)"
              ><strong>{{ each.systemName }}</strong></router-link
            >
            {{ sayWord(WAITS[each.what]) }}
            <span class="quiet">{{ [each.ownerName, each.phone].filter(Boolean).join(', ') }}</span>
          </span>
        </li>
      </ul>
      <button v-if="owners.waiting.length > FEW && !allWaiting" type="button" class="link" @click="allWaiting = true">
        All {{ owners.waiting.length }}
      </button>
    </div>
    <ReasonDialog
      v-if="refusing"
      :model-value="true"
      title="Not so"
      label="What the owner reads"
      button="Tell the owner"
      :least="3"
      @update:model-value="refusing = null"
      @say="(words: string) => refusing && answer(refusing, false, words)"
    />
    <LevelPhotoDialog
      v-if="reading"
      :entry="reading"
      @close="reading = null"
      @read="(taken: boolean, words: string) => reading && answer(reading, taken, words)"
    />
  </section>
</template>

<style scoped src="../today/rows.css"></style>

<style scoped>
.owners {
  margin-top: 14px;
}
.link {
  min-height: 44px;
  text-decoration: underline;
}
h2 {
  margin-bottom: 4px;
}
.waiting li {
  grid-template-columns: 108px 1fr;
}
.words {
  display: block;
  overflow-wrap: anywhere;
}
.acts .no {
  border-color: var(--line);
}
</style>
