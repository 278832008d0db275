<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { ref } from 'vue';
import type { Estimate } from '@core/workshop/prices/estimate.js';
import { CONSENT_WAY_KEYS, CONSENT_WAYS, CONSENT_WORDS, type AskedScope, type ConsentWay } from '@core/workshop/jobs/schema.js';
import { BOOKED_KINDS, type BookedKind } from '@core/workshop/job-kinds/kinds.js';
import type { JobBill } from '@core/workshop/prices/answers.js';
import { estimateWords, totalWords } from '@core/edge/words/prices.js';
import PriceLines from '../prices/PriceLines.vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import { useNotices } from '../../base/shell/notices.js';
import { useSession } from '../people/sessionStore.js';
import { useDates } from '../../base/units/dates.js';

/** What the owner was told and what he agreed to, each time. */
const props = defineProps<{
  job: {
    id: string;
    version: number;
    kind: BookedKind;
    estimate: Estimate;
    consented: boolean;
    asked: AskedScope | null;
    bill: JobBill;
    consents: readonly { id: string; at: string; kind: string; estimate: Estimate; how: ConsentWay | 'page'; words: string; by: string }[];
  };
  phone: string | null;
  /** may be written to */
  reached: boolean;
  open: boolean;
}>();
const emit = defineEmits<{ agreed: [] }>();
const submit = useSubmit();
const session = useSession();
const dates = useDates();
const how = ref<ConsentWay | null>('phone');
const words = ref('');
const ways = CONSENT_WAY_KEYS.map((value) => ({ value, title: say(CONSENT_WAYS[value]) }));

async function agree(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/jobs/${props.job.id}/consent`, {
      body: { how: how.value ?? 'phone', words: words.value, version: props.job.version },
      idempotencyKey,
    }),
  );
  if (saved) emit('agreed');
}
const letter = useSubmit();
const notices = useNotices();
/** The owner gets it in writing, with the page on which to answer. */
async function write(): Promise<void> {
  const done = await letter.run((idempotencyKey) =>
    call<{ told: boolean }>('POST', `/jobs/${props.job.id}/letters`, { body: { letter: 'estimate' }, idempotencyKey }),
  );
  if (done)
    notices.say(
      done.told ? say('The letter waits to be sent; it goes within a minute.') : say('This estimate was written to the owner before.'),
    );
}
</script>

<template>
  <section class="consent">
    <h2>Estimate and consent</h2>
    <PriceLines v-if="job.estimate.priced" :priced="job.estimate.priced" title="As told to the owner" />
    <p v-if="!job.estimate.priced || job.estimate.priceText" class="figures">
      {{ BOOKED_KINDS[job.kind].label }}: {{ estimateWords(job.estimate) }}
    </p>
    <p v-if="job.bill.passes && job.bill.used && job.bill.agreed" role="status" class="danger">
      It took {{ totalWords(job.bill.used) }} so far; {{ totalWords(job.bill.agreed) }} is agreed. Ask the owner before it goes on.
    </p>
    <PriceLines v-if="job.bill.used" :priced="job.bill.used" title="What it took" />
    <ul v-if="job.consents.length" class="plain-list">
      <li v-for="each in job.consents" :key="each.id">
        Agreed {{ dates.dayAndTime(each.at) }}, {{ sayWord(CONSENT_WORDS[each.how]) }}:
        {{ estimateWords(each.estimate) }}
        <span class="quiet">{{ each.words }} {{ each.by }}</span>
      </li>
    </ul>
    <p v-if="job.asked && !job.consented" role="status"><strong>The owner is asked about more:</strong> {{ job.asked.found }}</p>
    <form v-if="!job.consented && open" class="ask" novalidate @submit.prevent="agree">
      <p>
        <strong>{{ job.consents.length ? 'The estimate changed: ask again.' : 'Ask the owner, then write it down.' }}</strong>
        <template v-if="phone">
          <a :href="`tel:${phone.replace(/\s/g, '')}`">{{ phone }}</a></template
        >
      </p>
      <ChoiceRow v-model="how" label="Agreed" :options="ways" />
      <v-text-field v-model="words" label="In what words" />
      <p v-if="submit.problem.value || letter.problem.value" role="alert" class="danger">
        {{ submit.problem.value ?? letter.problem.value }}
      </p>
      <div class="row">
        <v-btn type="submit" size="large" :loading="submit.busy.value">The owner agreed</v-btn>
        <v-btn v-if="reached && session.may('desk')" variant="outlined" size="large" :loading="letter.busy.value" @click="write"
          >Ask in writing</v-btn
        >
      </div>
    </form>
  </section>
</template>

<style scoped>
.consent,
.ask {
  display: grid;
  gap: 10px;
  justify-items: start;
  align-content: start;
}
.ask > .v-input {
  width: 100%;
}
p {
  margin: 0;
}
li {
  border-left: 4px solid var(--ink);
  padding: 4px 0 4px 12px;
}
</style>
