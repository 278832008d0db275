<script setup lang="ts">
import { formatIn } from '@core/base/units/display.js';
import { computed, onMounted } from 'vue';
import { sayWord } from '@core/base/words/say.js';
import { CATALOGUE } from '@core/machine/catalogue/parts.js';
import { shortName } from '@core/machine/catalogue/names.js';
import { PLACES } from '@core/machine/catalogue/places.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { roomVariants } from '@core/physics/heat/roomFor.js';
import type { HeatQuestion } from '../compute/twinEngine.js';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import { useOwnParts } from '../drawing/ownPartStore.js';

/** The largest radiator that the measured room takes at each place, and by how many kelvin the warmest part would change with it. */
const props = defineProps<{ loop: LoopFile; loopId: string; twin: Twin; question: HeatQuestion }>();
const own = useOwnParts();
onMounted(() => void own.load().catch(() => undefined));
const variants = computed(() => roomVariants(props.loop, [...own.picks.map(({ part }) => part), ...CATALOGUE]));
const changes = useTwinAnswer(
  props.twin,
  () => (variants.value.length > 0 ? { question: props.question, loops: variants.value.map(({ loop }) => loop) } : null),
  // a worker is handed copies
  ({ question, loops }) => props.twin.engine.changes(question, JSON.parse(JSON.stringify(loops)) as (LoopFile | null)[]),
);
const nameOf = (id: string | null | undefined): string => {
  const part = props.loop.components.find((each) => each.id === id);
  return part ? shortName(part) : '';
};
const rows = computed(
  () =>
  variants.value.map((each, index) => ({ ...each, change: changes.value?.[index] ?? null })).sort((one, other) => (one.change?.byK ?? 0) - (other.change?.byK ?? 0)), // prettier-ignore
);
/** bars on one scale: kelvin cooler to the left */
const most = computed(() => Math.max(1, ...rows.value.map(({ change }) => Math.abs(change?.byK ?? 0))));
const kelvin = (byK: number): string => `${byK > 0 ? '+' : '−'}${formatIn('K', Math.abs(byK), 1)}`;
</script>

<template>
  <section class="room-for">
    <h2>Room for a radiator</h2>
    <p v-if="rows.length === 0" class="quiet">
      Nobody measured this case: <router-link :to="`/loops/${loopId}`">in the drawing, at the case</router-link>, enter the room at each
      place. Then the largest radiator that fits stands here, with what it gives.
    </p>
    <ul v-else class="plain-list">
      <li v-for="{ place, largest, now, change } in rows" :key="place">
        <span class="where"
          >{{ sayWord(PLACES[place]) }} <span class="quiet">{{ now ? `now ${nameOf(now)}` : 'free' }}</span></span
        >
        <span v-if="!largest" class="quiet">none that is known fits</span>
        <span v-else>{{ sayWord(largest.label) }}</span>
        <template v-if="change">
          <span class="track" aria-hidden="true"
            ><i :style="{ width: `${(100 * Math.abs(change.byK)) / most}%` }" :class="{ worse: change.byK > 0 }"
          /></span>
          <span class="figures"
            ><b>{{ kelvin(change.byK) }}</b> <span class="quiet">{{ nameOf(change.id) }}</span></span
          >
        </template>
        <span v-else-if="largest && now" class="quiet wide">what stands there is the largest</span>
        <span v-else-if="largest" class="quiet wide">it cannot be told what it gives</span>
      </li>
    </ul>
    <p v-if="rows.some(({ change }) => change)" class="quiet estimate">
      Computed with the air, loads and speeds of now; its fans are taken to cover its face.
    </p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(150px, 1.2fr) minmax(180px, 1.4fr) minmax(80px, 1fr) 190px;
  gap: 14px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line-soft);
}
.wide {
  grid-column: 3 / 5;
}
.track {
  height: 16px;
  background: var(--well);
}
.track i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.track .worse {
  background: none;
  border: 2px solid var(--ink);
}
@media (max-width: 1000px) {
  li {
    grid-template-columns: 1fr 1fr;
  }
  .wide {
    grid-column: auto;
  }
}
</style>
