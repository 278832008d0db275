<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { whyWords } from '@core/edge/words/bench.js';
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { locksAgainst } from '@core/bench/runs/rules.js';
import { levelNow } from '@core/bench/runs/contents.js';
import { uncoverDeg } from '@core/bench/runs/locks.js';
import { computed, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { STANDING_NAMES, type StandingName } from '@core/machine/loop-file/orientation.js';
import { formatMl } from '@core/base/units/display.js';
import { wouldLeave } from '@core/bench/runs/wouldLeave.js';
import NumberField from '../../base/units/NumberField.vue';
import { useNow } from '../../base/units/now.js';

/** What is open, how the case stands, where the level is: as the hands did it, so that the locks can know. */
const props = defineProps<{ procedure: Procedure; state: RunState; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const now = useNow(1000);
/** what would leave is worth a search of the whole loop: not every second */
const slowNow = useNow(10_000);
const level = ref<number | null>(null);
const stand = ref<StandingName>('on-back');
const angle = ref(30);

const facts = computed(() => props.procedure.facts ?? null);
const STANDS: Partial<Record<StandingName, string>> = {
  'on-back': 'its back',
  'on-face': 'its face',
  'on-window-side': 'its window side',
  'on-blind-side': 'its blind side',
};
const turns = STANDING_NAMES.filter((name) => STANDS[name] !== undefined);
const uncover = computed(() => facts.value && uncoverDeg(facts.value, stand.value));
const turned = computed(() => props.state.stand.angleDeg > 0);
const against = computed(() =>
  locksAgainst(props.procedure, props.state, { type: 'turn', to: stand.value, angleDeg: angle.value }, now.value),
);
const standing = computed(() => levelNow(props.procedure, props.state, now.value));

/** mL below which nobody needs to be told */
const WORTH_TELLING_ML = 5;
/** what would leave at each closed port if it were opened now: with the others as they are, and with them running */
const runs = computed(() => {
  const told = new Map<string, string>();
  for (const { name } of facts.value?.ports ?? []) {
    const leaves = props.state.openPorts.has(name) ? null : wouldLeave(props.procedure, props.state, name, slowNow.value);
    if (!leaves) continue;
    const ml = Math.max(leaves.alone, leaves.beside);
    if (ml >= WORTH_TELLING_ML) told.set(name, say('about {formatMl} would leave', { formatMl: formatMl(ml) }));
    else if (leaves.hangs >= WORTH_TELLING_ML)
      told.set(name, say('up to {formatMl} hang above it until air gets in', { formatMl: formatMl(leaves.hangs) }));
  }
  return told;
});

function enterLevel(): void {
  if (level.value === null || level.value < 0) return;
  emit('send', { type: 'level', levelMl: level.value });
  level.value = null;
}
</script>

<template>
  <!-- a case that lies turned waits to be stood up: that button is in sight -->
  <details v-if="facts" class="hands" :open="turned">
    <summary>
      Ports, turns, level<span v-if="state.openPorts.size + state.openJoints.size" class="quiet"
        >: {{ state.openPorts.size + state.openJoints.size }} open</span
      ><span v-if="turned" class="quiet">: turned {{ Math.round(state.stand.angleDeg) }}° towards {{ STANDS[state.stand.to] }}</span>
    </summary>
    <div class="rows">
      <div role="group" aria-label="Ports">
        <button
          v-for="port in facts.ports"
          :key="port.name"
          type="button"
          :disabled="locked"
          :aria-pressed="state.openPorts.has(port.name)"
          @click="emit('send', { type: 'port', port: port.name, open: !state.openPorts.has(port.name) })"
        >
          {{ port.label }} <b>{{ state.openPorts.has(port.name) ? 'open' : 'closed' }}</b>
          <span v-if="runs.has(port.name)" class="runs">{{ runs.get(port.name) }}</span>
        </button>
      </div>
      <p v-if="facts.gravity" class="bottle">
        <template v-if="state.bottleOn === null"
          ><v-btn
            size="large"
            :disabled="locked"
            @click="emit('send', { type: 'port', port: facts.gravity.port, open: true, bottle: true })"
            >Bottle on {{ facts.gravity.label }}</v-btn
          ></template
        ><template v-else
          >The bottle hangs on {{ facts.gravity.label }} and stays there while the case turns.
          <v-btn
            size="large"
            variant="outlined"
            :disabled="locked"
            @click="emit('send', { type: 'port', port: state.bottleOn, open: false })"
            >Bottle off, plug in</v-btn
          ></template
        >
      </p>
      <div class="turn">
        <template v-if="turned">
          <v-btn size="large" :disabled="locked" @click="emit('send', { type: 'turn', to: 'upright', angleDeg: 0 })">Upright again</v-btn>
        </template>
        <template v-else>
          <v-select
            v-model="stand"
            :items="turns.map((value) => ({ value, title: STANDS[value] }))"
            label="Turn towards"
            density="comfortable"
            hide-details
          />
          <label
            >{{ angle }}°
            <span v-if="facts.uncovers.length > 0" class="quiet">{{
              uncover === null ? 'outlet stays covered' : `outlet uncovers at ${uncover}°`
            }}</span>
            <input v-model.number="angle" type="range" min="5" max="90" step="5" aria-label="Angle of the turn" />
          </label>
          <v-btn
            size="large"
            variant="outlined"
            :disabled="locked || against.length > 0"
            @click="emit('send', { type: 'turn', to: stand, angleDeg: angle })"
            >Turned</v-btn
          >
        </template>
      </div>
      <p v-for="each in turned ? [] : against" :key="each.fact.why" class="quiet">{{ whyWords(procedure, each.fact) }}</p>
      <form v-if="facts.reservoir" class="level" novalidate @submit.prevent="enterLevel">
        <NumberField v-model="level" label="Level read in the reservoir" unit="mL" @enter="enterLevel" />
        <v-btn type="submit" size="large" variant="outlined" :disabled="locked || level === null">Enter</v-btn>
        <span v-if="standing" class="figures"
          >{{ formatMl(Math.max(0, standing.ml)) }}
          <span class="quiet"
            >{{ standing.measured ? 'read' : 'predicted' }}, low mark {{ formatMl(facts.reservoir.lowMarkMl) }}</span
          ></span
        >
      </form>
    </div>
  </details>
</template>

<style scoped>
.runs {
  display: block;
  font-size: 0.9rem;
}
.hands summary {
  cursor: pointer;
  min-height: 44px;
  display: flex;
  align-items: center;
  gap: 4px;
  font-weight: 620;
}
.rows {
  display: grid;
  gap: 12px;
  padding: 6px 0 10px;
}
.rows p {
  margin: 0;
}
.rows [role='group'] {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.rows [role='group'] button {
  border: 1.5px solid var(--line);
  border-radius: 3px;
  padding: 0 14px;
  min-height: 48px;
}
.rows [aria-pressed='true'] {
  border: 3px solid var(--ink);
  background: var(--well);
}
.turn {
  display: grid;
  grid-template-columns: 190px 1fr auto;
  gap: 14px;
  align-items: center;
}
.turn input {
  width: 100%;
  accent-color: var(--ink);
}
.level {
  display: grid;
  grid-template-columns: 240px auto 1fr;
  gap: 12px;
  align-items: center;
}
.level :deep(.v-input__details) {
  display: none;
}
@media (max-width: 700px) {
  .turn,
  .level {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
