<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import { causeWords, CHECK_WORDS } from '@core/edge/words/readings.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { CHECK_RULES, type CauseCheck } from '@core/physics/diagnosis/causes.js';
import type { LoadReading } from '@core/physics/diagnosis/loadReading.js';
import { soundFrom } from '@core/physics/diagnosis/measured.js';
import type { BaselineReading } from '@core/physics/diagnosis/reading.js';
import NumberField from '../../base/units/NumberField.vue';
import { useTwinAnswer, type Twin } from '../compute/useTwin.js';
import { usualBlocks } from '../heat/usual.js';

/** What makes this machine worse than on its sound days: ranked on its own twin, with the look that tells most a minute. */
const props = defineProps<{ loop: LoopFile; twin: Twin; baselines: readonly BaselineReading[] }>();

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

const given = (from: Readonly<Record<string, number | null>>): Record<string, number> =>
  Object.fromEntries(Object.entries(from).filter((entry): entry is [string, number] => entry[1] !== null));
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
    return sound && now && comparable.value ? { sound, now, seen: [...seen.value] } : null;
  },
  ({ sound, now, seen: signs }) => props.twin.engine.diagnose(sound, now, signs),
);
const nameOf = (id: string): string => {
  const part = props.loop.components.find((each) => each.id === id);
  return part ? shortName(part) : id;
};
/** % below which a cause is not worth a line */
const LEAST_SHOWN = 1;
const ranked = computed(() =>
  (found.value?.causes ?? [])
    .map(({ cause, part, probability }) => ({
      key: `${cause} ${part ?? ''}`,
      words: causeWords(cause, part && nameOf(part)),
      percent: 100 * probability,
    })) // prettier-ignore
    .filter(({ percent }, index) => index < 3 || percent >= LEAST_SHOWN),
);
const next = computed(() => (found.value?.next ?? []).slice(0, 4));
const most = computed(() => Math.max(0.01, ...next.value.map(({ bits, minutes }) => bits / minutes)));
const said = (check: CauseCheck, isFound: boolean): void =>
  void seen.value.push(isFound ? CHECK_RULES[check].found : CHECK_RULES[check].sound);
const looked = computed(() =>
  seen.value.map((sign) => {
    const check = (Object.keys(CHECK_RULES) as CauseCheck[]).find((key) => [CHECK_RULES[key].found, CHECK_RULES[key].sound].includes(sign));
    return { sign, words: check ? CHECK_WORDS[check][CHECK_RULES[check].found === sign ? 'found' : 'sound'] : sign };
  }),
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
      <template v-if="found">
        <p v-if="found.explained" class="big-number">
          {{ Math.round(ranked[0]?.percent ?? 0) }} <small>% {{ ranked[0]?.words }}</small>
        </p>
        <template v-else>
          <p class="big-number">– <small>no one cause does it</small></p>
          <p>
            Even the best of them does not make these readings likely: more than one thing is wrong, or a figure is. Below is only which
            comes nearest.
          </p>
        </template>
        <ul class="plain-list causes">
          <li v-for="each in ranked" :key="each.key">
            <span>{{ each.words }}</span>
            <span class="bar" aria-hidden="true"><i :style="{ width: `${each.percent}%` }" /></span>
            <span class="figures">{{ each.percent < 1 ? '< 1' : Math.round(each.percent) }} %</span>
          </li>
        </ul>
        <h2 class="mt-4">Look next</h2>
        <ul class="plain-list checks">
          <li v-for="{ check, minutes, bits } in next" :key="check">
            <span class="bar" aria-hidden="true"><i :style="{ width: `${(100 * bits) / minutes / most}%` }" /></span>
            <span
              ><b>{{ CHECK_WORDS[check].look }}</b> <span class="quiet figures">{{ minutes }} min</span></span
            >
            <span class="row">
              <v-btn size="small" variant="outlined" @click="said(check, true)">{{ CHECK_WORDS[check].found }}</v-btn>
              <v-btn size="small" variant="outlined" @click="said(check, false)">{{ CHECK_WORDS[check].sound }}</v-btn>
            </span>
          </li>
        </ul>
        <p v-if="looked.length" class="mt-2">
          Seen:
          <button
            v-for="{ sign, words } in looked"
            :key="sign"
            type="button"
            class="sign"
            :aria-label="`Take back: ${words}`"
            @click="seen = seen.filter((each) => each !== sign)"
          >
            {{ words }} ×
          </button>
        </p>
        <p class="quiet mt-2">
          <em class="estimate"
            >Chances from this loop’s own twin and the errors of both readings; what a look finds is workshop practice.</em
          >
        </p>
      </template>
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
.causes li {
  display: grid;
  grid-template-columns: 1.2fr 1fr 52px;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
}
.causes .figures {
  text-align: right;
}
.bar {
  height: 16px;
  background: var(--well);
  display: block;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.checks li {
  display: grid;
  grid-template-columns: 60px 1fr;
  gap: 4px 12px;
  align-items: center;
  border-top: 1px solid var(--line-soft);
  padding: 8px 0;
}
.checks .row {
  grid-column: 2;
  flex-wrap: wrap;
}
.sign {
  min-height: 32px;
  padding: 0 10px;
  margin-left: 6px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
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
