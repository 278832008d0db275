<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue';
import { say, sayWord } from '@core/base/words/say.js';
import type { FalloutAnswer } from '@core/workshop/fallout/answers.js';
import { FALLOUT_STAGES, stageSince } from '@core/workshop/due-dates/falloutStages.js';
import { FALLOUT_STAGE_KEYS, type FalloutStage } from '@core/workshop/due-dates/facts.js';
import type { CoolantClass } from '@core/machine/liquids/classes.js';
import { suspensionOf } from '@core/machine/liquids/suspensions.js';
import { call, wordsOf } from '../../base/http/api.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';

/** How far a suspension has fallen out, stage by stage with the day on which it was seen first since the fill. */
const props = defineProps<{
  loopId: string;
  coolantClass: CoolantClass | null;
  /** as it was when the page came */
  found: FalloutAnswer;
  today: string;
  mayWrite: boolean;
}>();
const emit = defineEmits<{ changed: [] }>();
const dates = useDates();
const notices = useNotices();
// particles that are held up fall out; of other liquids nothing is asked
const falls = computed(() => props.coolantClass !== null && suspensionOf(props.coolantClass) !== null);
const answer = shallowRef(props.found);
watch(
  () => props.found,
  (now) => (answer.value = now),
);
const since = computed(() => answer.value.filledOn);
const looks = computed(() => answer.value.looks.filter(({ on }) => since.value !== null && on >= since.value));
const now = computed(() => (since.value === null ? null : stageSince(looks.value, since.value)));
const rows = computed(() =>
  FALLOUT_STAGE_KEYS.map((stage) => {
    const own = looks.value.filter((look) => look.stage === stage);
    return { stage, first: own.at(-1) ?? null, last: own[0] ?? null };
  }),
);
const WHAT_NOW: Record<FalloutStage, string> = {
  'comes-back': 'Stir it while it stands, and change it within weeks.',
  stays: 'It is due: strip and clean, rinsing alone does not lift it.',
  bits: 'What stayed inside comes loose: look again within two weeks.',
};

async function send(work: Promise<FalloutAnswer>, words: string, undo?: () => void): Promise<void> {
  try {
    answer.value = await work;
    notices.say(words, undo);
    emit('changed');
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
function seen(stage: FalloutStage): void {
  const id = crypto.randomUUID();
  const body = { id, stage, on: props.today, note: '' };
  void send(call<FalloutAnswer>('POST', `/loops/${props.loopId}/fallout`, { body }), say('Written down; the dates follow.'), () =>
    strike(id),
  );
}
function strike(id: string): void {
  void send(call<FalloutAnswer>('DELETE', `/fallout-looks/${id}`), say('Struck out; the dates follow.'), () =>
    send(call<FalloutAnswer>('POST', `/fallout-looks/${id}/back`, {}), say('It counts again.')),
  );
}
</script>

<template>
  <section v-if="falls && since" class="fallout" aria-label="Fallout, stage by stage">
    <h3>Fallout</h3>
    <p v-if="now" :class="{ danger: now.stage === 'stays' }">{{ sayWord(WHAT_NOW[now.stage]) }}</p>
    <p v-else class="quiet">Nothing was seen since the fill of {{ dates.day(since) }}. Look at it settled, before the pump starts.</p>
    <ol class="plain-list">
      <li v-for="{ stage, first, last } in rows" :key="stage" :class="{ seen: first }">
        <i aria-hidden="true" />
        <span>{{ sayWord(FALLOUT_STAGES[stage].label) }}</span>
        <span v-if="first && last" class="figures"
          >{{ dates.day(first.on) }}<template v-if="last.on !== first.on">, again {{ dates.day(last.on) }}</template>
          <span class="quiet"> {{ first.by }}</span>
          <button
            v-if="mayWrite"
            type="button"
            class="link no-print"
            :aria-label="`Strike out: ${FALLOUT_STAGES[stage].label}`"
            @click="strike(last.id)"
          >
            strike out
          </button></span
        >
        <button
          v-if="mayWrite && last?.on !== today"
          type="button"
          class="link no-print"
          :aria-label="`Seen today: ${FALLOUT_STAGES[stage].label}`"
          @click="seen(stage)"
        >
          seen today
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.fallout {
  margin-top: 14px;
}
p {
  margin: 2px 0 6px;
}
li {
  display: grid;
  grid-template-columns: 20px minmax(180px, 1.3fr) minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  position: relative;
}
li > :last-child {
  grid-column: 4;
}
i {
  width: 16px;
  height: 16px;
  border-radius: 50%;
  border: 2.5px solid var(--ink-soft);
  background: var(--sheet);
  z-index: 1;
}
.seen i {
  background: var(--ink);
  border-color: var(--ink);
}
li + li::before {
  content: '';
  position: absolute;
  left: 7px;
  top: -22px;
  height: 44px;
  border-left: 2.5px solid var(--line);
}
.link {
  text-decoration: underline;
  min-height: 44px;
}
@media (max-width: 600px) {
  li {
    grid-template-columns: 20px 1fr auto;
  }
  li > :last-child {
    grid-column: 3;
  }
}
</style>
