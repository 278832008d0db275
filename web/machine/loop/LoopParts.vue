<script setup lang="ts">
import { computed } from 'vue';
import { addPart, addUnit } from '@core/machine/catalogue/edit.js';
import type { CataloguePart } from '@core/machine/catalogue/parts.js';
import type { Place } from '@core/machine/catalogue/places.js';
import { buildLoop, type Starter } from '@core/machine/catalogue/starters.js';
import type { CatalogueUnit } from '@core/machine/catalogue/units.js';
import { flowList } from '@core/machine/loop-file/branches.js';
import { partName, type LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import type { LoopAnswer } from '@core/workshop/machines/answers.js';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';
import LoopBegin from '../layouts/LoopBegin.vue';
import { useLearned } from '../learning/learnedStore.js';
import DrawnWork from '../loop-change/DrawnWork.vue';
import { filledOf } from '../profile/filledOf.js';
import LoopProfile from '../profile/LoopProfile.vue';
import ChainList from './ChainList.vue';
import LoopFigures from './LoopFigures.vue';
import PartCircuits from './PartCircuits.vue';
import PartPicker from '../drawing/PartPicker.vue';
import RevisionList from './RevisionList.vue';

/** A loop as its parts in flow order, with what follows from them: volume, first fill, order, what speaks against it. */
const props = defineProps<{
  name: string;
  file: LoopFile;
  coolantId: string | null;
  /** as it was saved; null: it is new */
  saved: LoopAnswer | null;
  dirty: boolean;
  /** what is inside; null: it is being changed, and holds nothing yet */
  inside: InsideNow | null;
  /** it was filled before */
  filled: boolean;
  /** messages of the server, by the place in the file */
  at: (path: string) => string[];
  /** where a job for a wanted revision is booked */
  bookAt: (number: number) => string;
}>();
const selected = defineModel<string | null>('selected', { required: true });
const emit = defineEmits<{
  change: [file: LoopFile];
  /** the case, empty */
  draw: [];
  drawOn: [revision: number];
  parted: [loop: LoopAnswer, names: readonly string[]];
}>();
const coolants = useCoolants();
const learned = useLearned();
const product = computed(() => coolants.find(props.coolantId));
const series = computed(() => props.file.components.length < 2 || flowList(props.file) !== null);
const afterName = computed(() => {
  const component = props.file.components.find(({ id }) => id === selected.value);
  return component ? partName(component) : null;
});
const behind = (): string | null => (props.file.components.some(({ id }) => id === selected.value) ? selected.value : null);
const add = (part: CataloguePart, place: Place): void => laidOut(addPart(props.file, learned.withLearned(part), place, behind()));
const addTheUnit = (unit: CatalogueUnit, place: Place): void => laidOut(addUnit(props.file, unit, place, behind()));
/** The loop with something new in it, and that chosen. */
function laidOut(file: LoopFile): void {
  const before = new Set(props.file.components.map(({ id }) => id));
  emit('change', file);
  selected.value = file.components.findLast(({ id }) => !before.has(id))?.id ?? null;
}
const startWith = (starter: Starter): void => emit('change', buildLoop(props.name, starter.picks));
const beginWith = (file: LoopFile): void => emit('change', { ...file, name: props.name });
</script>

<template>
  <template v-if="file.components.length === 0">
    <LoopBegin @starter="startWith" @layout="beginWith" @draw="emit('draw')" />
    <PartPicker class="mt-8" :after="null" @add="add" @add-unit="addTheUnit" />
  </template>
  <template v-else>
    <section class="sheet profile-sheet">
      <LoopProfile
        :loop="file"
        :colour="product?.colour ?? null"
        :height="230"
        :selected="selected"
        :filled="filledOf(inside)"
        @select="selected = selected === $event ? null : $event"
      />
    </section>
    <PartCircuits :file="file" :saved="dirty ? null : saved" @parted="(loop, names) => emit('parted', loop, names)" />
    <DrawnWork v-if="saved && filled && dirty" :inside="saved.file" :drawn="file" />
    <div class="columns">
      <div>
        <ChainList
          v-model:selected="selected"
          :loop="file"
          :series="series"
          :colour="product?.colour ?? null"
          :at="at"
          @change="emit('change', $event)"
        />
        <PartPicker v-if="series" class="mt-6" :after="afterName" :loop="file" @add="add" @add-unit="addTheUnit" />
      </div>
      <aside>
        <LoopFigures
          :coolant-c="saved?.coolantC ?? null"
          :loop-id="saved?.id ?? null"
          :drain-policy="saved?.drainPolicy ?? null"
          :loop="file"
          :product="product"
          :liquid="coolants.liquidOf(coolantId)"
          :inside="inside"
        />
        <RevisionList v-if="saved" class="mt-8" :revisions="saved.revisions" :book-at="bookAt" @draw="emit('drawOn', $event)" />
      </aside>
    </div>
  </template>
</template>

<style scoped>
.profile-sheet {
  padding: 12px 14px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(340px, 1fr);
  gap: 44px;
  margin-top: 22px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
