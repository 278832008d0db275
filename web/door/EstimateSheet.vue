<script setup lang="ts">
import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import type { Said } from '@core/workshop/owner-door/said.js';
import { BOOKED_KINDS } from '@core/workshop/job-kinds/kinds.js';
import { formatDayTime } from '@core/base/units/dates.js';
import { formatMl } from '@core/base/units/display.js';
import { capital, say } from '@core/base/words/say.js';
import { formatMoney } from '@core/workshop/prices/money.js';
import { lineAmount, lineEach, lineName, taxWords, totalWords } from '@core/edge/words/prices.js';
import { computed, ref } from 'vue';

/** What it will take, line by line, and the owner's answer to it. */
const props = defineProps<{
  job: NonNullable<DoorPage['job']>;
  may: boolean;
  timeZone: string;
  busy: boolean;
  asked: boolean;
  tell: (said: Said) => Promise<boolean>;
}>();
const name = ref('');
const why = ref('');
const declining = ref(false);
const estimate = computed(() => props.job.estimate);
const title = computed(() => capital(say(BOOKED_KINDS[estimate.value.kind].label)));
/** without prices: what is done and what goes in */
const plain = computed(() => [
  say('{hours} hours of work', { hours: estimate.value.hours }),
  ...(estimate.value.coolantMl > 0 ? [say('{ml} of coolant', { ml: formatMl(estimate.value.coolantMl) })] : []),
  ...estimate.value.parts.map(({ what, amount, unit }) => `${lineAmount({ amount, unit })} ${what}`),
]);
const nameMissing = ref(false);
async function answer(kind: 'agreed' | 'declined'): Promise<void> {
  nameMissing.value = name.value.trim().length < 2;
  if (nameMissing.value) return;
  const own = { estimateNumber: estimate.value.number, name: name.value.trim() };
  const done = await props.tell(kind === 'agreed' ? { kind, ...own } : { kind, ...own, why: why.value.trim() });
  if (done) declining.value = false;
}
</script>

<template>
  <section class="sheet" :class="{ asked }" aria-labelledby="estimate">
    <h2 id="estimate">What it will take</h2>
    <p v-if="job.wasAgreed && asked" class="notice"><strong>More was found than you agreed to.</strong> {{ estimate.found }}</p>
    <p class="kind">{{ title }}</p>
    <table v-if="estimate.priced">
      <tbody>
        <tr v-for="(line, index) in estimate.priced.lines" :key="index">
          <th scope="row">
            {{ lineName(line) }}<small>{{ lineAmount(line) }} · {{ lineEach(line, estimate.priced.currency) }}</small>
          </th>
          <td>{{ line.sumMinor === null ? '–' : formatMoney(line.sumMinor, estimate.priced.currency) }}</td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <th scope="row">
            In all<small>{{ taxWords(estimate.priced) }}</small>
          </th>
          <td>{{ totalWords(estimate.priced) }}</td>
        </tr>
      </tfoot>
    </table>
    <ul v-else>
      <li v-for="each in plain" :key="each">{{ each }}</li>
    </ul>
    <p v-if="estimate.partsText">{{ estimate.partsText }}</p>
    <p v-if="estimate.priceText" class="told">
      Told: <strong>{{ estimate.priceText }}</strong>
    </p>
    <p class="note">An estimate: what is found on the bench may change it. Then you are asked again before anything goes on.</p>

    <p v-if="job.agreed" class="stamp">
      Agreed {{ formatDayTime(job.agreed.at, timeZone) }}<template v-if="job.agreed.name">, {{ job.agreed.name }}</template>
    </p>
    <p v-else-if="job.declinedAt" class="stamp">Declined {{ formatDayTime(job.declinedAt, timeZone) }}. The workshop calls you.</p>
    <form v-else-if="may" novalidate @submit.prevent="answer(declining ? 'declined' : 'agreed')">
      <label>
        Your name
        <input v-model="name" type="text" name="name" autocomplete="name" maxlength="120" :aria-invalid="nameMissing" />
      </label>
      <p v-if="nameMissing" role="alert" class="problem">Write your name: it stands under your answer.</p>
      <label v-if="declining">Why, if you like <textarea v-model="why" rows="2" maxlength="1000" /></label>
      <button v-if="!declining" type="submit" class="act" :disabled="busy">I agree</button>
      <button v-else type="submit" class="act" :disabled="busy">I decline</button>
      <button type="button" class="plain" @click="declining = !declining">
        {{ declining ? 'Back' : 'I do not agree' }}
      </button>
    </form>
    <p v-else class="note">Call the workshop to agree.</p>
  </section>
</template>
