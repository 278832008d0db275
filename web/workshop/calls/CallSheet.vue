<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, onMounted, onScopeDispose, ref, watch } from 'vue';
import type { CallAnswer, CallMachine, OffersAnswer } from '@core/workshop/calls/answers.js';
import { CALLED_KINDS, type BookingInput } from '@core/workshop/calls/schema.js';
import type { BookableLoop } from '@core/workshop/jobs/answers.js';
import { JOB_KINDS, type JobKind } from '@core/workshop/job-kinds/kinds.js';
import { call, get, wordsOf } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import DialogFocus from '../../base/look/DialogFocus.vue';
import DayField from '../../base/units/DayField.vue';
import { nextKind } from '@core/workshop/calls/nextVisit.js';
import { usualEstimate } from '@core/workshop/jobs/usualEstimate.js';
import { blankForm, daysOf, intakeOf, priceOfForm } from '../jobs/jobForm.js';
import { usePriceList } from '../prices/priceStore.js';
import AnswerPlates from './AnswerPlates.vue';
import OwnerDays from '../jobs/OwnerDays.vue';
import OfferButtons from './OfferButtons.vue';
import { useSession } from '../people/sessionStore.js';
import { comesAnswer, costsAnswer, dueAnswer, readyAnswer } from './callWords.js';

/**
 * Somebody is on the phone: a number or a name, and the four answers. It lies over any page and covers neither the step's switch nor the
 * edge: whoever holds a machine goes on.
 */
const open = defineModel<boolean>({ required: true });
/** `typed` before the field was there; at a bench it leaves the switch free */
const props = defineProps<{ typed?: string; atBench?: boolean }>();
const emit = defineEmits<{ ready: [] }>();
const dates = useDates();
const notices = useNotices();
const session = useSession();
const submit = useSubmit();
const field = ref<HTMLInputElement | null>(null);
const who = ref('');
const answer = ref<CallAnswer | null>(null);
const problem = ref<string | null>(null);
const chosen = ref<string | null>(null);
const kind = ref<JobKind>('drain-refill');
const history = ref<BookableLoop | null>(null);
const offers = ref<OffersAnswer | null>(null);
const picked = ref<number | null>(null);
/** days in which the owner can do without it; empty: any */
const days = ref<{ from: string; to: string }[]>([]);
/** day on which its parts are there; empty: nothing has to come */
const partsOn = ref('');
/** the loop that is spoken of, where there are several */
const loopId = ref<string | null>(null);
/** said by somebody, for this machine: nobody agrees by not being asked */
const agreed = ref(false);

/** ms; a word is looked for once somebody stops typing it */
const TYPING_MS = 180;
let soon: number | undefined;
onScopeDispose(() => window.clearTimeout(soon));
const prices = usePriceList();
onMounted(() => {
  who.value = props.typed ?? '';
  field.value?.focus();
  emit('ready');
  void prices.load().catch(() => undefined);
});
watch(who, () => {
  window.clearTimeout(soon);
  soon = window.setTimeout(() => void look(), TYPING_MS);
});

async function look(): Promise<void> {
  const asked = who.value.trim();
  if (asked.length < 2) {
    answer.value = null;
    return;
  }
  try {
    const found = await get<CallAnswer>(`/calls?who=${encodeURIComponent(asked)}`);
    if (asked !== who.value.trim()) return;
    answer.value = found;
    problem.value = null;
    const kept = found.machines.some(({ systemId }) => systemId === chosen.value);
    if (!kept) chosen.value = found.machines.length === 1 ? (found.machines[0]?.systemId ?? null) : null;
  } catch (error) {
    problem.value = wordsOf(error);
  }
}

const machine = computed<CallMachine | null>(() => answer.value?.machines.find(({ systemId }) => systemId === chosen.value) ?? null);
/** nothing is booked yet, and something could be */
const bookable = computed(() => {
  const own = machine.value;
  return own !== null && own.loops.length > 0 && own.job === null && own.run === null && own.ready === null && own.state === 'in-service';
});
const usual = computed(() => (history.value ? usualEstimate(kind.value, history.value.file) : null));

watch(chosen, async () => {
  history.value = null;
  offers.value = null;
  picked.value = null;
  days.value = [];
  partsOn.value = '';
  agreed.value = false;
  submit.clear();
  const first = machine.value?.loops[0]?.id;
  if (first && bookable.value) await speakOf(first);
});
async function speakOf(loop: string): Promise<void> {
  loopId.value = loop;
  const found = await get<BookableLoop>(`/loops/${loop}/history`).catch(() => null);
  if (loopId.value !== loop || !found) return;
  history.value = found;
  kind.value = nextKind(found);
  await offer();
}
/** days that are whole; one half typed waits */
const wholeDays = () => days.value.filter(({ from, to }) => from !== '' && to !== '' && to >= from);
const daysQuery = (): string => wholeDays().map(({ from, to }) => `${from}/${to}`).join(','); // prettier-ignore
async function offer(): Promise<void> {
  const own = machine.value;
  const hours = usual.value?.hours;
  offers.value = null;
  picked.value = null;
  const loop = loopId.value;
  if (!own || loop === null || hours === undefined) return;
  const asked = kind.value;
  try {
    const found = await get<OffersAnswer>(
      `/offers?loop=${loop}&kind=${asked}&hours=${hours.toFixed(2)}&days=${daysQuery()}${partsOn.value ? `&parts=${partsOn.value}` : ''}`,
    );
    if (asked !== kind.value || loop !== loopId.value || own.systemId !== chosen.value) return;
    offers.value = found;
    picked.value = found.offers.length > 0 ? 0 : null;
  } catch (error) {
    problem.value = wordsOf(error);
  }
}
const choose = (next: JobKind): void => {
  kind.value = next;
  void offer();
};

const times = { day: dates.day, slotTime: dates.weekdayAndTime };
const slot = computed(() => (picked.value === null ? null : (offers.value?.offers[picked.value] ?? null)));
const answers = computed(() => {
  const own = machine.value;
  if (!own || !answer.value) return [];
  const learned = offers.value && offers.value.learnedFrom > 0 ? offers.value.attendedMinutes / 60 : null;
  const hours = learned ?? usual.value?.hours ?? null;
  const priced =
    usual.value && hours !== null
      ? priceOfForm(prices.list, kind.value, history.value?.coolantId ?? null, {
          ...usual.value,
          hours,
          partsText: '',
          priceText: '',
          parts: [],
        })
      : null;
  const costs =
    usual.value && hours !== null
      ? { kind: kind.value, coolantMl: usual.value.coolantMl, hours, learnedFrom: offers.value?.learnedFrom ?? 0, priced }
      : null;
  return [
    dueAnswer(own, answer.value.today, times),
    comesAnswer(own, slot.value, times),
    readyAnswer(own, slot.value, times),
    costsAnswer(own, costs),
  ];
});

async function book(): Promise<void> {
  const [own, at, estimate] = [machine.value, slot.value, usual.value];
  if (!own || loopId.value === null || !at || !estimate) return;
  const form = blankForm();
  const body: BookingInput = {
    job: {
      loopId: loopId.value,
      kind: kind.value,
      partId: null,
      intake: intakeOf(form),
      estimate: { hours: estimate.hours, partsText: '', coolantMl: estimate.coolantMl, priceText: '', parts: [] },
      ...daysOf({ ...form, partsOn: partsOn.value, windows: wholeDays() }),
      note: '',
    },
    offer: { benchId: at.benchId, steps: at.steps },
    agreed: agreed.value ? 'phone' : null,
  };
  const done = await submit.run((idempotencyKey) => call('POST', `/systems/${own.systemId}/bookings`, { body, idempotencyKey }));
  if (!done) {
    // somebody else may have taken it: what is free now is shown
    await offer();
    return;
  }
  notices.say(say('{name} comes in {slotTime}.', { name: own.name, slotTime: times.slotTime(at.from) }));
  await look();
}
</script>

<template>
  <aside v-if="open" class="call no-print" :class="{ beside: atBench }" role="dialog" aria-label="Call" @keydown.esc="open = false">
    <DialogFocus />
    <header>
      <label>
        <span>Number, name, machine or tag</span>
        <input ref="field" v-model="who" type="search" autocomplete="off" inputmode="text" maxlength="120" />
      </label>
      <button type="button" class="close" @click="open = false">Close</button>
    </header>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <p v-if="!answer" class="quiet hint">
      The number in any form finds its machines: when each is due, when it can come in, when it is ready, what it costs.
    </p>
    <p v-else-if="answer.machines.length === 0" role="status">Nobody here has that number or name.</p>
    <ul v-else-if="answer.machines.length > 1" class="plain-list who" aria-label="Whose machine">
      <li v-for="each in answer.machines" :key="each.systemId">
        <button type="button" :aria-pressed="chosen === each.systemId" @click="chosen = each.systemId">
          <b>{{ each.name }}</b> <span>{{ each.owner }}</span>
        </button>
      </li>
      <li v-if="answer.more" class="quiet">and more: another word finds them</li>
    </ul>
    <section v-if="machine" aria-live="polite">
      <h2>
        {{ machine.name }} <span class="quiet">{{ [machine.owner, machine.phone, machine.tag].filter(Boolean).join(' · ') }}</span>
      </h2>
      <AnswerPlates :answers="answers" class="plates" />
      <template v-if="bookable">
        <div v-if="machine.loops.length > 1" class="row mb-2" role="group" aria-label="Which loop">
          <button
            v-for="loop in machine.loops"
            :key="loop.id"
            type="button"
            class="loop"
            :aria-pressed="loopId === loop.id"
            @click="speakOf(loop.id)"
          >
            {{ loop.name }}
          </button>
        </div>
        <div class="what">
          <v-select
            :model-value="kind"
            :items="CALLED_KINDS.map((value) => ({ value, title: JOB_KINDS[value].label }))"
            label="What is to be done"
            density="compact"
            hide-details
            @update:model-value="choose"
          />
          <DayField
            v-model="partsOn"
            density="compact"
            label="Its parts are here on, if any must come"
            :min="answer?.today"
            @update:model-value="offer"
          />
        </div>
        <OwnerDays v-model="days" :today="answer?.today ?? ''" :at="() => []" @update:model-value="offer" />
        <OfferButtons v-if="offers" v-model="picked" :offers="offers.offers" class="mt-2 mb-2" />
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <div v-if="session.may('desk')" class="row book">
          <v-btn size="x-large" :disabled="!slot" :loading="submit.busy.value" @click="book">Book it</v-btn>
          <label class="agreed"><input v-model="agreed" type="checkbox" /> agreed to the estimate, by phone</label>
        </div>
        <p v-else class="quiet">Slots are given by the desk and the lead.</p>
      </template>
      <p class="links">
        <router-link :to="`/systems/${machine.systemId}`" @click="open = false">The machine</router-link>
        <router-link v-if="machine.job" :to="`/jobs/${machine.job.id}`" @click="open = false">Its job</router-link>
        <router-link v-if="machine.run" :to="`/runs/${machine.run.id}`" @click="open = false">Its bench</router-link>
      </p>
    </section>
  </aside>
</template>

<style scoped>
/* at a bench it covers picture, order and figure: switch, caution and clocks stay */
.call {
  position: fixed;
  z-index: 900;
  left: 0;
  top: 0;
  bottom: 64px;
  width: min(856px, 100vw);
  overflow-y: auto;
  padding: 20px 24px;
  background: var(--sheet);
  color: var(--ink);
  border-right: 3px solid var(--ink);
  display: grid;
  align-content: start;
  gap: 12px;
}
header {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: end;
}
header span {
  display: block;
  line-height: 1.5;
  color: var(--ink-soft);
}
header input {
  width: 100%;
  height: 56px;
  padding: 0 16px;
  font-size: 1.75rem;
  border: 2.5px solid var(--ink);
  border-radius: 3px;
  background: var(--ground);
  color: inherit;
}
.close {
  min-height: 56px;
  padding: 0 18px;
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.who button,
.loop {
  min-height: 52px;
  padding: 4px 14px;
  border: 1.5px solid var(--line);
  border-radius: 3px;
  text-align: left;
}
.plates {
  margin: 6px 0 12px;
}
.what {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 8px 12px;
  align-items: start;
  margin-top: 8px;
}
/* whatever stands above it: the hand knows where it is */
.book {
  position: sticky;
  z-index: 1;
  bottom: -20px;
  flex-wrap: nowrap;
  padding: 8px 0;
  background: var(--sheet);
}
[aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
}
.agreed {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.agreed input {
  width: 24px;
  height: 24px;
}
.links {
  display: flex;
  gap: 24px;
  margin: 14px 0 0;
}
p {
  margin: 0;
}
/* held upright the switch stands in the middle of the page: the sheet ends above it */
@media (max-width: 1000px) {
  .call {
    bottom: auto;
    max-height: calc(100dvh - 64px);
    border-right: 0;
    border-bottom: 3px solid var(--ink);
  }
  .call.beside {
    max-height: min(612px, calc(100dvh - 64px));
  }
}
@media (max-width: 600px) {
  .call {
    padding: 12px 16px;
    max-height: calc(100dvh - 64px);
  }
}
</style>
