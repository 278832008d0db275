<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { FittedLot } from '@core/workshop/lots/answers.js';
import { computed, reactive, ref } from 'vue';
import { inspectItems } from '@core/bench/inspection/items.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { call, wordsOf } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import DayField from '../../base/units/DayField.vue';

const props = defineProps<{
  systemId: string;
  lots: readonly FittedLot[];
  loops: readonly { readonly id: string; readonly name: string; readonly file: LoopFile | null }[];
  today: string;
}>();
const emit = defineEmits<{ reload: [] }>();
const submit = useSubmit();
const notices = useNotices();
const dates = useDates();
const adding = ref(false);
const form = reactive({ item: null as string | null, make: '', lot: '', fittedOn: props.today });

const items = computed(() =>
  props.loops.flatMap(({ id, name, file }) =>
    file === null
      ? []
      : [
          {
            value: `${id} `,
            title: props.loops.length > 1 ? say('no part of the drawing, {name}', { name }) : say('no part of the drawing'),
          },
          ...inspectItems(file).map((item) => ({ value: `${id} ${item.id}`, title: item.name })),
        ],
  ),
);
const nameOf = ({ loopId, itemId }: FittedLot): string =>
  items.value.find(({ value }) => value === `${loopId} ${itemId ?? ''}`)?.title ?? '';

async function add(): Promise<void> {
  const [loopId = '', ...rest] = (form.item ?? items.value[0]?.value ?? '').split(' ');
  const itemId = rest.join(' ') || null;
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/systems/${props.systemId}/lots`, {
      body: { loopId, itemId, make: form.make.trim(), lot: form.lot.trim(), fittedOn: form.fittedOn },
      idempotencyKey,
    }),
  );
  if (!saved) return;
  Object.assign(form, { make: '', lot: '' });
  emit('reload');
}
async function take({ id, loopId, itemId, make, lot, fittedOn }: FittedLot): Promise<void> {
  try {
    await call('DELETE', `/lots/${id}`);
    notices.say(say('{make}, lot {lot}, is out of the machine.', { make, lot }), async () => {
      await call('POST', `/systems/${props.systemId}/lots`, {
        body: { loopId, itemId, make, lot, fittedOn },
        idempotencyKey: crypto.randomUUID(),
      });
      emit('reload');
    });
    emit('reload');
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
</script>

<template>
  <section>
    <header class="spread">
      <h2>Lots of its parts</h2>
      <v-btn variant="text" class="no-print" @click="adding = !adding">{{ adding ? 'Close' : 'Add a lot' }}</v-btn>
    </header>
    <p v-if="lots.length === 0 && !adding" class="quiet">
      None kept. A lot on record finds this machine when a part of the same lot fails in another.
    </p>
    <ul class="plain-list">
      <li v-for="each in lots" :key="each.id">
        <strong>{{ each.make }}</strong>
        <span class="figures">lot {{ each.lot }}</span>
        <span class="quiet figures">{{ [nameOf(each), dates.day(each.fittedOn)].filter(Boolean).join(', ') }}</span>
        <button type="button" class="link no-print" :aria-label="`${each.make} is out`" @click="take(each)">it is out</button>
      </li>
    </ul>
    <form v-if="adding" class="form" novalidate @submit.prevent="add">
      <v-select v-model="form.item" :items="items" label="Which part" :error-messages="submit.at('itemId')" />
      <DayField v-model="form.fittedOn" label="Fitted on" :max="today" :errors="submit.at('fittedOn')" />
      <v-text-field v-model="form.make" label="Make on its bag" autocomplete="off" :error-messages="submit.at('make')" />
      <v-text-field v-model="form.lot" label="Lot on its bag" autocomplete="off" :error-messages="submit.at('lot')" />
      <v-btn type="submit" :loading="submit.busy.value">Keep it</v-btn>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    </form>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 0 16px;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
}
li .quiet {
  grid-column: 1 / 3;
}
.link {
  text-decoration: underline;
  min-height: 32px;
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  margin-top: 8px;
}
p {
  margin: 0;
}
</style>
