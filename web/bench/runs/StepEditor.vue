<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js';
import { asShown, asStored, shownAs } from '@core/edge/words/filledIn.js';
import { EACH, PLACEHOLDERS, isEach, type CheckTemplate, type StepTemplate } from '@core/bench/runs/template.js';

/**
 * One step of a procedure as the bench will show it: its caution, its order, what is looked at, each edited where it stands. What the
 * loop fills in is named, never written in braces.
 */
const props = defineProps<{ step: StepTemplate; readonly: boolean; removable: boolean }>();
const emit = defineEmits<{ change: [step: StepTemplate]; remove: []; 'add-after': [] }>();

const FILLED_IN = PLACEHOLDERS.map(shownAs).join(' ');
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
  set({
    checks: [...props.step.checks, { id: `own-${number}`, text: say('What is ticked'), ...(last?.group ? { group: last.group } : {}) }],
  });
}
const setCaution = (index: number, text: string): void =>
  set({ cautions: props.step.cautions.flatMap((each, at) => (at === index ? (text.trim() === '' ? [] : [asStored(text)]) : [each])) });
const nameOf = (check: CheckTemplate): string => sayWord(isEach(check) ? EACH[check.each] : asShown(check.text));
</script>

<template>
  <div class="editor">
    <p class="in-head figures">
      <input
        class="title"
        :value="step.title"
        aria-label="Title"
        :readonly="readonly"
        maxlength="80"
        @input="set({ title: ($event.target as HTMLInputElement).value })"
      />
    </p>
    <div class="page">
      <div class="left">
        <div class="picture" aria-hidden="true">the loop</div>
        <textarea
          class="order"
          rows="2"
          :value="asShown(step.lead)"
          aria-label="What the hands do, in one sentence"
          :readonly="readonly"
          maxlength="300"
          @input="set({ lead: asStored(($event.target as HTMLTextAreaElement).value) })"
        />
        <p v-if="!readonly" class="quiet small">The loop fills in: {{ FILLED_IN }}</p>
      </div>
      <div class="right">
        <textarea
          v-for="(caution, index) in step.cautions"
          :key="index"
          class="caution"
          :class="{ first: index === 0 }"
          rows="2"
          :value="asShown(caution)"
          :aria-label="`Caution ${index + 1}`"
          :readonly="readonly"
          maxlength="300"
          @change="setCaution(index, ($event.target as HTMLTextAreaElement).value)"
        />
        <ul class="plain-list">
          <li v-for="(check, index) in step.checks" :key="isEach(check) ? check.each : check.id">
            <i aria-hidden="true" />
            <span v-if="isEach(check)" class="each"
              >{{ EACH[check.each] }}
              <span class="quiet">{{ check.group ? `under “${check.group}”, ` : '' }}one check each, from the loop</span></span
            >
            <textarea
              v-else
              rows="1"
              :class="{ power: check.beforePower }"
              :value="asShown(check.text)"
              :aria-label="
                check.beforePower
                  ? `Check ${index + 1}, before power`
                  : check.group
                    ? `Check ${index + 1}, ${check.group}`
                    : `Check ${index + 1}`
              "
              :readonly="readonly"
              maxlength="300"
              @input="setCheck(index, { ...check, text: asStored(($event.target as HTMLTextAreaElement).value) })"
            />
            <template v-if="!readonly">
              <v-btn
                :icon="mdiArrowUp"
                size="x-small"
                variant="text"
                :disabled="index === 0"
                :aria-label="`Earlier: ${nameOf(check)}`"
                @click="move(index, -1)"
              />
              <v-btn
                :icon="mdiArrowDown"
                size="x-small"
                variant="text"
                :disabled="index === step.checks.length - 1"
                :aria-label="`Later: ${nameOf(check)}`"
                @click="move(index, 1)"
              />
              <v-btn
                :icon="mdiClose"
                size="x-small"
                variant="text"
                :disabled="isEach(check)"
                :aria-label="`Take it out: ${nameOf(check)}`"
                @click="setCheck(index, null)"
              />
            </template>
          </li>
        </ul>
      </div>
    </div>
    <div v-if="!readonly" class="row">
      <v-btn size="small" variant="outlined" @click="addCheck">Add a check</v-btn>
      <v-btn size="small" variant="outlined" @click="set({ cautions: [...step.cautions, 'Mind this.'] })">Add a caution</v-btn>
      <v-btn size="small" variant="text" @click="emit('add-after')">Add a step after it</v-btn>
      <v-btn v-if="removable" size="small" variant="text" @click="emit('remove')">Take the step out</v-btn>
    </div>
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 12px;
}
/* a bench step in small: what is written here stands there */
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
  padding: 14px;
  border: 2px solid var(--ink);
  border-radius: 3px;
}
.left,
.right {
  display: grid;
  gap: 10px;
  align-content: start;
}
.picture {
  display: grid;
  place-items: center;
  height: 110px;
  background: var(--sheet);
  color: var(--ink-soft);
}
input,
textarea {
  width: 100%;
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1.5px dashed var(--line);
  border-radius: 0;
  padding: 4px 2px;
  resize: vertical;
  field-sizing: content;
}
input:read-only,
textarea:read-only {
  border-color: transparent;
}
.title {
  font-size: 1.3rem;
  font-weight: 640;
}
.order {
  font-size: 1.45rem;
  line-height: 1.2;
  font-weight: 640;
}
.caution {
  border-left: 8px solid var(--danger);
  background: var(--danger-ground);
  padding: 6px 12px;
}
.first {
  font-size: 1.2rem;
  font-weight: 640;
}
li {
  display: grid;
  grid-template-columns: 24px 1fr auto auto auto;
  gap: 6px;
  align-items: center;
  padding: 4px 0;
  border-top: 1px solid var(--line-soft);
}
i {
  width: 22px;
  height: 22px;
  border: 2px solid var(--ink);
  border-radius: 3px;
}
.power {
  border-left: 4px solid var(--ink);
  padding-left: 8px;
}
.each {
  padding: 6px 8px;
  background: var(--well);
}
p {
  margin: 0;
}
.small {
  font-size: 0.92rem;
}
@media (max-width: 700px) {
  .page {
    grid-template-columns: 1fr;
  }
}
</style>
