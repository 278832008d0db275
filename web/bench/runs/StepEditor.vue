<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js';
import { EACH, PLACEHOLDERS, isEach, type CheckTemplate, type StepTemplate } from '@core/bench/runs/template.js';

/** One step of a procedure in words: title, lead, cautions, checks. What the loop fills in is only named. */
const props = defineProps<{ step: StepTemplate; readonly: boolean; removable: boolean }>();
const emit = defineEmits<{ change: [step: StepTemplate]; remove: []; 'add-after': [] }>();

const FILLED_IN = PLACEHOLDERS.map((name) => `{${name}}`).join(' ');
const set = (change: Partial<StepTemplate>): void => emit('change', { ...props.step, ...change });
function setCheck(index: number, check: CheckTemplate | null): void {
  set({ checks: props.step.checks.flatMap((each, at) => (at === index ? (check ? [check] : []) : [each])) });
}
function move(index: number, by: -1 | 1): void {
  const checks = [...props.step.checks];
  const [moved] = checks.splice(index, 1);
  if (!moved) return;
  checks.splice(index + by, 0, moved);
  set({ checks });
}
function addCheck(): void {
  const taken = new Set(props.step.checks.flatMap((check) => (isEach(check) ? [] : [check.id])));
  let number = 1;
  while (taken.has(`own-${number}`)) number += 1;
  const last = props.step.checks.at(-1);
  set({ checks: [...props.step.checks, { id: `own-${number}`, text: 'What is ticked', ...(last?.group ? { group: last.group } : {}) }] });
}
const setCaution = (index: number, text: string): void =>
  set({ cautions: props.step.cautions.flatMap((each, at) => (at === index ? (text.trim() === '' ? [] : [text]) : [each])) });
</script>

<template>
  <div class="editor">
    <v-text-field
      :model-value="step.title"
      label="Title"
      density="compact"
      hide-details
      :readonly="readonly"
      maxlength="80"
      @update:model-value="set({ title: $event })"
    />
    <v-text-field
      :model-value="step.lead"
      label="What the hands do, in one sentence"
      density="compact"
      hide-details
      :readonly="readonly"
      maxlength="300"
      @update:model-value="set({ lead: $event })"
    />
    <div v-for="(caution, index) in step.cautions" :key="index" class="caution">
      <v-text-field
        :model-value="caution"
        label="Caution"
        density="compact"
        hide-details
        :readonly="readonly"
        maxlength="300"
        @change="setCaution(index, ($event.target as HTMLInputElement).value)"
      />
    </div>
    <ul class="plain-list">
      <li v-for="(check, index) in step.checks" :key="isEach(check) ? check.each : check.id">
        <span v-if="isEach(check)" class="each"
          >{{ EACH[check.each] }}
          <span class="quiet">{{ check.group ? `under “${check.group}”, ` : '' }}one check each, from the loop</span></span
        >
        <v-text-field
          v-else
          :model-value="check.text"
          :label="check.beforePower ? 'Check, before power' : (check.group ?? 'Check')"
          density="compact"
          hide-details
          :readonly="readonly"
          maxlength="300"
          @update:model-value="setCheck(index, { ...check, text: $event })"
        />
        <template v-if="!readonly">
          <v-btn :icon="mdiArrowUp" size="small" variant="text" :disabled="index === 0" aria-label="Earlier" @click="move(index, -1)" />
          <v-btn
            :icon="mdiArrowDown"
            size="small"
            variant="text"
            :disabled="index === step.checks.length - 1"
            aria-label="Later"
            @click="move(index, 1)"
          />
          <v-btn
            :icon="mdiClose"
            size="small"
            variant="text"
            :disabled="isEach(check)"
            aria-label="Take it out"
            @click="setCheck(index, null)"
          />
        </template>
      </li>
    </ul>
    <div v-if="!readonly" class="row">
      <v-btn size="small" variant="outlined" @click="addCheck">Add a check</v-btn>
      <v-btn size="small" variant="outlined" @click="set({ cautions: [...step.cautions, 'Mind this.'] })">Add a caution</v-btn>
      <v-btn size="small" variant="text" @click="emit('add-after')">Add a step after it</v-btn>
      <v-btn v-if="removable" size="small" variant="text" @click="emit('remove')">Take the step out</v-btn>
    </div>
    <p v-if="!readonly" class="quiet">The loop fills in: {{ FILLED_IN }}</p>
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 10px;
  padding: 4px 0 18px 38px;
}
li {
  display: grid;
  grid-template-columns: 1fr auto auto auto;
  gap: 4px;
  align-items: center;
  padding: 4px 0;
}
.each {
  padding: 8px 12px;
  background: var(--well);
}
.caution {
  border-left: 4px solid var(--danger);
  padding-left: 8px;
}
p {
  margin: 0;
}
</style>
