<script setup lang="ts">
import { reactive } from 'vue';
import { say } from '@core/base/words/say.js';
import type { HeatLimits } from '@core/physics/condition/limits.js';
import type { Shop } from '@core/workshop/people/answers.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { whenChanged } from '../../base/look/whenChanged.js';
import { useNotices } from '../../base/shell/notices.js';
import NumberField from '../../base/units/NumberField.vue';

/** What the workshop takes for too hot: against it every machine's readings are held, and dated. */
const props = defineProps<{ shop: Shop['workshop']; isLead: boolean }>();
const emit = defineEmits<{ changed: [shop: Shop] }>();
const notices = useNotices();
const submit = useSubmit();
type Typed = { hotRoomC: number | null; risePercent: number | null; partC: Record<keyof HeatLimits['partC'], number | null> };
const typed = ({ hotRoomC, partC, riseShare }: HeatLimits): Typed => ({
  hotRoomC,
  partC: { ...partC },
  risePercent: Math.round(100 * riseShare),
});
const form = reactive<Typed>(typed(props.shop.heatLimits));
whenChanged(
  () => props.shop.heatLimits,
  (limits) => Object.assign(form, typed(limits)),
);
const PARTS: Readonly<Record<keyof HeatLimits['partC'], string>> = {
  processor: 'Processor at most',
  graphics: 'Graphics at most',
  memory: 'Memory at most',
  other: 'Other parts at most',
};
const parts = Object.keys(PARTS) as (keyof HeatLimits['partC'])[];

async function save(): Promise<void> {
  const body = { hotRoomC: form.hotRoomC, partC: form.partC, riseShare: form.risePercent === null ? null : form.risePercent / 100, version: props.shop.version }; // prettier-ignore
  const answer = await submit.run(() => call<Shop>('PUT', '/workshop/heat-limits', { body }));
  if (!answer) return;
  emit('changed', answer);
  notices.say(say('Saved. Machines that were read are dated by it at once.'));
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="save">
    <h3>What is too hot</h3>
    <p class="quiet">
      A machine comes in before a part would meet its limit on a hot day at the power it usually draws, or stands so much higher over the
      room than on its best days. A maker’s own figure goes before these.
    </p>
    <div class="limits">
      <NumberField v-model="form.hotRoomC" label="Room on a hot day" unit="°C" :errors="submit.at('hotRoomC')" />
      <NumberField
        v-for="part in parts"
        :key="part"
        v-model="form.partC[part]"
        :label="PARTS[part]"
        unit="°C"
        :errors="submit.at(`partC.${part}`)"
      />
      <NumberField v-model="form.risePercent" label="Over its best days, at most" unit="%" :errors="submit.at('riseShare')" />
    </div>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <div v-if="isLead"><v-btn type="submit" size="large" :loading="submit.busy.value">Save what is too hot</v-btn></div>
  </form>
</template>

<style scoped>
.limits {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 10px 14px;
}
p {
  margin: 0;
}
</style>
