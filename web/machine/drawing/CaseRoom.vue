<script setup lang="ts">
import { computed, ref } from 'vue';
import { sayWord } from '@core/base/words/say.js';
import { formatIn } from '@core/base/units/display.js';
import { CATALOGUE } from '@core/machine/catalogue/parts.js';
import { PLACES, type Place } from '@core/machine/catalogue/places.js';
import { caseInFile, caseOf } from '@core/machine/drawing/cases.js';
import { largestAt } from '@core/machine/fit/radiatorsAt.js';
import type { LoopFile, RoomInFile } from '@core/machine/loop-file/loopFile.js';
import NumberField from '../../base/units/NumberField.vue';
import { useOwnParts } from './ownPartStore.js';

/** What was measured in the case: room for a radiator at each place, for a card, leads of the supply. */
const props = defineProps<{ loop: LoopFile }>();
const emit = defineEmits<{ change: [loop: LoopFile] }>();
const own = useOwnParts();
const outline = computed(() => caseOf(props.loop));
const room = computed<RoomInFile>(() => outline.value.room ?? {});

/** places that take a radiator, the measured ones first */
const all = computed(() => [...own.picks.map(({ part }) => part), ...CATALOGUE]);
const places = computed(() => {
  const can = (Object.keys(PLACES) as Place[]).filter((place) => all.value.some(({ kind, places: where }) => kind === 'radiator' && where.includes(place))); // prettier-ignore
  return can.sort((one, other) => Number(isMeasured(other)) - Number(isMeasured(one)));
});
const isMeasured = (place: Place): boolean => Object.hasOwn(room.value.radiators ?? {}, place);
const place = ref<Place>('roof');
const SIDES = [
  { id: 'length_mm', label: 'length', unit: 'mm' },
  { id: 'width_mm', label: 'width', unit: 'mm' },
  { id: 'depth_mm', label: 'with fans', unit: 'mm' },
] as const;
const CARD = [
  { id: 'slots', label: 'card: slots', unit: '' },
  { id: 'length_mm', label: 'card: length', unit: 'mm' },
  { id: 'height_mm', label: 'card: height', unit: 'mm' },
] as const;
/** what is typed for a place before all three of it are there */
const begun = ref<Record<string, number | null>>({});
const of = (group: string, id: string): string => `${group} ${id}`;
const measured = (group: 'card' | Place): Readonly<Record<string, number>> | undefined =>
  group === 'card' ? room.value.card : Object.hasOwn(room.value.radiators ?? {}, group) ? room.value.radiators?.[group] : undefined;
const valueOf = (group: 'card' | Place, id: string): number | null => begun.value[of(group, id)] ?? measured(group)?.[id] ?? null;

function write(next: RoomInFile): void {
  emit('change', { ...props.loop, case: caseInFile({ ...outline.value, room: next }) });
}
/** Three figures are one measure: it stands once the last of them is there, and goes once one is emptied. */
function set(group: 'card' | Place, fields: readonly { readonly id: string }[], id: string, value: number | null): void {
  begun.value = { ...begun.value, [of(group, id)]: value };
  const values = fields.map((field) => (field.id === id ? value : valueOf(group, field.id)));
  const whole = values.every((each): each is number => each !== null && each > 0) ? Object.fromEntries(fields.map((field, at) => [field.id, values[at]])) : undefined; // prettier-ignore
  if (!whole && measured(group) === undefined) return;
  // what stays of a measure that lost a figure is kept here until it is whole again
  if (!whole) begun.value = { ...begun.value, ...Object.fromEntries(fields.map((field, at) => [of(group, field.id), values[at] ?? null])) };
  const { [group]: _before, ...others } = room.value.radiators ?? {};
  if (group === 'card') write({ ...room.value, card: whole as RoomInFile['card'] });
  else write({ ...room.value, radiators: whole ? { ...others, [group]: whole as NonNullable<RoomInFile['radiators']>[string] } : others });
}
const largest = computed(() => (isMeasured(place.value) ? largestAt(props.loop, place.value, all.value) : null));
</script>

<template>
  <details class="room">
    <summary>
      Room in it
      <span class="quiet">{{ Object.keys(room).length > 0 ? 'measured' : 'not measured' }}</span>
    </summary>
    <p class="quiet">Measured in the case with what stays in it: what is too large is named before it is ordered.</p>
    <v-select
      v-model="place"
      :items="places.map((value) => ({ value, title: `${sayWord(PLACES[value])}${isMeasured(value) ? ' ✓' : ''}` }))"
      label="A radiator"
      density="compact"
      hide-details
    />
    <div class="three">
      <NumberField
        v-for="field in SIDES"
        :key="`${place} ${field.id}`"
        :model-value="valueOf(place, field.id)"
        :label="field.label"
        :unit="field.unit"
        @update:model-value="set(place, SIDES, field.id, $event)"
      />
    </div>
    <p v-if="largest">
      The largest that fits there: <b>{{ sayWord(largest.label) }}</b>
    </p>
    <p v-else-if="isMeasured(place)">None of the radiators known here fits there.</p>
    <p class="quiet mt-2">A card with its block on</p>
    <div class="three">
      <NumberField
        v-for="field in CARD"
        :key="field.id"
        :model-value="valueOf('card', field.id)"
        :label="field.label"
        :unit="field.unit"
        @update:model-value="set('card', CARD, field.id, $event)"
      />
    </div>
    <div class="three">
      <NumberField
        :model-value="room.power_leads ?? null"
        label="power leads"
        unit=""
        @update:model-value="
          ($event === null || (Number.isInteger($event) && $event >= 0 && $event <= 20)) &&
          write({ ...room, power_leads: $event ?? undefined })
        "
      />
      <NumberField
        :model-value="loop.panel_z_mm ?? null"
        label="panel at z"
        unit="mm"
        @update:model-value="emit('change', { ...loop, panel_z_mm: $event ?? undefined })"
      />
    </div>
    <p v-if="loop.panel_z_mm === undefined" class="quiet">
      The side panel’s inside, from the blind side: with it, what keeps the panel open is named. The case is
      {{ formatIn('mm', outline.widthMm) }} wide.
    </p>
  </details>
</template>

<style scoped>
.room {
  margin-top: 8px;
}
summary {
  line-height: 44px;
  cursor: pointer;
  font-weight: 620;
}
summary .quiet {
  font-weight: 400;
}
p {
  margin: 4px 0;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
  margin-top: 8px;
}
.three :deep(.v-input__details) {
  display: none;
}
</style>
