<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';
import DayField from '../../base/units/DayField.vue';

/** A machine that somebody else filled: full, with what, since about when. Unknown is an answer: it mixes with nothing. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ loopId: string }>();
const emit = defineEmits<{ saved: [text: string] }>();
const submit = useSubmit();
const coolants = useCoolants();
const UNKNOWN = 'unknown';
const product = ref<string>(UNKNOWN);
const since = ref('');
watch(
  open,
  (now) => {
    if (!now) return;
    product.value = UNKNOWN;
    since.value = '';
    submit.clear();
  },
  { immediate: true },
);
const products = computed(() => [
  { value: UNKNOWN, title: say('Unknown: it mixes with nothing') },
  ...coolants.products.map(({ id, name }) => ({ value: id, title: name })),
]);

async function save(): Promise<void> {
  const body = { productId: product.value === UNKNOWN ? null : product.value, since: since.value || null };
  const saved = await submit.run((idempotencyKey) => call('POST', `/loops/${props.loopId}/came-filled`, { body, idempotencyKey }));
  if (!saved) return;
  open.value = false;
  emit('saved', say('It counts as full; its next service has a day.'));
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="It came filled"
    button="It is full with this"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="560"
    @submit="save"
  >
    <p class="quiet">
      Somebody else filled it. A name on a bottle that was shown counts; a colour does not: two clear liquids may fall out together. The
      level is read before anything is opened.
    </p>
    <v-select v-model="product" :items="products" label="With what" :error-messages="submit.at('productId')" />
    <DayField v-model="since" label="Since about (may stay empty)" :errors="submit.at('since')" />
  </FormDialog>
</template>
