<script setup lang="ts">
import { computed } from 'vue';
import { changePart } from '@core/machine/catalogue/edit.js';
import { PART_MATERIALS } from '@core/machine/materials/parts.js';
import type { LoopComponent, LoopFile } from '@core/machine/loop-file/loopFile.js';
import { sayWord } from '@core/base/words/say.js';
import { STANDING_NAMES, STANDING_WORDS } from '@core/machine/loop-file/orientation.js';
import NumberField from '../../base/units/NumberField.vue';

/** What a part's own sheet says of it: rating, materials, resistance; of a pump its curve and speed. What is not known stays empty. */
const props = defineProps<{ loop: LoopFile; part: LoopComponent; open?: boolean }>();
const emit = defineEmits<{ change: [loop: LoopFile] }>();
const change = (facts: Partial<LoopComponent>): void => emit('change', changePart(props.loop, props.part.id, facts));

/** flow at which a sheet usually gives a part's resistance: a US gallon a minute */
const SHEET_LPM = 3.785;
const resistance = computed(() => {
  const { resistance: known } = props.part;
  return known && 'quadratic_kpa_per_lpm2' in known ? known : null;
});
const byPoints = computed(() => props.part.resistance !== undefined && resistance.value === null);
/** kPa at that flow, as a sheet has it */
const kpaAtSheet = computed(() =>
  resistance.value === null
    ? null
    : Number((resistance.value.linear_kpa_per_lpm * SHEET_LPM + resistance.value.quadratic_kpa_per_lpm2 * SHEET_LPM ** 2).toFixed(2)),
);
function setResistance(kpa: number | null): void {
  if (kpa === null) change({ resistance: undefined });
  else if (kpa >= 0) change({ resistance: { linear_kpa_per_lpm: 0, quadratic_kpa_per_lpm2: Number((kpa / SHEET_LPM ** 2).toFixed(4)) } });
}

const isPump = computed(() => props.part.kind === 'pump');
const curve = computed(() => props.part.curve ?? []);
/** a point at a time; a curve rises in flow and falls in pressure, and the server says where it does not */
function setPoint(index: number, axis: 0 | 1, value: number | null): void {
  if (value === null || value < 0) return;
  const points = curve.value.map((point) => [...point] as [number, number]);
  (points[index] as [number, number])[axis] = value;
  change({ curve: points.sort((a, b) => a[0] - b[0]) });
}
function addPoint(): void {
  const last = curve.value.at(-1);
  change({ curve: [...curve.value, last ? [last[0] + 250, 0] : [0, 30]] });
}
const dropPoint = (index: number): void => {
  const points = curve.value.filter((_, at) => at !== index);
  change({ curve: points.length > 0 ? points : undefined });
};
/** as its sheet allows; all of them: it says nothing */
const STANDS = STANDING_NAMES.map((value) => ({ value, title: sayWord(STANDING_WORDS[value]) }));
const setStands = (stands: readonly string[]): void =>
  change({ may_stand: stands.length === STANDING_NAMES.length ? undefined : STANDING_NAMES.filter((each) => stands.includes(each)) });
const drawn = computed(() => {
  const most = { lph: Math.max(1, ...curve.value.map(([lph]) => lph)), kpa: Math.max(1, ...curve.value.map(([, kpa]) => kpa)) };
  return curve.value
    .map(([lph, kpa]) => `${(10 + (220 * lph) / most.lph).toFixed(1)} ${(70 - (60 * kpa) / most.kpa).toFixed(1)}`)
    .join('L');
});
</script>

<template>
  <details class="facts" :open="open">
    <summary>Rating, materials{{ isPump ? ', curve and speed' : ', resistance' }}</summary>
    <div class="two">
      <NumberField
        :model-value="part.pressure_rating_kpa ?? null"
        label="Most pressure, by its sheet"
        unit="kPa"
        @update:model-value="($event === null || $event > 0) && change({ pressure_rating_kpa: $event ?? undefined })"
      />
      <NumberField
        v-if="!byPoints && !isPump"
        :model-value="kpaAtSheet"
        label="Resistance at 3.8 L/min"
        unit="kPa"
        @update:model-value="setResistance"
      />
      <NumberField
        v-if="isPump"
        :model-value="Math.round((part.speed ?? 1) * 100)"
        label="Set to, of full speed"
        unit="%"
        @update:model-value="$event !== null && $event > 0 && $event <= 100 && change({ speed: $event / 100 })"
      />
    </div>
    <p v-if="byPoints" class="quiet">Its resistance stands in the file as points and stays as it is.</p>
    <v-combobox
      :model-value="[...(part.materials ?? [])]"
      :items="[...PART_MATERIALS]"
      label="Materials that meet coolant"
      multiple
      chips
      closable-chips
      density="compact"
      hide-details
      @update:model-value="change({ materials: $event.length > 0 ? $event : undefined })"
    />
    <template v-if="isPump">
      <svg v-if="curve.length > 1" viewBox="0 0 240 78" role="img" :aria-label="`Curve of the pump, ${curve.length} points`">
        <path class="axis" d="M10 6V70H236" />
        <path class="curve" :d="`M${drawn}`" />
      </svg>
      <ol class="plain-list">
        <li v-for="([lph, kpa], index) in curve" :key="index">
          <NumberField :model-value="lph" label="Flow" unit="L/h" @update:model-value="setPoint(index, 0, $event)" />
          <NumberField :model-value="kpa" label="Head" unit="kPa" @update:model-value="setPoint(index, 1, $event)" />
          <button type="button" class="quiet" :aria-label="`Take point ${index + 1} out`" @click="dropPoint(index)">out</button>
        </li>
      </ol>
      <v-btn variant="outlined" size="small" @click="addPoint">Another point</v-btn>
      <label class="fixed"
        ><input
          type="checkbox"
          :checked="part.speed_fixed === true"
          @change="change({ speed_fixed: ($event.target as HTMLInputElement).checked || undefined })"
        />
        Nobody can set its speed</label
      >
      <v-select
        :model-value="[...(part.may_stand ?? STANDING_NAMES)]"
        :items="STANDS"
        label="May run with the case"
        density="compact"
        multiple
        hide-details
        @update:model-value="setStands"
      />
    </template>
  </details>
</template>

<style scoped>
.facts {
  margin-top: 12px;
  padding-top: 8px;
  border-top: 1px solid var(--line-soft);
}
summary {
  min-height: 40px;
  cursor: pointer;
  font-weight: 620;
}
.two,
li {
  display: grid;
  gap: 8px;
  padding-bottom: 8px;
}
li {
  grid-template-columns: 1fr 1fr auto;
}
svg {
  width: 100%;
  margin-block: 8px;
}
.axis,
.curve {
  fill: none;
  stroke: var(--ink);
}
.curve {
  stroke-width: 2.5;
  stroke-dasharray: 6 3;
}
.fixed {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.fixed input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
</style>
