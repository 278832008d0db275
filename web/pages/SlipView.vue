<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import type { SystemPage } from '@core/workshop/machines/answers.js';
import { useLimitWords } from '@core/edge/words/dates.js';
import QRCode from 'qrcode';
import { computed } from 'vue';
import { BOOKED_KINDS } from '@core/workshop/job-kinds/kinds.js';
import { useSession } from '../workshop/people/sessionStore.js';
import AppointmentWords from '../workshop/jobs/AppointmentWords.vue';
import { usePublicAddress } from '../workshop/people/publicAddress.js';
import PriceLines from '../workshop/prices/PriceLines.vue';
import type { JobPage } from '@core/workshop/jobs/answers.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useDates } from '../base/units/dates.js';

/** Papers that go with a machine: drop-off, pick-up, and labels for a sample and for waste, each with the way back to its page. */
const props = defineProps<{ id: string }>();
const session = useSession();
const coolants = useCoolants();
const dates = useDates();
const address = usePublicAddress();
const { data: slip, problem } = usePage(
  async (signal) => {
    const [page, picture] = await Promise.all([
      get<SystemPage>(`/systems/${props.id}`, signal),
      QRCode.toString(`${address.origin.value}/systems/${props.id}`, { type: 'svg', margin: 0, color: { light: '#ffffff00' } }),
      coolants.load().catch(() => undefined),
    ]);
    const open = page.jobs[0]?.id ?? page.answers.ready?.jobId ?? null;
    const job = open ? await get<JobPage>(`/jobs/${open}`, signal) : null;
    return {
      page,
      estimate: job?.estimate ?? null,
      used: job?.bill.used ?? null,
      code: `data:image/svg+xml;utf8,${encodeURIComponent(picture)}`,
    };
  },
  () => props.id,
);
const page = computed(() => slip.value?.page ?? null);
const code = computed(() => slip.value?.code ?? '');
const print = (): void => window.print();
const priced = computed(() => slip.value?.estimate?.priced ?? null);
const contact = computed(() => session.account?.contact ?? null);
const where = computed(() => [contact.value?.address, contact.value?.phone, contact.value?.email].filter(Boolean).join(' · '));
const job = computed(() => page.value?.jobs[0] ?? null);
const loan = computed(() => page.value?.loan ?? null);
const inside = computed(() => coolants.find(page.value?.loops[0]?.coolantProductId ?? null)?.name ?? say('coolant not known'));
const temporary = computed(
  () => page.value?.dues.flatMap(({ id, dueOn, reason }) => (reason.why === 'temporary' ? [{ id, dueOn, ...reason }] : [])) ?? [],
);
const next = computed(() => page.value?.dues.find(({ kind }) => kind === 'coolant-service') ?? null);
</script>

<template>
  <main class="page">
    <p v-if="problem" role="alert">{{ problem }}</p>
    <template v-else-if="page">
      <header class="spread no-print">
        <h1>Papers for {{ page.system.name }}</h1>
        <div class="row">
          <v-btn size="large" @click="print">Print</v-btn>
          <v-btn v-if="slip?.estimate" variant="outlined" :href="`/api/systems/${id}/estimate.pdf`">Estimate, PDF</v-btn>
          <v-btn variant="outlined" :href="`/api/systems/${id}/drop-off.pdf`">Drop-off, PDF</v-btn>
          <v-btn variant="outlined" :href="`/api/systems/${id}/pick-up.pdf`">Pick-up, PDF</v-btn>
          <v-btn variant="text" size="large" :to="`/systems/${id}`">Back</v-btn>
        </div>
      </header>
      <p v-if="address.caveat.value" class="no-print quiet">Codes: {{ address.caveat.value }}</p>
      <div class="papers">
        <article class="slip">
          <h2>Drop-off</h2>
          <img :src="code" alt="Code that opens the machine’s page" />
          <p>
            <strong>{{ page.system.name }}</strong> of {{ page.owner.name }}
          </p>
          <p v-if="job">
            {{ BOOKED_KINDS[job.kind].label }}<template v-if="job.neededBy">, needed by {{ dates.day(job.neededBy) }}</template>
          </p>
          <p v-if="job?.appointment"><AppointmentWords :appointment="job.appointment" /></p>
          <PriceLines v-if="priced" :priced="priced" title="Estimate" />
          <p v-else-if="slip?.estimate?.priceText">Estimate: {{ slip.estimate.priceText }}</p>
          <p>Received {{ dates.day(page.today) }}. Condition: ______________________________</p>
          <p>With it: power cable &#9633; &ensp; box &#9633; &ensp; other ____________________</p>
          <p>
            Data is safe &#9633; &ensp;
            <template v-if="loan"
              >loan machine: {{ loan.name }}<template v-if="loan.untilDay">, back by {{ dates.day(loan.untilDay) }}</template></template
            ><template v-else>loan machine &#9633;</template>
          </p>
          <p class="sign">Owner ______________________ Workshop ______________________</p>
          <p class="quiet">{{ [session.account?.workshopName, where].filter(Boolean).join(' · ') }}</p>
        </article>
        <article class="slip">
          <h2>Pick-up</h2>
          <img :src="code" alt="Code that opens the machine’s page" />
          <p>
            <strong>{{ page.system.name }}</strong> of {{ page.owner.name }}
          </p>
          <p v-if="next && next.dueOn > page.today">
            Coolant: {{ inside }}. Next service by <strong>{{ dates.day(next.dueOn) }}</strong>
          </p>
          <PriceLines v-if="slip?.used" :priced="slip.used" title="To pay" />
          <p>Look at the level mark in two to seven days; a photograph of it is enough.</p>
          <p v-if="loan">
            <strong>Bring back {{ loan.name }}.</strong>
          </p>
          <p v-for="due in temporary" :key="due.id">
            <strong>Until {{ dates.day(due.dueOn) }}:</strong> {{ due.what }}, until {{ due.awaits }}; {{ useLimitWords(due.limits) }}
          </p>
          <p class="quiet">
            In the first days {{ useLimitWords(['level-daily']) }}. If something drips: supply off at the wall, then call us{{
              contact?.phone ? `: ${contact.phone}` : ''
            }}.
          </p>
          <p class="sign">Owner ______________________ on ______________________</p>
        </article>
        <article class="label">
          <img :src="code" alt="Code that opens the machine’s page" />
          <div>
            <h2>Coolant sample</h2>
            <p>{{ page.system.name }}</p>
            <p>{{ inside }}</p>
            <p class="figures">drawn {{ dates.day(page.today) }}, lot ________</p>
          </div>
        </article>
        <article class="label">
          <img :src="code" alt="Code that opens the machine’s page" />
          <div>
            <h2>Used coolant</h2>
            <p>Not for the drain. Keep from children and animals.</p>
            <p>from {{ page.system.name }}: {{ inside }}</p>
            <p class="figures">{{ dates.day(page.today) }}, ________ {{ unitName('mL') }}</p>
          </div>
        </article>
      </div>
    </template>
  </main>
</template>

<style scoped>
.papers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 26px;
  margin-top: 16px;
}
.slip,
.label {
  /* paper is white in the dark as well */
  --ink: #111;
  --ink-soft: #444;
  --line-soft: #bbb;
  background: #fff;
  color: #111;
  border: 2px solid #111;
  padding: 20px 22px;
  break-inside: avoid;
}
.slip img {
  float: right;
  width: 104px;
  height: 104px;
  margin: 0 0 10px 16px;
}
.slip p {
  margin: 8px 0 0;
}
.sign {
  clear: both;
  padding-top: 26px;
}
.papers .quiet {
  color: #444;
}
.label {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 16px;
}
.label img {
  width: 84px;
  height: 84px;
}
.label p {
  margin: 2px 0 0;
}
@media (max-width: 800px) {
  .papers {
    grid-template-columns: 1fr;
  }
}
</style>
