<script setup lang="ts">
import { unitName } from '@core/base/units/shown.js';
import { computed, ref, watch } from 'vue';
import type { DrainPolicy } from '@core/physics/draining/defaults.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import { openablePorts } from '@core/physics/draining/openings.js';
import { STANDING, STANDING_WORDS, type Tilt } from '@core/machine/loop-file/orientation.js';
import { partName, type LoopFile } from '@core/machine/loop-file/loopFile.js';
import { digitsIn, formatMl } from '@core/base/units/display.js';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import { NEXT_STATE, type OpeningState } from '../profile/openings.js';
import ProfileSheet from '../profile/ProfileSheet.vue';
import StandingPicker from '../profile/StandingPicker.vue';
import { nameOpening } from '@core/physics/draining/openingNames.js';
import PlanSteps from './PlanSteps.vue';
import TakeOut from './TakeOut.vue';

/** Turn the case, open and close ports, and see what runs out, what is held and what stays; or follow the advised plan. */
const props = defineProps<{ loop: LoopFile; twin: Twin; colour: string | null; inside?: InsideNow | null; policy?: DrainPolicy }>();

const tilt = ref<Tilt>({ ...STANDING.upright });
const openings = ref(new Map<string, OpeningState>());
/** the stage of the plan that is shown, or null when the hands decide */
const stage = ref<number | null>(null);

const ports = computed(() => openablePorts(props.loop));
/** joints can be undone as well, where no port opens */
const withJoints = ref(false);
const joints = computed(() => props.loop.tubes.flatMap(({ id }) => [`${id}.from`, `${id}.to`]));
const offered = computed(() => (withJoints.value ? [...ports.value, ...joints.value] : ports.value));
watch(offered, (now) => {
  openings.value = new Map(now.map((name) => [name, openings.value.get(name) ?? 'closed']));
});
const withState = (state: OpeningState): string[] => [...openings.value].filter(([, each]) => each === state).map(([port]) => port);

const plan = useTwinAnswer(
  props.twin,
  () => ({ standing: props.inside?.standing ?? null, policy: props.policy }),
  ({ standing, policy }) => props.twin.engine.advise(standing, policy && { ...policy, mayTurn: [...policy.mayTurn] }),
);
watch(
  () => plan.value,
  () => stage.value === null && openings.value.size === 0 && showStage(0),
);

const state = computed(() => ({ tilt: { ...tilt.value }, open: withState('air'), drains: withState('drain') }));
const drain = useTwinAnswer(
  props.twin,
  () => (state.value.drains.length > 0 ? state.value : null),
  ({ tilt: how, open, drains }) => props.twin.engine.drain(how, open, drains),
);
/** without a drain there is nothing to tell of but the full loop */
const full = useTwinAnswer(
  props.twin,
  () => (state.value.drains.length === 0 ? { tilt: state.value.tilt } : null),
  ({ tilt: how }) => props.twin.engine.standing(how),
);
/** While the plan is stepped through the drawing shows what is left; by hand, what becomes of the full loop. */
const scene = computed(() => (stage.value !== null ? plan.value?.scenes[stage.value] : (drain.value ?? full.value)) ?? null);
const settled = computed(() => stage.value !== null);

function showStage(index: number): void {
  const chosen = plan.value?.plan.stages[index];
  if (chosen && !ports.value.includes(chosen.drain)) withJoints.value = true;
  const next = new Map<string, OpeningState>(offered.value.map((name) => [name, 'closed']));
  if (chosen) {
    tilt.value = { ...STANDING[chosen.standing] };
    for (const port of chosen.airs) next.set(port, 'air');
    next.set(chosen.drain, 'drain');
  }
  openings.value = next;
  stage.value = chosen ? index : null;
}
function byHand(): void {
  stage.value = null;
}
function turnHandle(port: string): void {
  byHand();
  openings.value = new Map(openings.value).set(port, NEXT_STATE[openings.value.get(port) ?? 'closed']);
}
function setTilt(next: Tilt): void {
  byHand();
  tilt.value = next;
}

const result = computed(() => drain.value?.result ?? null);
const shownStage = computed(() => (stage.value === null ? null : (plan.value?.plan.stages[stage.value] ?? null)));
const big = computed(() => (settled.value ? (shownStage.value?.drainedMl ?? 0) : (result.value?.drainedMl ?? null)));
const FATES = [
  { fate: 'gas', words: 'runs out' },
  { fate: 'held', words: 'held until air gets in; comes when knocked' },
  { fate: 'high', words: 'may follow as a siphon' },
  { fate: 'low', words: 'stays' },
] as const;
const AFTER = [
  { fate: 'gas', words: 'empty' },
  { fate: 'liquid', words: 'still in it' },
] as const;
</script>

<template>
  <div>
    <ProfileSheet
      :scene="scene"
      :colour="colour"
      :openings="openings"
      :fates="settled ? AFTER : FATES"
      :label="`Loop profile, the case ${shownStage ? STANDING_WORDS[shownStage.standing] : 'as set'}; handles open and close ports`"
      @turn="turnHandle"
    />

    <!-- with the plan, or with what hands made of the drawing before it came -->
    <div v-if="plan || big !== null" class="below">
      <section class="now" aria-live="polite">
        <template v-if="big !== null">
          <p class="big-number">
            {{ digitsIn('mL', big) }}
            <small>{{ unitName('mL') }} {{ !settled ? 'run out' : stage === 0 ? 'come as it stands' : 'more in this stand' }}</small>
          </p>
          <p v-if="!settled && result">
            Up to <b>{{ formatMl(result.drainedMl + result.heldMl + result.trappedHighMl) }}</b> if a bubble gets in and the siphon holds;
            {{ formatMl(result.trappedLowMl) }} stay. <span class="quiet estimate">Computed from the drawing; volumes ± 20 %.</span>
          </p>
          <p v-else-if="shownStage" class="quiet">{{ formatMl(shownStage.leftMl) }} then stay in the loop.</p>
        </template>
        <p v-else class="teach">Touch a handle in the drawing: once for air, twice for the jug under it.</p>
        <p v-for="spill in settled ? [] : (result?.spills ?? [])" :key="spill.port" class="spill" role="alert">
          {{ nameOpening(loop, spill.port) }} would spill {{ formatMl(Math.max(spill.volumeMl, spill.withDrainsOpenMl)) }}:
          {{ spill.withDrainsOpenMl > spill.volumeMl ? 'cap it before the drain is opened.' : 'cap it before you turn.' }}
          <span v-if="spill.heldMl >= 1">{{ formatMl(spill.heldMl) }} more hang there and follow when it is knocked.</span>
        </p>
        <p v-if="!settled && drain?.extra" class="mt-1">
          Air through {{ nameOpening(loop, drain.extra.opening) }} would add <b>{{ formatMl(drain.extra.addsMl) }}</b>
          <v-btn class="ml-2" variant="outlined" size="small" @click="turnHandle(drain.extra.opening)">Open it</v-btn>
        </p>
        <v-checkbox v-model="withJoints" class="mt-2" label="Joints can be undone too" density="compact" hide-details />
        <StandingPicker class="mt-3" :model-value="tilt" @update:model-value="setTilt" />
      </section>
      <section>
        <PlanSteps v-if="plan" :loop="loop" :plan="plan.plan" :shown="stage" @show="showStage" />
        <TakeOut
          class="mt-6"
          :loop="loop"
          :twin="twin"
          :inside="inside"
          :parts="loop.components.map((part) => ({ value: part.id, title: partName(part) }))"
        />
      </section>
    </div>
  </div>
</template>

<style scoped src="../profile/panel.css"></style>

<style scoped>
.spill {
  margin-top: 8px;
  padding: 8px 12px;
  border-left: 5px solid var(--danger);
  background: var(--danger-ground);
}
.teach {
  font-size: 1.15rem;
}
</style>
