<script setup lang="ts">
import { computed, reactive } from 'vue';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { screwsOfStack, STACK_FIELDS, USUAL_STACK, type FanStacks, type MeasuredStack } from '@core/machine/shop-sums/fanScrews.js';
import { plainIn } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import { say } from '@core/base/words/say.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import NumberField from '../../base/units/NumberField.vue';

/** Fan screws, radiator by radiator: by what was measured, or by usual figures that nobody drives a screw by. */
const props = defineProps<{ loopId: string; loop: LoopFile; kept: FanStacks | null; canWrite: boolean }>();
const submit = useSubmit();
const LABELS: Readonly<Record<keyof MeasuredStack, string>> = {
  panelMm: 'Case panel',
  washersMm: 'Washers and gasket',
  spacerMm: 'Spacer',
  fanMm: 'Fan',
  flangeMm: 'Threaded flange',
  clearanceMm: 'Flange to the tubes',
};
type Typed = { [K in keyof MeasuredStack]: number | null };
const radiators = props.loop.components.filter(({ kind }) => kind === 'radiator');
const stored = reactive<Record<string, MeasuredStack>>({ ...props.kept });
const typed = reactive<Record<string, Typed>>(Object.fromEntries(radiators.map(({ id }) => [id, { ...(stored[id] ?? USUAL_STACK) }])));
const whole = (id: string): MeasuredStack | null => {
  const own = typed[id];
  return own && STACK_FIELDS.every((field) => own[field] !== null) ? (own as MeasuredStack) : null;
};
const sameAs = (id: string): boolean => STACK_FIELDS.every((field) => stored[id]?.[field] === typed[id]?.[field]);
const rows = computed(() =>
  radiators.map((part) => {
    const stack = whole(part.id);
    const choice = stack && screwsOfStack(stack);
    return {
      id: part.id,
      name: shortName(part),
      measured: stored[part.id] !== undefined && sameAs(part.id),
      big: !choice ? '–' : choice.fits.length > 0 ? choice.fits.map((mm) => plainIn('mm', mm)).join(say(' or ')) : say('none'),
      range: choice ? say('{least} to {most} under the head; longer ones pierce it', { least: plainIn('mm', choice.minMm), most: plainIn('mm', choice.maxMm) }) : '', // prettier-ignore
    };
  }),
);

async function keep(id: string): Promise<void> {
  const stack = whole(id);
  if (!stack) return;
  const stacks = { ...stored, [id]: { ...stack } };
  const saved = await submit.run(() => call<object>('PUT', `/loops/${props.loopId}/fan-stacks`, { body: { stacks } }));
  if (saved) stored[id] = { ...stack };
}
</script>

<template>
  <section v-if="radiators.length" class="screws mt-6" aria-label="Fan screws">
    <h2>Fan screws</h2>
    <article v-for="row in rows" :key="row.id" :class="{ guess: !row.measured }">
      <p>
        <strong>{{ row.name }}</strong> <span class="figures big">{{ row.big }} {{ unitName('mm') }}</span>
        <span class="quiet">{{ row.range }}</span>
      </p>
      <p v-if="row.measured" class="quiet">As measured. Screws go in crosswise, by hand first; a crack that is heard is said at once.</p>
      <p v-else>Usual figures, nobody measured this one: order nothing and drive nothing by them.</p>
      <div class="fields no-print">
        <NumberField
          v-for="field in STACK_FIELDS"
          :key="field"
          v-model="(typed[row.id] as Typed)[field]"
          :label="LABELS[field]"
          :of="row.name"
          unit="mm"
        />
        <v-btn
          v-if="canWrite && !row.measured"
          variant="outlined"
          :disabled="submit.busy.value"
          :aria-label="`Measured so: ${row.name}`"
          @click="keep(row.id)"
          >Measured so</v-btn
        >
      </div>
    </article>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
  </section>
</template>

<style scoped>
.screws {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(480px, 100%), 1fr));
  gap: 12px 36px;
}
h2,
.danger {
  grid-column: 1 / -1;
}
article {
  border-left: 4px solid var(--ink);
  padding: 4px 0 4px 14px;
  display: grid;
  align-content: start;
  gap: 6px;
}
article.guess {
  border-left: 4px dashed var(--line);
}
.big {
  font-size: 1.3rem;
}
.fields {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
  align-items: start;
}
p {
  margin: 0;
}
</style>
