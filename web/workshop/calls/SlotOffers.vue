<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { OffersAnswer } from '@core/workshop/calls/answers.js';
import { computed, ref } from 'vue';
import { call, get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import { useSession } from '../people/sessionStore.js';
import OfferButtons from './OfferButtons.vue';

/** A booked job without a place: its next slots. Held as it is picked; told to the owner with the second button. */
const props = defineProps<{ jobId: string; ownerName: string; reached?: boolean }>();
const emit = defineEmits<{ kept: [] }>();
const dates = useDates();
const notices = useNotices();
const submit = useSubmit();
const session = useSession();
const {
  data: answer,
  problem,
  load,
} = usePage(
  (signal) => get<OffersAnswer>(`/jobs/${props.jobId}/offers`, signal),
  () => props.jobId,
);
const picked = ref<number | null>(0);
const offer = computed(() => (picked.value === null ? null : (answer.value?.offers[picked.value] ?? null)));

async function keep(isTold: boolean): Promise<void> {
  const at = offer.value;
  if (!at) return;
  const kept = await submit.run(async () => {
    await call('PUT', '/plan/slots', {
      body: { slots: [{ jobId: props.jobId, benchId: at.benchId, steps: at.steps, version: 0 }], off: [] },
    });
    if (isTold) return call<{ told: boolean }>('PUT', `/jobs/${props.jobId}/slot`, { body: { confirmed: true, version: 1 } });
    return { told: false };
  });
  if (!kept) {
    await load();
    return;
  }
  const when = dates.weekdayAndTime(at.from);
  notices.say(
    !isTold
      ? say('{when} is held; nobody was told yet.', { when })
      : kept.told
        ? say('{when} is kept; {ownerName} gets it by e-mail.', { when, ownerName: props.ownerName })
        : say('{when} is kept.', { when }),
  );
  emit('kept');
}
/** All of them go to the owner's page, and a letter says so where one can be written. */
async function offerAll(): Promise<void> {
  const offers = answer.value?.offers ?? [];
  const done = await submit.run(async () => {
    await call('PUT', `/jobs/${props.jobId}/offers`, { body: { offers: offers.map(({ benchId, steps }) => ({ benchId, steps })) } });
    if (props.reached)
      await call('POST', `/jobs/${props.jobId}/letters`, { body: { letter: 'offers' }, idempotencyKey: crypto.randomUUID() });
    return { told: props.reached };
  });
  if (!done) return;
  notices.say(
    done.told
      ? say('{ownerName} chooses among them; the letter goes within a minute.', { ownerName: props.ownerName })
      : say('They stand on the page of {ownerName}; nobody was written to.', { ownerName: props.ownerName }),
  );
}
</script>

<template>
  <section class="slot-offers" aria-label="Its next slots">
    <p v-if="problem" role="alert" class="danger">{{ problem }} <button type="button" @click="load">Look again</button></p>
    <template v-if="answer">
      <OfferButtons v-model="picked" :offers="answer.offers" />
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <div v-if="answer.offers.length" class="row">
        <v-btn :disabled="!offer" :loading="submit.busy.value" @click="keep(true)">Agreed with {{ ownerName }}</v-btn>
        <v-btn variant="outlined" :disabled="!offer" @click="keep(false)">Hold it</v-btn>
        <v-btn v-if="session.account?.doorOpen" variant="text" @click="offerAll">Let {{ ownerName }} choose</v-btn>
      </div>
    </template>
  </section>
</template>

<style scoped>
.slot-offers {
  display: grid;
  gap: 10px;
}
p {
  margin: 0;
}
</style>
