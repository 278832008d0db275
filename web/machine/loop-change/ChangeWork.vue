<script setup lang="ts">
import { computed } from 'vue';
import { formatMl } from '@core/base/units/display.js';
import { changeGroups, toHave, type ChangeGroup } from '@core/edge/words/loopChange.js';
import { findTubeMaterial } from '@core/machine/materials/tubes.js';
import { changeCuts } from '@core/machine/shop-sums/tubeCuts.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import FitWords from '../drawing/FitWords.vue';
import CutSheet from '../shop-sums/CutSheet.vue';
import type { LoopChange } from '@core/machine/loop-change/loopChange.js';

/** The work from the loop inside to the one that is wanted, before anybody touches it. */
const props = defineProps<{
  work: LoopChange;
  /** how far it is let out; missing: not reckoned yet */
  drain?: 'none' | 'down-to' | 'whole';
  /** mL that come for it; null or missing: nobody can tell */
  comesMl?: number | null;
  /** the drawing that is wanted: names what a part would meet */
  wanted?: Pick<LoopFile, 'components'>;
}>();
const TITLES: Record<ChangeGroup['key'], string> = { out: 'Comes out', in: 'Goes in', stays: 'Stays, and is touched' };
const groups = computed(() => changeGroups(props.work));
const needs = computed(() => toHave(props.work));
const spare = computed(() => props.work.fittings.filter(({ count }) => count < 0).reduce((sum, { count }) => sum - count, 0));
const arriving = computed(() => props.work.in.filter(({ fit }) => fit !== undefined));
const cuts = computed(() => changeCuts(props.work, (material) => findTubeMaterial(material)?.soft ?? true));
const pieces = computed(() => cuts.value.reduce((sum, { pieces: own, tooLong }) => sum + own.length + tooLong.length, 0));
const joints = computed(() => props.work.made.length);
</script>

<template>
  <section class="change" aria-label="The work between the two drawings">
    <p class="big-number">
      {{ joints }}
      <small
        >{{ joints === 1 ? 'tube to join and test' : 'tubes to join and test'
        }}<template v-if="drain === 'none'">; nothing has to be drained</template
        ><template v-else-if="drain === 'down-to' && comesMl !== null && comesMl !== undefined"
          >; about {{ formatMl(Math.round(comesMl / 5) * 5) }} to let out</template
        ><template v-else-if="drain === 'whole'">; drained whole</template></small
      >
    </p>
    <div class="groups">
      <div v-for="group in groups" :key="group.key" :class="group.key">
        <h3>{{ TITLES[group.key] }}</h3>
        <ul class="plain-list">
          <li v-for="line in group.lines" :key="line">{{ line }}</li>
        </ul>
      </div>
    </div>
    <div v-if="arriving.length" class="fits">
      <h3>Before it is ordered</h3>
      <div v-for="part in arriving" :key="part.id">
        <p>{{ part.name }}</p>
        <FitWords v-if="part.fit" :verdict="part.fit" :loop="wanted ?? { components: [] }" />
      </div>
      <p v-if="arriving.some(({ fit }) => fit?.state === 'does-not')" class="quiet">What does not fit is left off what is to be had.</p>
    </div>
    <template v-if="needs.length">
      <h3>To have</h3>
      <p class="figures needs">
        <span v-for="each in needs" :key="each.what">{{ each.amount }} {{ each.unit }} {{ each.what }}</span>
      </p>
      <p v-if="spare > 0" class="quiet">{{ spare }} fittings come out and can be looked at for use again.</p>
    </template>
    <details v-if="cuts.length" class="cuts">
      <summary>{{ pieces === 1 ? 'One new piece to cut' : `${pieces} new pieces to cut` }}</summary>
      <CutSheet :kinds="cuts" />
    </details>
  </section>
</template>

<style scoped>
.change {
  display: grid;
  gap: 10px;
}
p {
  margin: 0;
}
.groups {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 12px 24px;
}
.groups > div {
  border-left: 5px solid var(--ink);
  padding-left: 12px;
}
.groups > .out {
  border-left-style: dotted;
}
.groups > .stays {
  border-left-color: var(--line);
}
h3 {
  margin: 0 0 4px;
}
.fits {
  display: grid;
  gap: 8px;
}
.cuts summary {
  min-height: 44px;
  padding-block: 10px;
  cursor: pointer;
}
.needs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
</style>
