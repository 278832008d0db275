<script setup lang="ts">
import { computed } from 'vue';
import { causeWords, CHECK_WORDS, evidenceWords } from '@core/edge/words/readings.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { CHECK_RULES, type CauseCheck, type HeatCause } from '@core/physics/diagnosis/causes.js';
import type { Diagnosis } from '@core/physics/diagnosis/diagnose.js';

/** Causes in their order, with the looks that tell most a minute; what a look finds ranks them anew. */
const props = defineProps<{ loop: LoopFile; found: Diagnosis; canConfirm?: boolean }>();
/** somebody looked, and it was this */
const emit = defineEmits<{ confirm: [cause: HeatCause, part: string | null] }>();
/** signs that were looked for */
const seen = defineModel<string[]>({ required: true });

const nameOf = (id: string): string => {
  const part = props.loop.components.find((each) => each.id === id);
  return part ? shortName(part) : id;
};
/** % below which a cause is not worth a line */
const LEAST_SHOWN = 1;
const ranked = computed(() =>
  props.found.causes
    .map(({ cause, part, probability, evidence, signs }) => ({
      cause,
      part,
      speaks: (['for', 'against'] as const).map((side) => ({
        side,
        words: [
          ...evidence.filter(({ speaks }) => speaks === side).map((each) => evidenceWords(each, nameOf(each.part ?? ''))),
          ...signs.filter(({ speaks }) => speaks === side).map(({ sign }) => signWords(sign)),
        ],
      })),
      key: `${cause} ${part ?? ''}`,
      words: causeWords(cause, part && nameOf(part)),
      percent: 100 * probability,
    })) // prettier-ignore
    .filter(({ percent }, index) => index < 3 || percent >= LEAST_SHOWN),
);
/** causes of which it is told what speaks for and against them */
const TOLD = 3;
const next = computed(() => props.found.next.slice(0, 4));
const most = computed(() => Math.max(0.01, ...next.value.map(({ bits, minutes }) => bits / minutes)));
const said = (check: CauseCheck, isFound: boolean): void =>
  void (seen.value = [...seen.value, isFound ? CHECK_RULES[check].found : CHECK_RULES[check].sound]);
function signWords(sign: string): string {
  const check = (Object.keys(CHECK_RULES) as CauseCheck[]).find((key) => [CHECK_RULES[key].found, CHECK_RULES[key].sound].includes(sign));
  return check ? CHECK_WORDS[check][CHECK_RULES[check].found === sign ? 'found' : 'sound'] : sign;
}
const looked = computed(() => seen.value.map((sign) => ({ sign, words: signWords(sign) })));
const SIDES: Readonly<Record<'for' | 'against', string>> = { for: 'for it', against: 'against it' };
</script>

<template>
  <div>
    <p v-if="found.explained" class="big-number">
      {{ Math.round(ranked[0]?.percent ?? 0) }} <small>% {{ ranked[0]?.words }}</small>
    </p>
    <template v-else>
      <p class="big-number">– <small>no one cause does it</small></p>
      <p>
        Even the best of them does not make these readings likely: more than one thing is wrong, or a figure is. Below is only which comes
        nearest.
      </p>
    </template>
    <ul class="plain-list causes">
      <li v-for="(each, index) in ranked" :key="each.key">
        <span>{{ each.words }}</span>
        <span class="bar" aria-hidden="true"><i :style="{ width: `${each.percent}%` }" /></span>
        <span class="figures">{{ each.percent < 1 ? '< 1' : Math.round(each.percent) }} %</span>
        <template v-for="{ side, words } in each.speaks" :key="side">
          <span v-if="words.length && index < TOLD" class="speaks figures"
            ><i>{{ SIDES[side] }}</i
            ><span>{{ words.join('; ') }}</span></span
          >
        </template>
        <button
          v-if="canConfirm"
          type="button"
          class="link no-print"
          :aria-label="`It was this: ${each.words}`"
          @click="emit('confirm', each.cause, each.part)"
        >
          It was this
        </button>
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
      <em class="estimate">Chances from this loop’s own twin and the errors of both readings; what a look finds is workshop practice.</em>
    </p>
  </div>
</template>

<style scoped>
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
.causes .speaks {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 84px 1fr;
  text-align: left;
  color: var(--ink-soft);
}
.causes .speaks i {
  font-style: normal;
  color: var(--ink);
}
.causes .link {
  text-decoration: underline;
  grid-column: 1 / -1;
  justify-self: start;
  min-height: 32px;
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
</style>
