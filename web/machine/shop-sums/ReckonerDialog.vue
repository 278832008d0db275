<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { computed, nextTick, onScopeDispose, ref, watch } from 'vue';
import { InputProblem } from '@core/base/checking/input.js';
import NumberField from '../../base/units/NumberField.vue';
import { missingOf, SUMS, type Entered, type SumField } from './sums.js';
import DialogFocus from '../../base/look/DialogFocus.vue';

/** Sums for the bench, two keys away from anywhere: r, then a number. */
const open = defineModel<boolean>({ required: true });
/** `typed` before the sums were there */
const props = defineProps<{ typed?: string }>();
const emit = defineEmits<{ ready: [] }>();
const chosen = ref(0);
const sum = computed(() => SUMS[chosen.value] as (typeof SUMS)[number]);
const startOf = (fields: readonly SumField[]): Record<string, number | string | null> =>
  Object.fromEntries(fields.map(({ id, start }) => [id, start]));
const entered = ref<Record<string, number | string | null>>(startOf(sum.value.fields));
const numberAt = (id: string): number | null => (typeof entered.value[id] === 'number' ? entered.value[id] : null);
const fieldsElement = ref<HTMLElement | null>(null);

function choose(index: number): void {
  chosen.value = index;
  entered.value = startOf(sum.value.fields);
  void nextTick(() => fieldsElement.value?.querySelector('input')?.focus());
}

const outcome = computed(() => {
  const missing = missingOf(sum.value, entered.value as Entered);
  if (missing !== null) return { missing, answer: null };
  try {
    return { missing: null, answer: sum.value.answer(entered.value as Entered) };
  } catch (error) {
    if (error instanceof InputProblem) return { missing: error.message, answer: null };
    throw error;
  }
});

/** A digit picks a sum while nobody types. */
function onKey(event: KeyboardEvent): void {
  const index = Number(event.key) - 1;
  if (!SUMS[index] || event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey || event.altKey) return;
  event.preventDefault();
  choose(index);
}
watch(
  open,
  (now) => {
    window.removeEventListener('keydown', onKey);
    if (!now) return;
    window.addEventListener('keydown', onKey);
    const early = Number(props.typed?.at(-1) ?? 0) - 1;
    emit('ready');
    if (SUMS[early]) choose(early);
  },
  { immediate: true },
);
onScopeDispose(() => window.removeEventListener('keydown', onKey));
</script>

<template>
  <v-dialog v-model="open" max-width="900">
    <v-card class="reckoner">
      <DialogFocus keys-only />
      <nav aria-label="Sums">
        <button v-for="(each, index) in SUMS" :key="each.title" type="button" :class="{ now: index === chosen }" @click="choose(index)">
          <kbd>{{ index + 1 }}</kbd> {{ sayWord(each.title) }}
        </button>
      </nav>
      <div class="work">
        <h2>{{ sayWord(sum.title) }}</h2>
        <div ref="fieldsElement" class="fields">
          <template v-for="field in sum.fields" :key="`${chosen}-${field.id}`">
            <NumberField
              v-if="field.kind === 'number'"
              hide-details="auto"
              :model-value="numberAt(field.id)"
              :label="sayWord(field.label)"
              :unit="field.unit"
              @update:model-value="entered[field.id] = $event"
            />
            <v-text-field
              v-else-if="field.kind === 'list'"
              :model-value="String(entered[field.id] ?? '')"
              :label="`${sayWord(field.label)}, with spaces`"
              :suffix="field.unit"
              class="wide"
              @update:model-value="entered[field.id] = $event"
            />
            <v-select
              v-else
              v-model="entered[field.id]"
              :items="field.words.map((each) => ({ ...each, title: sayWord(each.title) }))"
              :label="sayWord(field.label)"
            />
          </template>
        </div>
        <div class="answer" aria-live="polite">
          <template v-if="outcome.answer">
            <p class="big-number">
              {{ outcome.answer.big }} <small>{{ outcome.answer.unit }}</small>
            </p>
            <p v-for="line in outcome.answer.lines" :key="line" class="figures">{{ line }}</p>
          </template>
          <p v-else class="quiet">{{ outcome.missing }}</p>
          <p class="quiet estimate mt-2">{{ sayWord(sum.source) }}</p>
        </div>
        <v-btn variant="outlined" @click="open = false">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.reckoner {
  display: grid;
  grid-template-columns: 250px 1fr;
}
nav {
  background: var(--well);
  padding: 14px 8px;
}
nav button {
  display: block;
  width: 100%;
  text-align: left;
  min-height: 48px;
  padding: 4px 12px;
  border-radius: 3px;
}
nav .now {
  background: var(--slab);
  color: var(--on-slab);
}
.work {
  padding: 22px 26px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(2, 1fr);
  gap: 14px;
  margin-top: 16px;
}
.wide {
  grid-column: 1 / -1;
}
.answer {
  min-height: 150px;
  margin: 6px 0 14px;
}
@media (max-width: 800px) {
  .reckoner {
    grid-template-columns: 1fr;
  }
  nav {
    display: grid;
    grid-template-columns: 1fr 1fr;
  }
}
</style>
