<script setup lang="ts">
import { computed } from 'vue';
import { formatDay } from '@core/base/units/dates.js';
import { formatDegrees, formatPercent, grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import type { HeatLimits } from '@core/physics/condition/limits.js';
import { quietestThatHolds, type HotDayPart, type Setting } from '@core/physics/condition/settings.js';
import type { KeptSetting } from '@core/workshop/marks/schema.js';

/** Settings that were read, each part against its limit on a hot day; the quietest that holds is proposed, one is kept. */
const props = defineProps<{
  settings: readonly Setting[];
  limits: HeatLimits;
  kept: KeptSetting | null;
  nameOf: (part: string) => string;
  canWrite: boolean;
}>();
const emit = defineEmits<{ keep: [setting: Setting] }>();

const proposed = computed(() => quietestThatHolds(props.settings));
const isKept = ({ pumpSpeed, fanSpeed, profile }: Setting): boolean =>
  props.kept !== null &&
  props.kept.pumpSpeed === pumpSpeed &&
  props.kept.fanSpeed === fanSpeed &&
  // figures say more than a name that came later
  (pumpSpeed !== null || fanSpeed !== null || (props.kept.profile ?? null) === profile);
const share = (value: number | null): string => (value === null ? say('not noted') : formatPercent(value));
const settingWords = ({
  fanSpeed,
  pumpSpeed,
  profile = null,
}: Pick<Setting, 'fanSpeed' | 'pumpSpeed'> & { profile?: string | null }): string => {
  if (profile !== null && fanSpeed === null && pumpSpeed === null) return profile;
  const figures = say('fans {fans}, pump {pump}', { fans: share(fanSpeed), pump: share(pumpSpeed) });
  return profile === null ? figures : `${profile}: ${figures}`;
};
/** °C at the left of the bars: a hot room, so that what a part adds is seen */
const span = computed(() => Math.max(...props.settings.flatMap(({ parts }) => parts.map(({ onHotDayC, limitC }) => Math.max(onHotDayC, limitC)))) - props.limits.hotRoomC + 4); // prettier-ignore
const at = (celsius: number): string => `${Math.max(0, (100 * (celsius - props.limits.hotRoomC)) / span.value)}%`;
const VERDICTS: Readonly<Record<HotDayPart['verdict'], string>> = { holds: 'holds', close: 'too close to tell', over: 'over its limit' };
</script>

<template>
  <section class="settings" aria-label="Settings on a hot day">
    <header>
      <h2>Settings on a hot day</h2>
      <p class="quiet">
        In a room of {{ formatDegrees(limits.hotRoomC) }}, at the power each part was read at, since the last fill.
        <template v-if="kept">Kept: {{ settingWords(kept) }}, {{ formatDay(kept.on) }}, {{ kept.by }}.</template>
      </p>
    </header>
    <div class="columns">
      <article v-for="setting in settings" :key="settingWords(setting)" :class="{ kept: isKept(setting) }">
        <h3>{{ settingWords(setting) }}</h3>
        <p class="quiet figures">
          {{ formatDay(setting.on) }}<template v-if="setting.noiseDba !== null">, {{ grouped(setting.noiseDba, 0) }} dB(A)</template
          ><template v-if="setting.score !== null">, score {{ Math.round(setting.score) }}</template>
          <strong v-if="setting === proposed">the quietest that holds</strong>
        </p>
        <ul class="plain-list">
          <li v-for="part in setting.parts" :key="part.part">
            <span>{{ nameOf(part.part) }}</span>
            <span class="bar" aria-hidden="true"
              ><i :class="part.verdict" :style="{ width: at(part.onHotDayC) }" /><b :style="{ left: at(part.limitC) }"
            /></span>
            <span class="figures"
              >{{ formatDegrees(part.onHotDayC) }} ± {{ grouped(Math.max(1, part.sdC), 0) }} of {{ formatDegrees(part.limitC) }}</span
            >
            <span :class="{ danger: part.verdict === 'over' }">{{ VERDICTS[part.verdict] }}</span>
          </li>
        </ul>
        <p v-if="isKept(setting)"><strong>This one is kept.</strong></p>
        <v-btn
          v-else-if="canWrite"
          variant="outlined"
          class="no-print"
          :aria-label="`This one is kept: ${settingWords(setting)}`"
          @click="emit('keep', setting)"
          >This one is kept</v-btn
        >
      </article>
    </div>
    <p v-if="proposed === null" class="quiet">None holds for certain: more air, a heavier block, or a lower power limit.</p>
  </section>
</template>

<style scoped>
.settings {
  padding: 18px 0;
  border-top: 1px solid var(--line-soft);
  display: grid;
  gap: 14px;
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 18px 36px;
}
article {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  align-content: start;
  justify-items: start;
  border-left: 4px solid var(--line);
  padding-left: 14px;
}
article.kept {
  border-left-color: var(--ink);
}
ul {
  width: 100%;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 2px 14px;
  align-items: center;
  padding: 6px 0;
}
.bar {
  grid-column: 1 / -1;
  grid-row: 2;
  position: relative;
  height: 14px;
  background: var(--well);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.bar b {
  position: absolute;
  top: -4px;
  width: 0;
  height: 22px;
  border-left: 2px dashed var(--ink);
}
p {
  margin: 0;
}
@media (max-width: 700px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
