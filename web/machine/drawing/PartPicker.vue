<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { formatMl } from '@core/base/units/display.js';
import { computed, onMounted, ref } from 'vue';
import type { OwnPart } from '@core/machine/catalogue/ownParts.js';
import { UNITS, type CatalogueUnit } from '@core/machine/catalogue/units.js';
import { CATALOGUE, type CataloguePart } from '@core/machine/catalogue/parts.js';
import type { Place } from '@core/machine/catalogue/places.js';
import { reasonsAt } from '@core/machine/fit/radiatorsAt.js';
import { weightOf } from '@core/machine/fit/verdict.js';
import { fitWords } from '@core/machine/fit/words.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import OwnPartDialog from './OwnPartDialog.vue';
import { useOwnParts } from './ownPartStore.js';
import PlaceButtons from './PlaceButtons.vue';
import { useLearned } from '../learning/learnedStore.js';

/** The catalogue of generic parts; one press adds the part behind the chosen one, in its usual place. */
const props = defineProps<{
  after: string | null;
  free?: boolean;
  /** the drawing that it goes into: places that were measured and are too small are told of */
  loop?: LoopFile;
}>();
const emit = defineEmits<{ add: [part: CataloguePart, place: Place]; addUnit: [unit: CatalogueUnit, place: Place] }>();
const learned = useLearned();
const own = useOwnParts();
onMounted(() => void own.load().catch(() => undefined));
const group = ref<CataloguePart['group']>('reservoirs');
const groups: { key: CataloguePart['group']; label: string }[] = [
  { key: 'reservoirs', label: say('Reservoirs') },
  { key: 'pumps', label: say('Pumps') },
  { key: 'blocks', label: say('Blocks') },
  { key: 'radiators', label: say('Radiators') },
  { key: 'inline', label: say('In line') },
];
/** in a list a splitter comes with its branches: "lay it beside" */
const listed = (part: CataloguePart): boolean => part.group === group.value && (props.free === true || part.flow !== undefined);
const ours = computed(() => own.picks.filter(({ part }) => listed(part)));
const shown = computed(() => CATALOGUE.filter(listed));
const units = computed(() => (group.value === 'reservoirs' || group.value === 'pumps' ? UNITS : []));
/** Why a radiator does not fit at a place that was measured. */
function against(part: CataloguePart): Partial<Record<Place, string>> {
  const { loop } = props;
  if (part.kind !== 'radiator' || !loop) return {};
  return Object.fromEntries(
    part.places.flatMap((place) => {
      const reason = reasonsAt(part, place, loop).find((each) => weightOf(each) === 'against');
      return reason ? [[place, fitWords(loop, reason)]] : [];
    }),
  );
}
/** the part that is being kept or changed; null while none is */
const keeping = ref<{ own: OwnPart | null } | null>(null);
</script>

<template>
  <section class="picker" aria-label="Add a part">
    <p class="quiet mb-2">{{ free ? 'Add in its usual place, then draw its tubes' : `Add ${after ? `after ${after}` : 'at the end'}` }}</p>
    <div class="groups" role="group" aria-label="Kind of part">
      <button v-for="each in groups" :key="each.key" type="button" :aria-pressed="group === each.key" @click="group = each.key">
        {{ sayWord(each.label) }}
      </button>
    </div>
    <ul class="plain-list">
      <li v-for="{ own: kept, part } in ours" :key="part.key" class="own">
        <span
          ><b>{{ part.label }}</b> <span class="quiet figures">about {{ formatMl(part.volumeMl) }}</span>
          <button type="button" class="change" :aria-label="`Change ${part.label}`" @click="keeping = { own: kept }">change</button></span
        >
        <PlaceButtons :label="part.label" :places="part.places" :against="against(part)" @pick="emit('add', part, $event)" />
      </li>
      <li v-for="part in shown" :key="part.key">
        <span
          >{{ sayWord(part.label) }}
          <span v-if="learned.find(part.key)" class="quiet figures"
            >{{ formatMl(learned.find(part.key)?.learned.volumeMl ?? 0) }}, learned from {{ learned.find(part.key)?.fills }} fills</span
          >
          <span v-else class="quiet figures">about {{ formatMl(part.volumeMl) }}</span></span
        >
        <PlaceButtons :label="sayWord(part.label)" :places="part.places" :against="against(part)" @pick="emit('add', part, $event)" />
      </li>
      <li v-for="unit in units" :key="unit.key">
        <span>{{ sayWord(unit.label) }} <span class="quiet">no tube, no fittings inside</span></span>
        <PlaceButtons :label="sayWord(unit.label)" :places="unit.places" @pick="emit('addUnit', unit, $event)" />
      </li>
    </ul>
    <v-btn class="mt-3" variant="outlined" @click="keeping = { own: null }">A part of our own</v-btn>
    <OwnPartDialog v-if="keeping" :own="keeping.own" @close="keeping = null" />
  </section>
</template>

<style scoped>
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  border-bottom: 1px solid var(--line);
}
.groups button {
  padding: 8px 12px;
  border-bottom: 3px solid transparent;
  color: var(--ink-soft);
}
.groups button[aria-pressed='true'] {
  border-color: var(--ink);
  color: var(--ink);
  font-weight: 620;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  padding: 7px 0;
  border-bottom: 1px solid var(--line-soft);
}
.change {
  min-width: 44px;
  min-height: 32px;
  color: var(--ink-soft);
  text-decoration: underline;
}
</style>
