<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { Loans } from '@core/workshop/store/answers.js';
import { computed, reactive, ref } from 'vue';
import { sayDue } from '@core/workshop/due-dates/attention.js';
import { addDays } from '@core/base/units/calendar.js';
import { call, wordsOf } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { whenChanged } from '../../base/look/whenChanged.js';
import { useNotices } from '../../base/shell/notices.js';
import DayField from '../../base/units/DayField.vue';

const props = defineProps<{ jobId: string; loans: Loans; owner: string; neededBy: string | null; today: string; done: boolean }>();
const emit = defineEmits<{ changed: [] }>();
/** days after which a loan machine is expected back where no day was promised */
const USUAL_DAYS = 7;
const submit = useSubmit();
const notices = useNotices();
const lending = ref(false);
const form = reactive({ keptPartId: '', untilDay: '' });
whenChanged(
  () => props.loans,
  ({ free }) => Object.assign(form, { keptPartId: free[0]?.id ?? '', untilDay: props.neededBy ?? addDays(props.today, USUAL_DAYS) }),
  { immediate: true },
);
const choices = computed(() =>
  props.loans.free.map(({ id, name, condition }) => ({ value: id, title: condition ? `${name}, ${condition}` : name })),
);

async function lend(): Promise<void> {
  if (!(await submit.run(() => call('PUT', `/jobs/${props.jobId}/loan`, { body: { ...form } })))) return;
  lending.value = false;
  emit('changed');
}
async function back(): Promise<void> {
  const { lent } = props.loans;
  try {
    await call('DELETE', `/jobs/${props.jobId}/loan`);
    notices.say(say('{name} is back.', { name: lent?.name }), async () => {
      await call('PUT', `/jobs/${props.jobId}/loan`, { body: { keptPartId: lent?.id, untilDay: lent?.untilDay ?? props.today } });
      emit('changed');
    });
    emit('changed');
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
</script>

<template>
  <div class="loan">
    <h3>Loan machine</h3>
    <template v-if="loans.lent">
      <p>
        {{ owner }} has <strong>{{ loans.lent.name }}</strong><span v-if="loans.lent.untilDay" class="figures"
          >, back {{ sayDue(loans.lent.untilDay, today) }}</span
        >
      </p>
      <v-btn variant="outlined" @click="back">It is back</v-btn>
    </template>
    <p v-else-if="done" class="quiet">None was lent.</p>
    <template v-else>
      <p class="quiet">
        None lent<template v-if="loans.free.length === 0">; none stands free. Loan machines are kept in the store.</template>
      </p>
      <v-btn v-if="loans.free.length && !lending" variant="outlined" @click="lending = true">Lend one</v-btn>
      <form v-if="lending" class="form" novalidate @submit.prevent="lend">
        <v-select v-model="form.keptPartId" :items="choices" label="Which" :error-messages="submit.at('keptPartId')" />
        <DayField v-model="form.untilDay" label="Back by" :min="today" :errors="submit.at('untilDay')" />
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <v-btn type="submit" :loading="submit.busy.value">Lent</v-btn>
      </form>
    </template>
  </div>
</template>

<style scoped>
.loan {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.form {
  width: 100%;
}
p {
  margin: 0;
}
</style>
