<script setup lang="ts">
import type { RunAnswer } from '@core/bench/benches/answers.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import type { ProcedureStep } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import type { Liquid } from '@core/machine/liquids/fluids.js';
import { computed } from 'vue';
import { useSession } from '../workshop/people/sessionStore.js';
import BaselineStep from '../bench/baseline/BaselineStep.vue';
import BleedStep from '../bench/air/BleedStep.vue';
import DyeForm from '../bench/filling/DyeForm.vue';
import FillStep from '../bench/filling/FillStep.vue';
import TopUp from '../bench/filling/TopUp.vue';
import PartTestStep from '../bench/leak-testing/PartTestStep.vue';
import UnitOut from '../bench/leak-testing/UnitOut.vue';
import GroupTest from '../bench/leak-testing/GroupTest.vue';
import DryTestStep from '../bench/leak-testing/DryTestStep.vue';
import RingRecord from '../bench/services/RingRecord.vue';
import PasteRecord from '../bench/services/PasteRecord.vue';
import ServiceStep from '../bench/services/ServiceStep.vue';
import AlsoPulled from '../bench/leak-testing/AlsoPulled.vue';
import LoadsOnSupply from '../bench/leak-testing/LoadsOnSupply.vue';
import TimerPanel from '../bench/runs/TimerPanel.vue';

/** What each kind of step has to say: it puts its figure, its limit and its act into the frame, and the rest among the checks. */
const props = defineProps<{
  /** entries that wait on this device */
  undelivered: number;
  answer: RunAnswer;
  state: RunState;
  step: ProcedureStep;
  locked: boolean;
  colour: string | null;
  liquid: Liquid;
  /** drawn down for a leak: it is filled again in this very step */
  refilling: boolean;
  /** place that was touched on the picture in a step that has a sheet of places */
  picked: { readonly id: string } | null;
  /** a leak that is not mended stands where hands would go on */
  leaksFirst: boolean;
}>();
const emit = defineEmits<{ send: [body: RunEventBody]; changed: [] }>();
const airAtMostMl = defineModel<number | null>('airAtMostMl', { required: true });
const session = useSession();
const procedure = computed(() => props.answer.run.procedure);
</script>

<template>
  <TimerPanel
    v-for="timer in refilling || leaksFirst ? [] : step.timers"
    :key="timer.id"
    :timer="timer"
    :state="state.timers[timer.id] ?? null"
    :locked="locked"
    :pump="step.kind === 'wet-run'"
    @start="emit('send', { type: 'timer-started', step: step.id, timer: timer.id })"
    @stop="emit('send', { type: 'timer-stopped', step: step.id, timer: timer.id })"
  />
  <UnitOut
    v-if="step.kind === 'part-test' && procedure.unit"
    :procedure="procedure"
    :state="state"
    :locked="locked"
    @send="emit('send', $event)"
  />
  <PartTestStep v-else-if="step.kind === 'part-test'" :procedure="procedure" :state="state" :locked="locked" @send="emit('send', $event)" />
  <DryTestStep v-if="step.kind === 'dry-test'" :procedure="procedure" :state="state" :locked="locked" @send="emit('send', $event)" />
  <FillStep
    v-if="(step.kind === 'fill' || (refilling && !locked)) && !leaksFirst"
    :procedure="procedure"
    :state="state"
    :planned-product-id="answer.coolantProductId"
    :liquid="liquid"
    :locked="locked"
    @send="emit('send', $event)"
  />
  <BleedStep
    v-if="step.kind === 'bleed' && !refilling && !leaksFirst"
    v-model:air-at-most-ml="airAtMostMl"
    :procedure="procedure"
    :state="state"
    :colour="colour"
    :locked="locked"
    :file="answer.file"
    :liquid="liquid"
    @send="emit('send', $event)"
  />
  <TopUp
    v-if="['wet-run', 'bleed'].includes(step.kind) && !refilling && !locked"
    :procedure="procedure"
    :state="state"
    :liquid="liquid"
    :colour="colour"
    :air-at-most-ml="step.kind === 'bleed' ? airAtMostMl : null"
    :reads="step.kind === 'wet-run'"
    @send="emit('send', $event)"
  />
  <DyeForm
    v-if="['fill', 'bleed'].includes(step.kind) && !procedure.unit && !refilling && !leaksFirst"
    :procedure="procedure"
    :state="state"
    :locked="locked"
    @send="emit('send', $event)"
  />
  <ServiceStep
    v-if="procedure.service && !leaksFirst"
    :run-id="answer.run.id"
    :undelivered="undelivered"
    :procedure="procedure"
    :state="state"
    :step="step"
    :picked="picked"
    :system-id="answer.systemId"
    :planned-product-id="answer.coolantProductId"
    :colour="colour"
    :locked="locked"
    @changed="emit('changed')"
    @send="emit('send', $event)"
  />
  <AlsoPulled
    v-if="step.does.includes('isolates') && !procedure.unit"
    :state="state"
    :step="step.id"
    :locked="locked"
    @send="emit('send', $event)"
  />
  <LoadsOnSupply
    v-if="(state.loadsStay || step.does.includes('isolates')) && !procedure.unit"
    :state="state"
    :locked="locked"
    :may="procedure.loadsMayStay === true"
    @send="emit('send', $event)"
  />
  <GroupTest
    v-if="step.does.includes('new-parts') && step.kind === 'checks'"
    :procedure="procedure"
    :state="state"
    :locked="locked"
    @send="emit('send', $event)"
  />
  <RingRecord
    v-if="!leaksFirst && !procedure.unit && (step.does.includes('closes') || step.kind === 'swap' || step.kind === 'repair')"
    :procedure="procedure"
    :state="state"
    :step="step.id"
    :locked="locked"
    @send="emit('send', $event)"
  />
  <PasteRecord
    v-if="step.does.includes('pastes') && !leaksFirst"
    :procedure="procedure"
    :state="state"
    :step="step.id"
    :locked="locked"
    :due="procedure.service?.beside?.includes('paste') ?? false"
    @send="emit('send', $event)"
  />
  <BaselineStep
    v-if="step.kind === 'baseline'"
    :state="state"
    :before="step.does.includes('measures-before')"
    :build="!procedure.service"
    :machine="!answer.practice ? { systemId: answer.systemId, file: answer.file, today: session.today } : undefined"
    :locked="locked"
    @send="emit('send', $event)"
  />
</template>
