<script setup lang="ts">
import { ref } from 'vue';
import { say } from '@core/base/words/say.js';
import { formatIn } from '@core/base/units/display.js';
import { DATA_SAFE, type DataSafe } from '@core/workshop/jobs/schema.js';
import ChoiceRow from '../../base/look/ChoiceRow.vue';
import NumberField from '../../base/units/NumberField.vue';
import type { Dye } from '@core/machine/liquids/dye.js';
import { colourWords } from '@core/edge/words/colour.js';
import ColourDialog from '../colour/ColourDialog.vue';
import SignTiles from './SignTiles.vue';
import type { JobForm } from './jobForm.js';

/** What the owner says and what eyes and noses notice, before anything is opened. */
const form = defineModel<JobForm>({ required: true });
defineProps<{
  systemId: string;
  baselineFlowLph: number | null;
  /** dye that went into it with its last fill */
  dyes?: readonly Dye[];
  at: (path: string) => string[];
  /** nothing was in it yet: wishes, no signs */ build?: boolean;
}>();
const comparing = ref(false);
const dataSafe = (Object.keys(DATA_SAFE) as DataSafe[]).map((value) => ({ value, title: say(DATA_SAFE[value]) }));
</script>

<template>
  <section class="intake">
    <v-textarea
      v-model="form.symptom"
      rows="2"
      :label="build ? 'What the owner wants' : 'In the owner’s words'"
      :placeholder="build ? 'quiet at night, room for a second card later' : 'gets loud after ten minutes, was quiet last winter'"
      :error-messages="at('intake.symptom')"
    />
    <!-- what the machine says by itself, beside its owner's words -->
    <slot />
    <SignTiles v-if="!build" v-model="form.signs" />
    <div v-if="!build" class="row colour">
      <v-btn variant="outlined" @click="comparing = true">Photograph it beside its sample</v-btn>
      <span v-if="form.colour" class="figures">{{ colourWords(form.colour) }}</span>
      <v-btn v-if="form.colour" variant="text" @click="form.colour = null">Leave it out</v-btn>
    </div>
    <ColourDialog
      v-if="comparing"
      :system-id="systemId"
      :job-id="null"
      :dyes="dyes"
      @close="comparing = false"
      @read="
        form.colour = $event;
        comparing = false;
      "
    />
    <div class="pair">
      <NumberField
        v-if="!build"
        v-model="form.flowLph"
        label="Flow now"
        unit="L/h"
        :hint="
          baselineFlowLph === null
            ? 'no baseline to compare with'
            : `at the baseline’s pump setting; it was ${formatIn('L/h', baselineFlowLph)}`
        "
        :errors="at('intake.flowLph')"
      />
      <v-text-field v-model="form.condition" label="Condition on arrival" placeholder="scratch on the left panel, two screws missing" />
    </div>
    <ChoiceRow v-model="form.dataSafe" label="Owner’s data" :options="dataSafe" />
    <v-text-field v-model="form.signsIn" label="Who signs in for the load test" placeholder="the owner, by phone" />
  </section>
</template>

<style scoped>
.intake {
  display: grid;
  gap: 12px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
@media (max-width: 620px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
