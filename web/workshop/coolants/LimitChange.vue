<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { reachWords } from '@core/edge/words/reach.js';
import type { LimitChangeRow, Moved, Product, SheetLife } from '@core/workshop/coolants/answers.js';
import { computed, ref } from 'vue';
import { call, get, wordsOf } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import NumberField from '../../base/units/NumberField.vue';
import { useSession } from '../people/sessionStore.js';

/** A maker's limit that came out after loops were filled: how many dates it would move, whom to tell, who heard, and the way back. */
const props = defineProps<{ product: Product }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
const dates = useDates();
const notices = useNotices();
const session = useSession();
const months = ref<number | null>(props.product.sheetLifeMonths);
const hours = ref<number | null>(props.product.sheetLifeHours);
/** what the figures in the fields would move; null: not asked, or the fields changed since */
const tried = ref<readonly Moved[] | null>(null);
const { data, take } = usePage(
  (signal) => get<{ changes: LimitChangeRow[] }>(`/coolants/${props.product.id}/limit-changes`, signal),
  () => props.product.id,
);
const body = () => ({ version: props.product.version, sheetLifeMonths: months.value, sheetLifeHours: hours.value });

async function ask(): Promise<void> {
  tried.value =
    (await submit.run(() => call<{ moved: Moved[] }>('POST', `/coolants/${props.product.id}/limit/trial`, { body: body() })))?.moved ??
    null;
}
async function change(): Promise<void> {
  const done = await submit.run(() => call<{ moved: Moved[] }>('PUT', `/coolants/${props.product.id}/limit`, { body: body() }));
  if (!done) return;
  tried.value = null;
  take(await get<{ changes: LimitChangeRow[] }>(`/coolants/${props.product.id}/limit-changes`));
  emit('changed');
}
async function act(
  method: 'PUT' | 'POST',
  path: string,
  with_: object = {},
  said?: (answer: { written?: number }) => string,
): Promise<void> {
  try {
    const answer = await call<{ changes: LimitChangeRow[]; written?: number }>(method, path, { body: with_ });
    take(answer);
    if (said) notices.say(said(answer));
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
async function undo(change: LimitChangeRow): Promise<void> {
  await act('POST', `/limit-changes/${change.id}/undo`, {}, () => say('The limit is what it was, and so are its dates.'));
  emit('changed');
}
/** the newest change that stands: its owners are to be told */
const current = computed(() => data.value?.changes.find(({ canUndo }) => canUndo) ?? null);
const older = computed(() => data.value?.changes.filter((each) => each !== current.value) ?? []);
const letters = computed(
  () =>
    current.value?.moved.filter(({ id, channel, email }) => channel === 'email' && email && !current.value?.told.includes(id)).length ?? 0,
);
const lifeWords = ({ sheetLifeMonths, sheetLifeHours }: SheetLife): string =>
  [
    sheetLifeMonths === null ? '' : say('{sheetLifeMonths} months', { sheetLifeMonths }),
    sheetLifeHours === null ? '' : say('{sheetLifeHours} running hours', { sheetLifeHours }),
  ]
    .filter(Boolean)
    .join(' or ') || say('its class');
const countWords = (moved: readonly Moved[]): string =>
  moved.length === 0
    ? say('No date moves: another clock comes first everywhere.')
    : `${moved.length} ${moved.length === 1 ? say('date moves') : say('dates move')}`;
</script>

<template>
  <div class="limit">
    <form class="row" novalidate @submit.prevent="ask">
      <NumberField
        v-model="months"
        label="Life by its sheet"
        unit="months"
        :errors="submit.at('sheetLifeMonths')"
        @update:model-value="tried = null"
      />
      <NumberField v-model="hours" label="Or running" unit="h" :errors="submit.at('sheetLifeHours')" @update:model-value="tried = null" />
      <v-btn type="submit" variant="outlined" :loading="submit.busy.value">What would move</v-btn>
      <span class="quiet">Empty: the limit of its class counts.</span>
    </form>
    <p v-if="submit.stale.value" role="alert" class="danger">Somebody changed this limit meanwhile; close this and look again.</p>
    <p v-else-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <div v-if="tried" class="tried" aria-live="polite">
      <p>
        <strong>{{ countWords(tried) }}</strong><template v-if="tried[0]"
          >, the first to {{ dates.day(tried[0].dueOn) }} ({{ tried[0].systemName }}). Nothing is written yet.</template
        >
      </p>
      <div class="row">
        <v-btn :loading="submit.busy.value" @click="change">Date all anew</v-btn>
        <v-btn variant="text" @click="tried = null">Leave it</v-btn>
      </div>
    </div>
    <section v-if="current" aria-label="Whom to tell">
      <header class="spread">
        <p>
          <strong>{{ countWords(current.moved) }}.</strong> {{ lifeWords(current.before) }} became {{ lifeWords(current.after) }} on
          {{ dates.day(current.at) }}, by {{ current.by }}.
          <template v-if="current.moved.length">{{ current.told.length }} of {{ current.moved.length }} told.</template>
        </p>
        <div class="row">
          <v-btn
            v-if="letters > 0 && session.may('desk')"
            variant="outlined"
            @click="act('POST', `/limit-changes/${current.id}/letters`, {}, ({ written }) => `${written} letters wait to be sent.`)"
            >Write to {{ letters }} by e-mail</v-btn
          >
          <v-btn v-if="current.moved.length" variant="text" :to="`/limit-changes/${product.id}`">The list on paper</v-btn>
          <v-btn v-if="session.may('lead')" variant="text" @click="undo(current)">Take the change back</v-btn>
        </div>
      </header>
      <ul class="plain-list calls">
        <li v-for="each in current.moved" :key="each.id">
          <label>
            <input
              type="checkbox"
              :checked="current.told.includes(each.id)"
              :disabled="!session.may('desk')"
              :aria-label="`${each.ownerName} was told of ${each.systemName}`"
              @change="
                act('PUT', `/limit-changes/${current.id}/told`, { item: each.id, told: ($event.target as HTMLInputElement).checked })
              "
            />
            told
          </label>
          <router-link :to="`/systems/${each.systemId}`">{{ each.systemName }}</router-link>
          <span>{{ each.ownerName }}, {{ reachWords(each) }}</span>
          <span class="figures"
            ><s class="quiet">{{ dates.day(each.before) }}</s> {{ dates.day(each.dueOn) }}</span
          >
        </li>
      </ul>
    </section>
    <ul v-if="older.length" class="plain-list quiet" aria-label="Changed before">
      <li v-for="each in older" :key="each.id">
        {{ dates.day(each.at) }}, {{ each.by }}: {{ lifeWords(each.before) }} became {{ lifeWords(each.after) }},
        {{ each.moved.length }} dates<template v-if="each.undoneAt">; taken back {{ dates.day(each.undoneAt) }}</template>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.limit {
  border-left: 4px solid var(--ink);
  padding: 6px 0 6px 14px;
  display: grid;
  gap: 10px;
}
.limit p {
  margin: 0;
}
.limit .row > .v-input {
  flex: 0 1 170px;
}
.tried {
  border: 2px dashed var(--ink);
  border-radius: 3px;
  padding: 10px 14px;
}
.calls li {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr) minmax(0, 1.4fr) auto;
  gap: 14px;
  align-items: center;
  min-height: 44px;
  border-top: 1px solid var(--line-soft);
}
.calls label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.calls input {
  width: 22px;
  height: 22px;
}
@media (max-width: 700px) {
  .calls li {
    grid-template-columns: 76px 1fr;
  }
}
</style>
