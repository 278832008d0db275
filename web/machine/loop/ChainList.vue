<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { computed } from 'vue';
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js';
import {
  canStandBeside,
  changePart,
  changeRun,
  isInBranch,
  movePart,
  putBeside,
  putInLine,
  removePart,
  setElbows,
} from '@core/machine/catalogue/edit.js';
import { TUBE_KINDS, tubeKindOf } from '@core/machine/catalogue/parts.js';
import { PLACES, type Place } from '@core/machine/catalogue/places.js';
import { flowOrder } from '@core/machine/loop-file/chain.js';
import { partName, tubeLengthMm, type LoopFile } from '@core/machine/loop-file/loopFile.js';
import { loopVolume } from '@core/machine/loop-file/volume.js';
import { formatIn, formatMlWithSd } from '@core/base/units/display.js';
import VolumeFields from '../drawing/VolumeFields.vue';
import { chainRows } from './chainRows.js';
import NumberField from '../../base/units/NumberField.vue';

/** The parts in the order the liquid meets them, with the tube after each; every volume drawn to one scale. */
const props = defineProps<{ loop: LoopFile; series: boolean; colour: string | null; at: (path: string) => string[] }>();
const selected = defineModel<string | null>('selected', { required: true });
const emit = defineEmits<{ change: [loop: LoopFile] }>();

const volumes = computed(() => loopVolume(props.loop));
const largest = computed(() => Math.max(1, ...volumes.value.parts.map(({ volumeMl }) => volumeMl)));
const volumeOf = (id: string) => volumes.value.parts.find((part) => part.id === id) ?? { volumeMl: 0, sdMl: 0 };
const rows = computed(() => chainRows(props.loop));
const looseTubes = computed(() => (props.series ? [] : flowOrder(props.loop).offPath.tubes));
const moves = (id: string, by: -1 | 1): boolean => movePart(props.loop, id, by) !== props.loop;
const elbows = (fittings: readonly string[] | undefined, kind: string): number =>
  (fittings ?? []).filter((fitting) => fitting === kind).length;
const pick = (id: string): void => {
  selected.value = selected.value === id ? null : id;
};

function setLength(id: string, lengthMm: number | null): void {
  if (lengthMm !== null && lengthMm > 0) emit('change', changeRun(props.loop, id, { length_mm: lengthMm }));
}
function tubeKind(id: string, key: string): void {
  const kind = TUBE_KINDS.find((each) => each.key === key);
  if (kind) emit('change', changeRun(props.loop, id, { kind }));
}
</script>

<template>
  <ol class="plain-list chain" aria-label="Parts in flow order">
    <template v-for="row in rows" :key="row.key">
      <li v-if="row.branch" class="branch" :style="{ '--depth': row.depth }">{{ row.branch }}</li>
      <li v-if="'component' in row" class="link" :class="{ open: selected === row.component.id }" :style="{ '--depth': row.depth }">
        <button type="button" class="line" :aria-expanded="selected === row.component.id" @click="pick(row.component.id)">
          <span class="node" :class="row.component.kind" />
          <span class="name"
            >{{ partName(row.component) }}
            <span class="quiet">{{ row.component.place ? PLACES[row.component.place as Place] : '' }}</span></span
          >
          <span class="bar"
            ><span :style="{ width: `${(volumeOf(row.component.id).volumeMl / largest) * 100}%`, background: colour ?? 'var(--ink-soft)' }"
          /></span>
          <span class="figure figures">{{ formatMlWithSd(volumeOf(row.component.id).volumeMl, volumeOf(row.component.id).sdMl) }}</span>
        </button>
        <div v-if="selected === row.component.id" class="fields">
          <v-text-field
            :model-value="row.component.label ?? row.component.id"
            label="Name"
            density="compact"
            @update:model-value="$event && emit('change', changePart(loop, row.component.id, { label: $event }))"
          />
          <VolumeFields :part="row.component" @change="emit('change', changePart(loop, row.component.id, $event))" />
          <div v-if="series" class="row tools">
            <v-btn
              :icon="mdiArrowUp"
              size="small"
              variant="text"
              :disabled="!moves(row.component.id, -1)"
              :aria-label="`Move ${partName(row.component)} up`"
              @click="emit('change', movePart(loop, row.component.id, -1))"
            />
            <v-btn
              :icon="mdiArrowDown"
              size="small"
              variant="text"
              :disabled="!moves(row.component.id, 1)"
              :aria-label="`Move ${partName(row.component)} down`"
              @click="emit('change', movePart(loop, row.component.id, 1))"
            />
            <v-btn
              v-if="canStandBeside(loop, row.component.id)"
              size="small"
              variant="text"
              @click="emit('change', putBeside(loop, row.component.id))"
              >Lay it beside the one before</v-btn
            >
            <v-btn
              v-if="isInBranch(loop, row.component.id)"
              size="small"
              variant="text"
              @click="emit('change', putInLine(loop, row.component.id))"
              >Lay it in line</v-btn
            >
            <v-btn :prepend-icon="mdiClose" size="small" variant="text" @click="emit('change', removePart(loop, row.component.id))"
              >Take it out</v-btn
            >
          </div>
        </div>
      </li>
      <li v-else class="link tube" :class="{ open: selected === row.tube.id }" :style="{ '--depth': row.depth }">
        <button type="button" class="line" :aria-expanded="selected === row.tube.id" @click="pick(row.tube.id)">
          <span class="node pipe" />
          <span class="name figures"
            >{{ formatIn('mm', tubeLengthMm(loop, row.tube)) }}
            <span class="quiet">{{
              sayWord(tubeKindOf(row.tube)?.label) ?? `${row.tube.material}, bore ${row.tube.bore_mm}, outer ${row.tube.outer_mm}`
            }}</span></span
          >
          <span class="bar"
            ><span :style="{ width: `${(volumeOf(row.tube.id).volumeMl / largest) * 100}%`, background: colour ?? 'var(--ink-soft)' }"
          /></span>
          <span class="figure figures quiet">{{ formatMlWithSd(volumeOf(row.tube.id).volumeMl, volumeOf(row.tube.id).sdMl) }}</span>
        </button>
        <div v-if="selected === row.tube.id" class="fields">
          <NumberField
            :model-value="Math.round(tubeLengthMm(loop, row.tube))"
            label="Length as cut"
            unit="mm"
            @update:model-value="setLength(row.tube.id, $event)"
          />
          <v-select
            :model-value="tubeKindOf(row.tube)?.key"
            :items="TUBE_KINDS.map(({ key, label }) => ({ value: key, title: sayWord(label) }))"
            label="Tube"
            density="compact"
            @update:model-value="tubeKind(row.tube.id, $event)"
          />
          <NumberField
            :model-value="elbows(row.tube.fittings, '90')"
            label="90° elbows"
            unit="pcs"
            @update:model-value="emit('change', setElbows(loop, row.tube.id, '90', Math.min(10, Math.round($event ?? 0))))"
          />
          <NumberField
            :model-value="elbows(row.tube.fittings, '45')"
            label="45° elbows"
            unit="pcs"
            @update:model-value="emit('change', setElbows(loop, row.tube.id, '45', Math.min(10, Math.round($event ?? 0))))"
          />
        </div>
      </li>
    </template>
    <li v-for="tube in looseTubes" :key="tube.id" class="link tube">
      <span class="line"
        ><span class="node pipe" /><span class="name figures"
          >{{ formatIn('mm', tubeLengthMm(loop, tube)) }}
          <span class="quiet">{{ tube.from.join('.') }} → {{ tube.to.join('.') }}</span></span
        ></span
      >
    </li>
  </ol>
  <p v-if="!series && loop.tubes.length" class="quiet mt-2">
    This loop is open, bridged or of two circuits, so no list describes it. Volumes and lengths can be changed here; its layout comes from
    the file.
  </p>
</template>

<style scoped>
.chain {
  position: relative;
}
.link,
.branch {
  margin-left: calc(var(--depth, 0) * 26px);
}
.link[style*='--depth: 1'],
.branch {
  border-left: 3px solid var(--line);
}
.branch {
  padding: 6px 0 2px 10px;
  color: var(--ink-soft);
  font-size: 0.93rem;
}
.line {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 110px 112px;
  gap: 12px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  text-align: left;
}
.tube .line {
  min-height: 32px;
  font-size: 0.93rem;
}
button.line:hover {
  background: var(--wash);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.figure {
  text-align: right;
  white-space: nowrap;
}
.node {
  width: 16px;
  height: 16px;
  border: 2px solid var(--ink);
  background: var(--sheet);
  justify-self: center;
  border-radius: 4px;
}
.node.pump {
  border-radius: 50%;
}
.node.reservoir {
  height: 22px;
  width: 14px;
  border-radius: 2px;
}
.node.radiator {
  width: 22px;
  height: 12px;
  border-radius: 2px;
}
.node.pipe {
  border: none;
  background: var(--ink);
  width: 3px;
  height: 32px;
  border-radius: 0;
}
.bar {
  height: 10px;
  background: transparent;
  display: block;
}
.bar span {
  display: block;
  height: 100%;
  min-width: 2px;
  box-shadow: inset 0 0 0 1px rgb(0 0 0 / 22%);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
  gap: 12px;
  padding: 10px 0 16px 34px;
  align-items: start;
}
.tools {
  gap: 4px;
}
.open > .line {
  font-weight: 620;
}
@media (max-width: 700px) {
  .line {
    grid-template-columns: 22px minmax(0, 1fr) 104px;
  }
  .bar {
    display: none;
  }
}
</style>
