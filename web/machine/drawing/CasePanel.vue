<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, onMounted, ref } from 'vue';
import { PLACES, type Place } from '@core/machine/catalogue/places.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { caseInFile, caseOf, CASES, templateFrom, type CaseKey } from '@core/machine/drawing/cases.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import NumberField from '../../base/units/NumberField.vue';
import CaseRoom from './CaseRoom.vue';
import { useCases } from './caseStore.js';

/** The case a loop is drawn in: a general outline, one of the workshop's own, or sizes of its own kept as a template. */
const props = defineProps<{ loop: LoopFile }>();
const emit = defineEmits<{ change: [loop: LoopFile] }>();
const cases = useCases();
const notices = useNotices();
const submit = useSubmit();
const keeping = ref(false);
const label = ref('');
onMounted(() => void cases.load().catch(() => undefined));

const outline = computed(() => caseOf(props.loop));
const own = computed(() => cases.templates.find((each) => each.label === outline.value.label) ?? null);
const chosen = computed(() =>
  own.value ? own.value.id : typeof props.loop.case === 'object' ? 'drawn' : (props.loop.case ?? 'mid-tower'),
);
const items = computed(() => [
  ...cases.templates.map(({ id, label: title }) => ({ value: id, title })),
  ...Object.entries(CASES).map(([value, { label: title }]) => ({ value, title: say('{title}, general', { title }) })),
  ...(chosen.value === 'drawn' ? [{ value: 'drawn', title: say('{label}, from the file', { label: outline.value.label }) }] : []),
]);
function choose(value: string): void {
  const template = cases.templates.find(({ id }) => id === value);
  if (template) emit('change', { ...props.loop, case: caseInFile(template) });
  else if (Object.hasOwn(CASES, value)) emit('change', { ...props.loop, case: value as CaseKey });
}
function size(side: 'depthMm' | 'heightMm' | 'widthMm', mm: number | null): void {
  if (mm === null || mm < 80 || mm > 2000) return;
  const name =
    typeof props.loop.case === 'object' && !own.value ? outline.value.label : say('{label}, changed', { label: outline.value.label });
  emit('change', { ...props.loop, case: caseInFile({ ...outline.value, label: name, [side]: mm }) });
}
const mounted = computed(() => Object.keys(templateFrom(props.loop, '').mounts).map((place) => PLACES[place as Place]));

async function keep(): Promise<void> {
  const template = templateFrom(props.loop, label.value.trim());
  const same = cases.templates.find((each) => each.label === template.label);
  const made = await submit.run((key) => (same ? cases.edit({ ...same, ...template }) : cases.add(template, key)));
  if (!made) return;
  keeping.value = false;
  label.value = '';
  emit('change', { ...props.loop, case: caseInFile(made) });
  notices.say(
    same
      ? say('{label} now has the places of this drawing.', { label: made.label })
      : say('{label} is one of the workshop’s cases now.', { label: made.label }),
  );
}
async function forget(): Promise<void> {
  const gone = own.value;
  if (!gone) return;
  if ((await submit.run(() => cases.remove(gone.id).then(() => true))) === null) return;
  const { id: _id, version: _version, ...outlineOf } = gone;
  notices.say(say('{label} is no longer offered; loops drawn in it keep it.', { label: gone.label }), () =>
    cases.add(outlineOf, crypto.randomUUID()),
  );
}
</script>

<template>
  <section aria-label="Case">
    <v-select :model-value="chosen" :items="items" label="Case" density="comfortable" hide-details @update:model-value="choose" />
    <div class="sizes">
      <NumberField :model-value="outline.depthMm" label="Depth" unit="mm" @update:model-value="size('depthMm', $event)" />
      <NumberField :model-value="outline.heightMm" label="Height" unit="mm" @update:model-value="size('heightMm', $event)" />
      <NumberField :model-value="outline.widthMm" label="Width" unit="mm" @update:model-value="size('widthMm', $event)" />
    </div>
    <CaseRoom :loop="loop" @change="emit('change', $event)" />
    <p v-if="Object.keys(outline.mounts).length" class="quiet">New parts go where this case mounts them.</p>
    <form v-if="keeping" class="keep" novalidate @submit.prevent="keep">
      <v-text-field v-model="label" label="Name of the case" autofocus density="comfortable" :error-messages="submit.problem.value ?? []" />
      <v-btn type="submit" :disabled="label.trim() === ''" :loading="submit.busy.value">Keep</v-btn>
      <p class="quiet">
        Kept with its inside sizes<template v-if="mounted.length"> and where this drawing mounts what is {{ mounted.join(', ') }}</template
        >.
      </p>
    </form>
    <div v-else class="row mt-1">
      <v-btn
        size="small"
        variant="outlined"
        @click="
          keeping = true;
          label = own?.label ?? '';
        "
        >Keep as the workshop’s case</v-btn
      >
      <v-btn v-if="own" size="small" variant="text" @click="forget">No longer offer it</v-btn>
    </div>
  </section>
</template>

<style scoped>
.sizes {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
  margin-top: 10px;
}
.sizes :deep(.v-input__details) {
  display: none;
}
.keep {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
  margin-top: 8px;
}
.keep p {
  grid-column: 1 / -1;
  margin: 0;
}
</style>
