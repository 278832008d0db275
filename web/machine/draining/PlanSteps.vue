<script setup lang="ts">
import { listed, say, sayWord } from '@core/base/words/say.js';
import type { DrainPlan, DrainStage } from '@core/physics/draining/advice.js';
import { STANDING_WORDS } from '@core/machine/loop-file/orientation.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { formatMl } from '@core/base/units/display.js';
import { nameOpening } from '@core/physics/draining/openingNames.js';
import { computed } from 'vue';

/** The advised plan: what to open, how to turn, how much comes. */
const props = defineProps<{ loop: LoopFile; plan: DrainPlan; shown: number | null }>();
const emit = defineEmits<{ show: [stage: number] }>();

const list = (ports: readonly string[]): string => listed(ports.map((port) => nameOpening(props.loop, port)));
const joints = computed(() => new Set(props.loop.tubes.flatMap(({ id }) => [`${id}.from`, `${id}.to`])));
function words({ standing, drain, airs, airsFollow, capFirst }: DrainStage, index: number): string {
  const before = props.plan.stages[index - 1]?.standing ?? 'upright';
  const caps = capFirst.filter((opening) => !joints.value.has(opening));
  const madeUp = capFirst.filter((opening) => joints.value.has(opening));
  const name = nameOpening(props.loop, drain);
  return [
    ...(caps.length > 0 ? [`Cap ${list(caps)}.`] : []),
    ...(madeUp.length > 0 ? [say('Make up {madeUp} again.', { madeUp: list(madeUp) })] : []),
    standing === before
      ? index === 0
        ? say('Leave it upright.')
        : say('Leave it as it stands.')
      : say('Turn it {standing}, two of you.', { standing: sayWord(STANDING_WORDS[standing]) }),
    ...(airsFollow || airs.length === 0 ? [] : [say('Open {airs} for air.', { airs: list(airs) })]),
    joints.value.has(drain)
      ? say('Towels and a jug under both sides of {name}, undo it: it wants a new ring and a test.', { name })
      : say('Jug under {name}, open it.', { name }),
    ...(airsFollow ? [say('Once it has stopped, let air in at {airs}: opened before, it would run.', { airs: list(airs) })] : []),
  ].join(' ');
}
const share = (ml: number): number => (props.plan.wholeMl > 0 ? (100 * ml) / props.plan.wholeMl : 0);
</script>

<template>
  <div>
    <h2>Advised plan</h2>
    <p v-if="plan.stages.length === 0" class="mt-2">
      No port of this loop opens. Put a tee with a valve into its lowest tube and a plug near its highest point; until then a joint has to
      be undone.
    </p>
    <ol v-else class="stages">
      <li v-for="(stage, index) in plan.stages" :key="index">
        <button
          type="button"
          class="stage"
          :class="{ shown: shown === index }"
          :aria-pressed="shown === index"
          @click="emit('show', index)"
        >
          <span class="number figures">{{ index + 1 }}</span>
          <span>{{ words(stage, index) }}</span>
          <b class="figures">{{ formatMl(stage.drainedMl) }}</b>
        </button>
      </li>
    </ol>
    <div
      v-if="plan.stages.length > 0"
      class="bar"
      role="img"
      :aria-label="`${formatMl(plan.drainedMl)} out, ${formatMl(plan.leftMl)} stay`"
    >
      <span v-for="(stage, index) in plan.stages" :key="index" :style="{ width: `${share(stage.drainedMl)}%` }">{{ index + 1 }}</span>
    </div>
    <p v-if="plan.stages.length > 0" class="quiet">
      {{ formatMl(plan.drainedMl) }} of {{ formatMl(plan.wholeMl) }}; the last {{ formatMl(plan.leftMl) }} come out by blowing, by a pump or
      at a joint undone.
    </p>
  </div>
</template>

<style scoped>
.stages {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
.stage {
  display: grid;
  grid-template-columns: 28px 1fr auto;
  gap: 10px;
  width: 100%;
  padding: 10px 12px;
  text-align: left;
  border-bottom: 1px solid var(--line-soft);
  min-height: var(--touch);
  align-items: start;
}
.stage.shown {
  background: var(--slab);
  color: var(--on-slab);
  border-radius: 3px;
}
.number {
  font-weight: 640;
}
.bar {
  display: flex;
  height: 26px;
  margin: 14px 0 8px;
  border: 1.75px solid var(--ink);
  background: var(--well);
}
.bar span {
  display: flex;
  align-items: center;
  justify-content: center;
  background: var(--glass);
  border-right: 1.75px solid var(--ink);
  font-size: 0.84rem;
  overflow: hidden;
}
</style>
