<script setup lang="ts">
import { computed } from 'vue';
import { sayWord } from '@core/base/words/say.js';
import { changePart } from '@core/machine/catalogue/edit.js';
import { TUBE_KINDS } from '@core/machine/catalogue/parts.js';
import { changedSheet } from '@core/machine/loop-file/fitSheet.js';
import { FIT } from '@core/machine/fit/verdict.js';
import type { LoopComponent, LoopFile } from '@core/machine/loop-file/loopFile.js';
import { findTubeMaterial } from '@core/machine/materials/tubes.js';

/** What one port takes: the tube that its fitting is for, and its thread. */
const props = defineProps<{ loop: LoopFile; part: LoopComponent; port: string }>();
const emit = defineEmits<{ change: [loop: LoopFile] }>();
type Takes = NonNullable<LoopComponent['port_fits']>[string];

const words = ({ bore_mm: bore, outer_mm: outer, soft }: Takes): string => `${bore}/${outer}${soft === undefined ? '' : soft ? ' soft' : ' rigid'}`; // prettier-ignore
/** sizes once each, by whether the tube is soft: a fitting does not ask what it is made of */
const SIZES: ReadonlyMap<string, Takes> = new Map(
  TUBE_KINDS.map(({ boreMm, outerMm, material }) => {
    const takes = { bore_mm: boreMm, outer_mm: outerMm, soft: findTubeMaterial(material)?.soft ?? true };
    return [words(takes), takes];
  }),
);
const takes = computed(() => props.part.port_fits?.[props.port]);
const chosen = computed(() => (takes.value ? words(takes.value) : null));
const items = computed(
  () =>
  [...new Map([...SIZES, ...(takes.value ? [[words(takes.value), takes.value] as const] : [])])].map(([value, { bore_mm: bore, outer_mm: outer, soft }]) => ({ value, title: `${bore}/${outer} mm${soft === undefined ? '' : `, ${sayWord(soft ? 'soft' : 'rigid')}`}` })), // prettier-ignore
);
function setTube(key: string | null): void {
  const { [props.port]: _before, ...others } = props.part.port_fits ?? {};
  const size = key === null ? undefined : SIZES.get(key);
  const next = size ? { ...others, [props.port]: { ...size } } : others;
  emit('change', changePart(props.loop, props.part.id, { port_fits: Object.keys(next).length > 0 ? next : undefined }));
}
const thread = computed(() => props.part.fit?.threads?.[props.port] ?? FIT.usualThread);
function setThread(raw: string): void {
  const { [props.port]: _before, ...others } = props.part.fit?.threads ?? {};
  const word = raw.trim();
  const threads = word === '' || word === FIT.usualThread ? others : { ...others, [props.port]: word };
  emit('change', changePart(props.loop, props.part.id, { fit: changedSheet(props.part.fit, { threads }) }));
}
</script>

<template>
  <div class="two">
    <v-select
      :model-value="chosen"
      :items="items"
      label="its fitting is for"
      density="compact"
      clearable
      hide-details
      @update:model-value="setTube"
    />
    <v-text-field
      :model-value="thread"
      label="thread"
      density="compact"
      hide-details
      maxlength="80"
      @change="setThread(($event.target as HTMLInputElement).value)"
    />
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1.3fr 1fr;
  gap: 8px;
  margin-top: 8px;
}
</style>
