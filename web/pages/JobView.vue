<script setup lang="ts">
import { colourWords } from '@core/edge/words/colour.js';
import { formatIn, groupedUpTo } from '@core/base/units/display.js';
import type { JobPage } from '@core/workshop/jobs/answers.js';
import { capital, say, sayWord } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { partName } from '@core/machine/loop-file/loopFile.js';
import { BESIDE } from '@core/workshop/jobs/beside.js';
import { BOOKED_KINDS, isBuild } from '@core/workshop/job-kinds/kinds.js';
import { DATA_SAFE } from '@core/workshop/jobs/schema.js';
import { SIGNS } from '@core/workshop/jobs/scope.js';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import ReasonDialog from '../base/look/ReasonDialog.vue';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { call, get, wordsOf } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { filledOf } from '../machine/profile/filledOf.js';
import ChangeWork from '../machine/loop-change/ChangeWork.vue';
import LoopProfile from '../machine/profile/LoopProfile.vue';
import LotMates from '../workshop/lots/LotMates.vue';
import PhotoButton from '../workshop/photos/PhotoButton.vue';
import PhotoStrip from '../workshop/photos/PhotoStrip.vue';
import LoanBox from '../workshop/store/LoanBox.vue';
import { useDates } from '../base/units/dates.js';
import ConsentBox from '../workshop/jobs/ConsentBox.vue';
import EditJobDialog from '../workshop/jobs/EditJobDialog.vue';
import { useSession } from '../workshop/people/sessionStore.js';
import { isOutline } from '@core/machine/loop-file/outline.js';
import NotDrawn from '../machine/loop/NotDrawn.vue';
import JobMarks from '../workshop/jobs/JobMarks.vue';
import AppointmentWords from '../workshop/jobs/AppointmentWords.vue';
import type { Arrival } from '@core/workshop/jobs/arrival.js';
import { useArrivals } from '../workshop/jobs/arrivals.js';
import { wayTo } from '@core/workshop/messages/wayTo.js';
import SlotOffers from '../workshop/calls/SlotOffers.vue';
import StartRunDialog from '../bench/runs/StartRunDialog.vue';
import StartJob from '../workshop/jobs/StartJob.vue';

/** A booked job: as it came in, what was agreed, and the way onto a bench. */
const props = defineProps<{ id: string }>();
const session = useSession();
const router = useRouter();
const dates = useDates();
const coolants = useCoolants();
const {
  data: job,
  problem: trouble,
  missing,
  load,
  take,
} = usePage(
  async (signal) => (await Promise.all([get<JobPage>(`/jobs/${props.id}`, signal), coolants.load().catch(() => undefined)]))[0],
  () => props.id,
);
const problem = computed(() => (missing.value ? say('There is no such job in this workshop.') : trouble.value));
watch(job, (answer) => {
  if (answer)
    document.title = say('{short}, {name} · Lavacrum', { short: sayWord(BOOKED_KINDS[answer.kind].short), name: answer.system.name });
});
const editing = ref(false);
const cancelling = ref(false);
const building = ref(false);

const open = computed(() => job.value !== null && ['booked', 'waiting'].includes(job.value.state));
const STATES = { booked: 'booked', active: 'on the bench', waiting: 'waiting', done: 'done', cancelled: 'cancelled' };
const arrivals = useArrivals(load);
const cameWords = computed(() => {
  const own = job.value;
  if (!own) return '';
  if (own.fetchedOn) return say('fetched {day}', { day: dates.day(own.fetchedOn) });
  if (own.where === 'ready') return say('ready since {day}, not fetched yet', { day: dates.day(own.doneOn ?? own.createdAt) });
  if (own.broughtOn) return say('taken in {day}', { day: dates.day(own.broughtOn) });
  if (own.where === 'missed') return say('did not come on {day}', { day: dates.day(own.notComeOn ?? '') });
  return say('booked {day}, not here yet', { day: dates.day(own.createdAt) });
});
/** The one big figure: the day of its slot, or the day it is needed again. */
const when = computed(() => {
  const own = job.value;
  if (!own) return null;
  const from = open.value ? own.appointment?.from : undefined;
  if (from !== undefined && dates.dayOf(from) >= own.today)
    return { big: sayDue(dates.dayOf(from), own.today), small: say('its slot, {time}', { time: dates.dayAndTime(from) }) };
  if (own.neededBy === null) return null;
  return { big: sayDue(own.neededBy, own.today), small: say('it is needed again, {day}', { day: dates.day(own.neededBy) }) };
});
const sayArrival = (what: Arrival): void => {
  if (job.value)
    void arrivals.say({ jobId: job.value.id, systemName: job.value.system.name, version: job.value.version }, what, job.value.today);
};
/** another coolant than the loop has now */
const poured = computed(() => coolants.find(job.value?.productId ?? null)?.name ?? null);
const along = computed(() => (job.value?.beside ?? []).map((each) => sayWord(BESIDE[each].label)).join(', '));
const part = computed(() => {
  const found = job.value?.loop.file.components.find(({ id }) => id === job.value?.partId);
  return found ? partName(found) : null;
});
async function cancel(reason: string): Promise<void> {
  cancelling.value = false;
  try {
    take(await call<JobPage>('POST', `/jobs/${props.id}/cancel`, { body: { reason } }));
  } catch (error) {
    trouble.value = wordsOf(error);
  }
}
</script>

<template>
  <main class="page">
    <div v-if="problem" class="stack">
      <h1>This job cannot be shown</h1>
      <p role="alert">{{ problem }}</p>
      <p><router-link to="/today">Today</router-link></p>
    </div>
    <template v-else-if="job">
      <header class="spread">
        <div>
          <h1>
            {{ capital(sayWord(BOOKED_KINDS[job.kind].short)) }},
            <router-link :to="`/systems/${job.system.id}`">{{ job.system.name }}</router-link>
          </h1>
          <p class="quiet">
            {{ job.owner.name }} · {{ STATES[job.state] }} · {{ cameWords }}<template v-if="part"> · {{ part }}</template
            ><template v-if="poured"> · {{ poured }} goes in</template
            ><template v-if="job.beside.length > 0"> · along: {{ along }}</template
            ><template v-if="job.neededBy && job.appointment"> · needed again {{ dates.day(job.neededBy) }}</template>
          </p>
          <p v-if="job.appointment"><AppointmentWords :appointment="job.appointment" /></p>
        </div>
        <p v-if="when" class="big-number">
          {{ when.big }} <small>{{ when.small }}</small>
        </p>
        <div v-if="open" class="row no-print">
          <v-btn v-if="job.where !== 'here'" @click="sayArrival('brought')">It is here</v-btn>
          <v-btn v-if="job.where === 'awaited' && job.appointment" variant="outlined" @click="sayArrival('not-come')">Did not come</v-btn>
          <v-btn variant="outlined" @click="editing = true">Change</v-btn>
          <v-btn variant="text" @click="cancelling = true">Cancel it</v-btn>
        </div>
        <v-btn v-else-if="job.where === 'ready'" size="large" @click="sayArrival('fetched')">Fetched</v-btn>
      </header>
      <JobMarks v-if="open" :job="job" />
      <LoopProfile
        v-if="!isOutline(job.loop.file)"
        class="mt-4"
        :loop="job.loop.file"
        :filled="filledOf(job.loop.inside)"
        :colour="coolants.find(job.loop.coolantProductId)?.colour"
        :height="150"
      />
      <section v-if="job.change" class="becomes">
        <h2>What it shall become, revision {{ job.change.number }}</h2>
        <LoopProfile :loop="job.change.file" :filled="new Map()" :height="120" label="The loop as it is wanted" />
        <ChangeWork :work="job.change.work" :drain="job.change.drain" :comes-ml="job.change.comesMl" />
      </section>
      <div class="columns">
        <section class="stack">
          <h2>{{ isBuild(job.kind) ? 'What is wanted' : 'As it came in' }}</h2>
          <blockquote v-if="job.intake.symptom">{{ job.intake.symptom }}</blockquote>
          <ul v-if="job.intake.signs.length" class="plain-list signs">
            <li v-for="sign in job.intake.signs" :key="sign">{{ SIGNS[sign] }}</li>
          </ul>
          <dl class="figures">
            <template v-if="job.history.coolantName"
              ><dt>Inside</dt>
              <dd>{{ job.history.coolantName }}, {{ job.history.ageDays }} days</dd></template
            >
            <template v-if="job.intake.colour"
              ><dt>Colour</dt>
              <dd class="figures">{{ colourWords(job.intake.colour) }}</dd></template
            >
            <template v-if="job.intake.flowLph"
              ><dt>Flow</dt>
              <dd>
                {{ formatIn('L/h', job.intake.flowLph)
                }}<template v-if="job.history.baselineFlowLph">, baseline {{ formatIn('L/h', job.history.baselineFlowLph) }}</template>
              </dd></template
            >
            <template v-if="job.intake.condition"
              ><dt>Condition</dt>
              <dd>{{ job.intake.condition }}</dd></template
            >
            <template v-if="job.dropOffOn"
              ><dt>Comes in</dt>
              <dd>{{ dates.day(job.dropOffOn) }} at the earliest</dd></template
            >
            <template v-if="job.windows.length"
              ><dt>Owner can do without it</dt>
              <dd>{{ job.windows.map(({ from, to }) => `${dates.day(from)} to ${dates.day(to)}`).join(', ') }}</dd></template
            >
            <template v-if="job.partsOn"
              ><dt>Parts</dt>
              <dd>expected {{ dates.day(job.partsOn) }}</dd></template
            >
            <dt>Owner’s data</dt>
            <dd>
              {{ DATA_SAFE[job.intake.dataSafe] }}<template v-if="job.intake.signsIn">; signs in: {{ job.intake.signsIn }}</template>
            </dd>
            <template v-if="job.note"
              ><dt>Note</dt>
              <dd>{{ job.note }}</dd></template
            >
          </dl>
          <PhotoStrip :photos="job.photos" />
          <PhotoButton :system-id="job.system.id" :job-id="job.id" caption="as it came in" label="Photograph as it came in" @taken="load" />
        </section>
        <div class="stack">
          <ConsentBox
            :job="job"
            :phone="job.owner.phone"
            :reached="wayTo(job.owner) !== null"
            :open="open || job.asked !== null"
            @agreed="load"
          />
          <LoanBox
            :job-id="job.id"
            :loans="job.loans"
            :owner="job.owner.name"
            :needed-by="job.neededBy"
            :today="job.today"
            :done="!open && job.state !== 'active'"
            @changed="load"
          />
        </div>
        <section>
          <div v-if="open && !job.appointment && session.may('desk')" class="mb-6">
            <h2>Its slot</h2>
            <SlotOffers :job-id="job.id" :owner-name="job.owner.name" :reached="wayTo(job.owner) !== null" @kept="load" />
          </div>
          <template v-if="open && !session.may('bench')">
            <h2>Onto a bench</h2>
            <p class="quiet">
              {{
                job.consented
                  ? 'The owner agreed: a technician puts it on a bench.'
                  : 'Once the owner has agreed to the estimate, a technician puts it on a bench.'
              }}
            </p>
          </template>
          <template v-else-if="open && isOutline(job.loop.file)">
            <h2>Before it comes onto a bench</h2>
            <NotDrawn :file="job.loop.file" :loop-id="job.loop.id" />
          </template>
          <template v-else-if="open && isBuild(job.kind)">
            <h2>Onto a bench</h2>
            <v-btn class="mt-3" size="x-large" :disabled="!job.consented" @click="building = true">Begin the build</v-btn>
            <p v-if="!job.consented" class="quiet mt-2">Once the owner has agreed to the estimate.</p>
          </template>
          <StartJob
            v-else-if="open"
            :job-id="job.id"
            :kind="job.kind"
            :part-id="job.partId"
            :file="job.loop.file"
            :system-name="job.system.name"
            :ready="job.consented"
            @started="router.push(`/runs/${$event}`)"
          />
          <template v-else-if="job.run">
            <h2>{{ job.run.state === 'active' ? 'On the bench' : 'Done' }}</h2>
            <v-btn class="mt-3" size="x-large" :to="job.run.state === 'active' ? `/runs/${job.run.id}` : `/runs/${job.run.id}/record`">{{
              job.run.state === 'active' ? 'Go to the bench' : 'Open the record'
            }}</v-btn>
          </template>
          <p v-else class="quiet">{{ job.note }}</p>
          <template v-if="job.causes.length">
            <h3 class="mt-4">Who else holds it</h3>
            <LotMates
              v-for="each in job.causes"
              :key="`${each.suspect} ${each.item}`"
              :job-id="job.id"
              :suspect="each.suspect"
              :item="each.item"
              :done="job.state === 'done'"
            />
          </template>
          <template v-if="job.took.length">
            <h3 class="mt-4">It took</h3>
            <ul class="plain-list figures">
              <li v-for="each in job.took" :key="each.name">{{ groupedUpTo(each.amount, 1) }} {{ each.unit }} {{ each.name }}</li>
            </ul>
          </template>
        </section>
      </div>
      <StartRunDialog
        v-if="building"
        :loop-id="job.loop.id"
        :loop-name="job.loop.name"
        :system-name="job.system.name"
        :job-id="job.id"
        :kind="isBuild(job.kind) ? job.kind : undefined"
        @close="building = false"
        @started="router.push(`/runs/${$event}`)"
      />
      <EditJobDialog v-if="editing" :job="job" @close="editing = false" @saved="load" />
      <ReasonDialog v-model="cancelling" title="Cancel the booking" label="Why" button="Cancel it" :least="3" @say="cancel" />
    </template>
  </main>
</template>

<style scoped>
.becomes {
  display: grid;
  gap: 10px;
  margin-top: 18px;
}
.columns {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 40px;
  margin-top: 24px;
}
blockquote {
  margin: 0;
  font-size: 1.2rem;
  border-left: 4px solid var(--ink);
  padding-left: 14px;
}
.signs {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.signs li {
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  padding: 3px 10px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 16px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
header p {
  margin: 2px 0 0;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
