<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import { holeWords } from '@core/edge/words/holes.js';
import { usualFans } from '@core/machine/electrical/fans.js';
import { FAN_SCREWS_MM, holeSvg, PAPERS, tiles, type PaperKey } from '@core/machine/fit/holes.js';
import { templateOf, type HolesAsked } from '@core/machine/fit/holesSchema.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopComponent, Point } from '@core/machine/loop-file/loopFile.js';
import { formatIn } from '@core/base/units/display.js';
import { reading } from '@core/base/units/reading.js';
import { downloadText, fileName } from '../../base/files/download.js';
import FormDialog from '../../base/look/FormDialog.vue';
import NumberField from '../../base/units/NumberField.vue';

/** A sheet to drill by, true to size: a radiator's row of fans, or the holes that a part's foot wants. */
const props = defineProps<{ part: LoopComponent }>();
const emit = defineEmits<{ close: []; holes: [holes: readonly Point[]] }>();
const isRadiator = computed(() => props.part.kind === 'radiator');
const fans = reactive({ ...fanRow(), gapMm: 0 });
/** a pattern that is known, for the fans its face is made for */
function fanRow(): { fanMm: number; count: number } {
  const { sizeMm, count } = usualFans(props.part);
  return { fanMm: Object.hasOwn(FAN_SCREWS_MM, sizeMm) ? sizeMm : 120, count: Math.min(6, count) };
}
const holes = ref<Point[]>([...(props.part.fit?.holes_mm ?? [])]);
const fresh = reactive<Record<'x' | 'y' | 'd', number | null>>({ x: 0, y: 0, d: 4.5 });
const paper = ref<PaperKey>(reading().length === 'in' ? 'letter' : 'a4');
const asked = computed<HolesAsked | null>(() => {
  const own = { title: shortName(props.part), paper: paper.value };
  if (isRadiator.value) return { ...own, fans: { ...fans } };
  return holes.value.length > 0 ? { ...own, holes: holes.value } : null;
});
const template = computed(() => asked.value && templateOf(asked.value));
const picture = computed(() => (template.value && asked.value ? holeSvg(template.value, holeWords(asked.value.title)) : ''));
/** as a picture it runs no script, whatever its title says */
const shown = computed(() => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(picture.value)}`);
const sheets = computed(() => (template.value ? tiles(template.value, paper.value).length : 0));
const pdf = computed(() => `/api/hole-template.pdf?of=${encodeURIComponent(JSON.stringify(asked.value))}`);

function put(next: Point[]): void {
  holes.value = next;
  emit('holes', next);
}
function add(): void {
  const { x, y, d } = fresh;
  if (x === null || y === null || d === null || d <= 0 || d > 400) return;
  put([...holes.value, [x, y, d]]);
}
const SIZES = Object.keys(FAN_SCREWS_MM).map((mm) => ({ value: Number(mm), title: formatIn('mm', Number(mm)) }));
const SHEETS = (Object.keys(PAPERS) as PaperKey[]).map((value) => ({ value, title: value === 'a4' ? 'A4' : 'Letter' }));
const saveSvg = (): void =>
  void (picture.value && downloadText(picture.value, `${fileName(asked.value?.title ?? '', 'holes')}.svg`, 'image/svg+xml'));
</script>

<template>
  <FormDialog title="Template to drill by" button="SVG, in one piece" :width="720" @submit="saveSvg" @close="emit('close')">
    <template v-if="isRadiator">
      <div class="four">
        <v-select v-model="fans.fanMm" :items="SIZES" label="Fans of" density="comfortable" hide-details />
        <v-select v-model="fans.count" :items="[1, 2, 3, 4, 5, 6]" label="in a row" density="comfortable" hide-details />
        <NumberField
          :model-value="fans.gapMm"
          label="between two"
          unit="mm"
          @update:model-value="fans.gapMm = Math.min(50, Math.max(0, $event ?? 0))"
        />
      </div>
    </template>
    <template v-else>
      <ul class="plain-list">
        <li v-for="([x, y, d], index) in holes" :key="index" class="spread">
          <span class="figures">{{ x }} / {{ y }}, ⌀ {{ formatIn('mm', d, 1) }}</span>
          <button
            type="button"
            class="quiet"
            :aria-label="`Take hole ${index + 1} out`"
            @click="put(holes.filter((_, at) => at !== index))"
          >
            out
          </button>
        </li>
      </ul>
      <div class="four">
        <NumberField v-model="fresh.x" label="to the right" unit="mm" />
        <NumberField v-model="fresh.y" label="up" unit="mm" />
        <NumberField v-model="fresh.d" label="⌀" unit="mm" />
        <v-btn variant="outlined" @click="add">Add the hole</v-btn>
      </div>
      <p v-if="holes.length === 0" class="quiet">Measure the foot from one corner: every screw, every opening. The template follows.</p>
    </template>
    <template v-if="template">
      <img class="picture" :src="shown" :alt="`${holes.length || template.holes.length} holes, true to each other`" />
      <p class="quiet">
        Measure your own part first: a template is only as right as what was entered. Drill an empty case only, never over a board; glasses
        on, chips out.
      </p>
    </template>
    <template #actions>
      <v-btn v-if="template" :href="pdf" download variant="outlined" size="large">{{
        sheets === 1 ? 'PDF, one sheet' : `PDF, ${sheets} sheets`
      }}</v-btn>
      <v-select v-model="paper" class="paper" :items="SHEETS" label="Paper" density="comfortable" hide-details />
    </template>
  </FormDialog>
</template>

<style scoped>
.four {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 10px;
  align-items: start;
}
.picture {
  display: block;
  width: 100%;
  max-height: 300px;
  background: #fff;
  border: 1px solid var(--line);
}
.paper {
  max-width: 130px;
}
li button {
  min-height: 40px;
  min-width: 40px;
}
</style>
