<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { computed } from 'vue';
import type { Procedure, ProcedureStep } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import CleanStep from '../cleaning/CleanStep.vue';
import DrainStep from '../draining/DrainStep.vue';
import WaterIn from '../filling/WaterIn.vue';
import RinseStep from '../flushing/RinseStep.vue';
import InspectStep from '../inspection/InspectStep.vue';
import ChangeStep from '../loop-change/ChangeStep.vue';
import SwapStep from './SwapStep.vue';

/** The part of a bench screen that only a service has. */
const props = defineProps<{
  runId: string;
  /** entries that wait on this device */
  undelivered: number;
  procedure: Procedure;
  state: RunState;
  step: ProcedureStep;
  systemId: string;
  plannedProductId: string | null;
  colour: string | null;
  locked: boolean;
  /** place that was touched on the picture */
  picked?: { readonly id: string } | null;
}>();
const emit = defineEmits<{ send: [body: RunEventBody]; changed: [] }>();
const send = (body: RunEventBody): void => emit('send', body);
const jobId = computed(() => props.procedure.service?.jobId ?? null);
const common = computed(() => ({ procedure: props.procedure, state: props.state, locked: props.locked }));
</script>

<template>
  <DrainStep v-if="step.kind === 'drain'" v-bind="common" :colour="colour" @send="send" />
  <RinseStep v-else-if="step.kind === 'rinse'" v-bind="common" @send="send" />
  <CleanStep v-else-if="step.kind === 'clean'" v-bind="common" @send="send" />
  <InspectStep
    v-else-if="step.kind === 'inspect'"
    v-bind="common"
    :picked="picked ?? null"
    :system-id="systemId"
    :job-id="jobId"
    @send="send"
  />
  <ChangeStep
    v-if="step.does.includes('changes-loop')"
    v-bind="common"
    :run-id="runId"
    :undelivered="undelivered"
    :step="step.id"
    @send="send"
    @changed="emit('changed')"
  />
  <SwapStep
    v-if="step.kind === 'swap'"
    :folded="step.does.includes('changes-loop')"
    v-bind="common"
    :picked="picked ?? null"
    :step="step.id"
    @send="send"
  />
  <WaterIn v-if="step.kind === 'fill'" v-bind="common" :planned-product-id="plannedProductId" @send="send" />
</template>
