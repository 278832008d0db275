<script setup lang="ts">
import { DOOR_ACTS, DOOR_ACT_WORDS, type DoorAct } from '@core/workshop/people/doorSettings.js';
import type { Shop } from '@core/workshop/people/answers.js';
import { say, sayWord } from '@core/base/words/say.js';
import { reactive, watch } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';

/** What owners may do on their page. */
const props = defineProps<{ shop: Shop['workshop']; isLead: boolean }>();
const emit = defineEmits<{ changed: [shop: Shop] }>();
const submit = useSubmit();
const notices = useNotices();
const start = (): { open: boolean; prices: boolean; without: DoorAct[] } => ({ ...props.shop.door, without: [...props.shop.door.without] });
const form = reactive(start());
watch(
  () => props.shop.door,
  () => Object.assign(form, start()),
);
const allow = (act: DoorAct, on: boolean | null): void => {
  form.without = on ? form.without.filter((each) => each !== act) : [...form.without, act];
};
async function save(): Promise<void> {
  const shop = await submit.run(() => call<Shop>('PUT', '/workshop/door', { body: { ...form, version: props.shop.version } }));
  if (!shop) return;
  emit('changed', shop);
  notices.say(say('Saved.'));
}
</script>

<template>
  <form class="stack door-form" novalidate @submit.prevent="save">
    <h2>Owners’ page</h2>
    <p class="quiet">
      Letters carry a secret address under which an owner sees one machine: where it stands, when it is ready, its estimate, its slots. What
      is sent from there comes to Today and decides nothing by itself, but an agreement to an estimate.
    </p>
    <div>
      <v-checkbox v-model="form.open" hide-details label="Letters carry the address, and it opens" />
      <v-checkbox v-if="form.open" v-model="form.prices" hide-details label="Prices stand on it" />
    </div>
    <fieldset v-if="form.open">
      <legend>Owners may</legend>
      <v-checkbox
        v-for="act in DOOR_ACTS"
        :key="act"
        hide-details
        :model-value="!form.without.includes(act)"
        :label="sayWord(DOOR_ACT_WORDS[act])"
        @update:model-value="(on) => allow(act, on)"
      />
    </fieldset>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <div v-if="isLead"><v-btn type="submit" size="large" :loading="submit.busy.value">Save</v-btn></div>
  </form>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
}
legend {
  font-weight: 640;
}
</style>
