<script setup lang="ts">
import { computed } from 'vue';
import { useTwin } from '../compute/useTwin.js';
import { useCoolants } from '../../workshop/coolants/coolantStore.js';
import type { LoopAnswer } from '@core/workshop/machines/answers.js';
import { blocksFromBaselines } from '@core/physics/diagnosis/measured.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import { breathingOf } from '@core/physics/heat/setup.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import CausePanel from '../condition/CausePanel.vue';
import DrainPanel from '../draining/DrainPanel.vue';
import FillPanel from '../filling/FillPanel.vue';
import ComparePanel from '../heat/ComparePanel.vue';
import HeatPanel from '../heat/HeatPanel.vue';
import { useHeatSetup } from '../heat/useHeatSetup.js';
import AirPanel from '../air/AirPanel.vue';
import type { ComputedTab } from './loopTabs.js';

/**
 * What the twin says of a loop as it is drawn now: what drains, how it fills, where air stays, how warm it gets; two variants compared. What
 * is not saved yet is computed like the rest, and holds nothing.
 */
const props = defineProps<{
  /** as it was saved, with what is inside and what was measured */
  saved: LoopAnswer;
  /** as it is drawn */
  file: LoopFile;
  coolantId: string | null;
  dirty: boolean;
  /** what is inside; null: it is being changed, and holds nothing yet */
  inside: InsideNow | null;
  show: ComputedTab;
}>();

const coolants = useCoolants();
const colour = computed(() => coolants.find(props.coolantId)?.colour ?? null);
const liquid = computed(() => coolants.liquidOf(props.coolantId));
const measured = computed(() => blocksFromBaselines(props.file, props.saved.baselines.map(({ reading }) => reading), liquid.value)); // prettier-ignore
const drawn = computed(() => ({ ...props.saved, file: props.file }));
const setup = useHeatSetup(() => props.saved.id, drawn);
/** how its radiators breathe, by what is said under Heat */
const breathing = computed(() => breathingOf(props.file, setup.value ?? props.saved.heatSetup, props.saved.fans));
const twin = useTwin(
  () => props.file,
  () => liquid.value,
);
</script>

<template>
  <p v-if="twin.problem.value" class="sheet mt-4">{{ twin.problem.value }}</p>
  <div v-else>
    <p v-if="dirty" class="quiet estimate" role="status">As it is drawn now, not saved yet: nothing is taken to be inside.</p>
    <DrainPanel v-if="show === 'drain'" :loop="file" :twin="twin" :colour="colour" :inside="inside" :policy="saved.drainPolicy" />
    <FillPanel v-else-if="show === 'fill'" :loop="file" :twin="twin" :colour="colour" :liquid="liquid" :inside="inside" />
    <AirPanel v-else-if="show === 'air'" :loop="file" :twin="twin" :colour="colour" :liquid="liquid" />
    <HeatPanel
      v-else-if="show === 'heat' && setup"
      v-model:setup="setup"
      :loop="file"
      :twin="twin"
      :colour="colour"
      :measured="measured"
      :fans="saved.fans"
      :system-id="saved.systemId"
      :loop-id="saved.id"
    />
    <CausePanel
      v-else-if="show === 'cause'"
      :loop="file"
      :twin="twin"
      :breathing="breathing"
      :baselines="saved.baselines.map(({ reading }) => reading)"
    />
    <ComparePanel
      v-else-if="setup"
      :setup="setup"
      :loop-id="saved.id"
      :loop="file"
      :twin="twin"
      :colour="colour"
      :liquid="liquid"
      :measured="measured"
      :revisions="saved.revisions"
      :fans="saved.fans"
    />
  </div>
</template>
