<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { LoadReading } from '@core/physics/diagnosis/loadReading.js';
import { soundFrom } from '@core/physics/diagnosis/measured.js';
import type { BaselineReading } from '@core/physics/diagnosis/reading.js';
import NumberField from '../../base/units/NumberField.vue';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import { given } from '@core/physics/heat/setup.js';
import type { Breathing } from '@core/physics/heat/steady.js';
import { usualBlocks } from '@core/physics/heat/usual.js';
import CauseAnswer from './CauseAnswer.vue';

/** What makes this machine worse than on its sound days: ranked on its own twin, with the look that tells most a minute. */
const props = defineProps<{
  loop: LoopFile;
  twin: Twin;
  baselines: readonly BaselineReading[];
  /** how its radiators breathe, as said under Heat */
  breathing: Breathing;
}>();

interface Typed {
  roomC: number | null;
  coolantC: number | null;
  flowLph: number | null;
  pump: number | null;
  fans: number | null;
  readonly partsC: Record<string, number | null>;
  readonly powersW: Record<string, number | null>;
}
const blocks = usualBlocks(props.loop);
const blank = (): Typed => ({
  roomC: null,
  coolantC: null,
  flowLph: null,
  pump: 70,
  fans: 60,
  partsC: Object.fromEntries(blocks.map(({ id }) => [id, null])),
  powersW: Object.fromEntries(blocks.map(({ id, loadW }) => [id, loadW])),
});
const before = reactive(blank());
const after = reactive(blank());
const recorded = soundFrom(props.loop, props.baselines);
if (recorded) {
  for (const own of [before, after]) {
    Object.assign(own, { pump: recorded.pumpPercent, fans: recorded.fanPercent });
    own.powersW[recorded.part] = recorded.powerW;
  }
  Object.assign(before, { roomC: recorded.roomC, coolantC: recorded.coolantC, flowLph: recorded.flowLph });
  before.partsC[recorded.part] = recorded.partC;
}
const seen = ref<string[]>([]);

const share = (percent: number | null): number | undefined => (percent === null ? undefined : Math.max(0, Math.min(1, percent / 100)));
function asReading(typed: Typed): LoadReading | null {
  if (typed.roomC === null) return null;
  return {
    roomC: typed.roomC,
    powersW: given(typed.powersW),
    partsC: given(typed.partsC),
    coolantC: typed.coolantC ?? undefined,
    flowLph: typed.flowLph ?? undefined,
    pumpSpeed: share(typed.pump),
    fanSpeed: share(typed.fans),
  };
}
/** read both times, with its watts */
const comparable = computed(() =>
  blocks.some(({ id }) => [before, after].every((own) => own.partsC[id] !== null && (own.powersW[id] ?? 0) > 0)),
);
const found = useTwinAnswer(
  props.twin,
  () => {
    const [sound, now] = [asReading(before), asReading(after)];
    return sound && now && comparable.value
      ? { sound, now, seen: [...seen.value], breathing: JSON.parse(JSON.stringify(props.breathing)) as Breathing }
      : null;
  },
  ({ sound, now, seen: signs, breathing }) => props.twin.engine.diagnose(sound, now, signs, {}, breathing),
);
</script>

<template>
  <div class="below" style="--left: 1.1fr; --right: 1fr">
    <section>
      <div class="figures pair">
        <span />
        <h2>Sound days</h2>
        <h2>Now</h2>
        <span>Room</span>
        <NumberField v-model="before.roomC" label="" aria-label="Room, sound days" unit="°C" />
        <NumberField v-model="after.roomC" label="" aria-label="Room, now" unit="°C" />
        <template v-for="{ id, name } in blocks" :key="id">
          <span>{{ name }}</span>
          <span class="two"
            ><NumberField v-model="before.partsC[id] as number | null" label="" :aria-label="`${name}, sound days`" unit="°C" /><NumberField
              v-model="before.powersW[id] as number | null"
              label=""
              :aria-label="`Into ${name}, sound days`"
              unit="W"
          /></span>
          <span class="two"
            ><NumberField v-model="after.partsC[id] as number | null" label="" :aria-label="`${name}, now`" unit="°C" /><NumberField
              v-model="after.powersW[id] as number | null"
              label=""
              :aria-label="`Into ${name}, now`"
              unit="W"
          /></span>
        </template>
        <span>Coolant behind the last radiator</span>
        <NumberField v-model="before.coolantC" label="" aria-label="Coolant, sound days" unit="°C" />
        <NumberField v-model="after.coolantC" label="" aria-label="Coolant, now" unit="°C" />
        <span>Flow</span>
        <NumberField v-model="before.flowLph" label="" aria-label="Flow, sound days" unit="L/h" />
        <NumberField v-model="after.flowLph" label="" aria-label="Flow, now" unit="L/h" />
        <span>Pump and fans</span>
        <span class="two"
          ><NumberField v-model="before.pump" label="" aria-label="Pump, sound days" unit="%" /><NumberField
            v-model="before.fans"
            label=""
            aria-label="Fans, sound days"
            unit="%"
        /></span>
        <span class="two"
          ><NumberField v-model="after.pump" label="" aria-label="Pump, now" unit="%" /><NumberField
            v-model="after.fans"
            label=""
            aria-label="Fans, now"
            unit="%"
        /></span>
      </div>
      <p v-if="recorded" class="quiet">Sound days: what was recorded last at the bench. Watts that nobody recorded are usual ones.</p>
    </section>
    <section aria-live="polite">
      <CauseAnswer v-if="found" v-model="seen" :loop="loop" :found="found" />
      <template v-else>
        <p class="big-number">– <small>cannot tell yet</small></p>
        <p>Room and one part with its watts, both times: then causes are ranked. Coolant and flow tell most of what parts alone cannot.</p>
      </template>
    </section>
  </div>
</template>

<style scoped src="../profile/panel.css"></style>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(110px, 0.8fr) 1fr 1fr;
  gap: 6px 12px;
  align-items: center;
}
.pair :deep(.v-input__details) {
  display: none;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
@media (max-width: 700px) {
  .pair {
    grid-template-columns: 1fr 1fr;
  }
  .pair > span:not(.two) {
    grid-column: 1 / -1;
  }
}
</style>
