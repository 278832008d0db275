<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import { changePart } from '@core/machine/catalogue/edit.js';
import { keptFrom, pickable, type OwnPart } from '@core/machine/catalogue/ownParts.js';
import { CATALOGUE, findCataloguePart, makeComponent } from '@core/machine/catalogue/parts.js';
import type { Place } from '@core/machine/catalogue/places.js';
import { emptyLoop } from '@core/machine/catalogue/starters.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import FormDialog from '../../base/look/FormDialog.vue';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import FileList from '../../workshop/files/FileList.vue';
import { useOwnParts } from './ownPartStore.js';
import PartFacts from './PartFacts.vue';
import PartFit from './PartFit.vue';
import VolumeFields from './VolumeFields.vue';

/** A part of the workshop's own: what general part it is like, what it is called, what it holds, what its sheet says. */
const props = defineProps<{ own: OwnPart | null }>();
const emit = defineEmits<{ close: [] }>();
const store = useOwnParts();
const notices = useNotices();
const submit = useSubmit();
const like = ref(props.own?.like ?? 'radiator-360-30');
const label = ref(props.own?.label ?? '');

/** the part alone in a loop, so that the same fields serve here and in the drawing */
const laid = (key: string): LoopFile => {
  const part = props.own && key === props.own.like ? pickable(props.own) : findCataloguePart(key);
  return part ? { ...emptyLoop('part'), components: [makeComponent(part, part.places[0] as Place, 'part')] } : emptyLoop('part');
};
const loop = ref(laid(like.value));
watch(like, (key) => (loop.value = laid(key)));
const part = computed(() => loop.value.components[0] ?? null);
const change = (facts: object): void => void (loop.value = changePart(loop.value, 'part', facts));

async function keep(): Promise<void> {
  if (!part.value) return;
  const input = keptFrom({ ...part.value, label: label.value.trim() || ' ' }, like.value);
  if (!input) return;
  // its general shape in every place, unless it was drawn true once
  const body = { ...input, geometry: props.own?.like === like.value ? props.own.geometry : null };
  const saved = await submit.run((key) => (props.own ? store.edit(props.own, body) : store.add(body, key)));
  if (!saved) return;
  notices.say(say('{label} is one of the workshop’s parts.', { label: saved.label }));
  emit('close');
}
const remove = async (): Promise<void> => {
  const { own } = props;
  if (!own || (await submit.run(() => store.remove(own.id).then(() => true))) === null) return;
  notices.say(say('{label} is no longer offered; loops that hold it keep it.', { label: own.label }), () => store.bringBack(own.id));
  emit('close');
};
</script>

<template>
  <FormDialog
    :title="own ? own.label : 'A part of our own'"
    button="Keep it"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="560"
    @submit="keep"
    @close="emit('close')"
  >
    <v-text-field v-model="label" label="What you call it" :error-messages="submit.at('label')" />
    <v-select
      v-model="like"
      :items="CATALOGUE.map(({ key, label }) => ({ value: key, title: sayWord(label) }))"
      label="In shape and place it is like"
    />
    <template v-if="part">
      <div class="two">
        <VolumeFields
          :part="part"
          :errors="{ volume_ml: submit.at('volumeMl'), volume_sd_ml: submit.at('volumeSdMl'), max_fill_ml: submit.at('facts.max_fill_ml') }"
          @change="change"
        />
      </div>
      <PartFacts :loop="loop" :part="part" open @change="loop = $event" />
      <PartFit :loop="loop" :part="part" sheet-only @change="loop = $event" />
    </template>
    <FileList v-if="own" owner="own-parts" :owner-id="own.id" usual="sheet" heading="Its files" />
    <template #actions><v-btn v-if="own" variant="outlined" size="large" @click="remove">No longer offer it</v-btn></template>
  </FormDialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
