<script setup lang="ts">
import type { FromOwner } from '@core/workshop/owner-door/answers.js';
import { readLevel, type Px } from '@core/workshop/owner-door/levelPhoto.js';
import type { SystemPage } from '@core/workshop/machines/answers.js';
import { formatIn } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { computed, reactive, ref } from 'vue';
import { call, get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';
import NumberField from '../../base/units/NumberField.vue';
import { useDates } from '../../base/units/dates.js';

/**
 * The owner's picture of the level: mark and level are touched on it, and something whose length is known, and the millimetres follow with
 * their error. The settling check closes by them, or the owner is asked to come.
 */
const props = defineProps<{ entry: FromOwner }>();
const emit = defineEmits<{ close: []; read: [taken: boolean, words: string] }>();
const dates = useDates();
const submit = useSubmit();
const { data: page } = usePage(
  (signal) => get<SystemPage>(`/systems/${props.entry.systemId}`, signal),
  () => props.entry.systemId,
);
const due = computed(() => page.value?.dues.find(({ kind }) => kind === 'settling-check') ?? null);
/** touched one after the other */
const STEPS = ['the mark', 'the level', 'the left edge of the reservoir', 'its right edge'] as const;
const touched = ref<Px[]>([]);
const form = reactive<{ widthMm: number | null; levelChangeMm: number | null; words: string }>({
  widthMm: 60,
  levelChangeMm: null,
  words: '',
});
const size = ref({ width: 0, height: 0 });

function onLoad(event: Event): void {
  const { naturalWidth: width, naturalHeight: height } = event.target as HTMLImageElement;
  size.value = { width, height };
}
/** px of the screen that one of the picture has */
const shownAs = ref(1);
function touch(event: PointerEvent): void {
  if (touched.value.length >= STEPS.length) return;
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  shownAs.value = box.width / size.value.width;
  touched.value.push({ x: (event.clientX - box.left) / shownAs.value, y: (event.clientY - box.top) / shownAs.value });
  const found = read.value;
  if (found) form.levelChangeMm = Math.round(found.mm);
}
const read = computed(() => {
  const [mark, level, a, b] = touched.value;
  if (!mark || !level || !a || !b || form.widthMm === null) return null;
  // a finger misses by px of the screen, not of the picture
  return readLevel({ mark, level, scale: [a, b], scaleMm: form.widthMm }, 3 / shownAs.value);
});
const next = computed(() => STEPS[touched.value.length] ?? null);

async function close(outcome: 'settled' | 'not-settled'): Promise<void> {
  const own = due.value;
  const note = say('by the owner’s picture of {day}', { day: dates.day(props.entry.at) });
  const saved =
    own === null ||
    (await submit.run(() =>
      call('PUT', `/due-items/${own.id}/close`, {
        body: { outcome, levelChangeMm: form.levelChangeMm, toppedUpMl: null, note, version: own.version },
      }),
    ));
  if (!saved) return;
  emit(
    'read',
    true,
    form.words ||
      (outcome === 'settled'
        ? say('It has settled. Nothing more is to be done.')
        : say('It has not settled yet: please send another picture in three days.')),
  );
}
const visit = (): void => emit('read', true, form.words || say('Please bring it: we would like to look at it ourselves.'));
</script>

<template>
  <FormDialog
    :title="`Level of ${entry.systemName}`"
    button="It has settled"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="980"
    @submit="close('settled')"
    @close="emit('close')"
  >
    <div class="both">
      <div class="picture" @pointerdown="touch">
        <img
          v-if="entry.file"
          :src="`/api/door-files/${entry.file.id}`"
          alt="The owner’s picture of the level"
          draggable="false"
          @load="onLoad"
        />
        <svg v-if="size.width" :viewBox="`0 0 ${size.width} ${size.height}`" aria-hidden="true">
          <g v-for="(at, index) in touched" :key="index">
            <line v-if="index < 2" :x1="0" :x2="size.width" :y1="at.y" :y2="at.y" :class="index === 0 ? 'mark' : 'level'" />
            <circle :cx="at.x" :cy="at.y" :r="size.width / 90" />
          </g>
          <line v-if="touched[2] && touched[3]" class="edge" :x1="touched[2].x" :y1="touched[2].y" :x2="touched[3].x" :y2="touched[3].y" />
        </svg>
      </div>
      <div class="stack">
        <p v-if="entry.said.kind === 'photo' && entry.said.text">{{ entry.said.text }}</p>
        <p role="status">
          <strong v-if="next">Touch {{ next }} on the picture.</strong>
          <template v-else-if="read">
            <span class="big-number">{{ formatIn('mm', read.mm) }}</span><br />
            <span class="quiet">± {{ formatIn('mm', 2 * read.sdMm) }} by the touches</span>
          </template>
          <span v-else>The edges are too near each other to measure by; begin again, or type what you see.</span>
        </p>
        <v-btn v-if="touched.length" variant="text" @click="touched = []">Begin again</v-btn>
        <NumberField v-model="form.widthMm" label="Width of the reservoir" unit="mm" />
        <NumberField
          v-model="form.levelChangeMm"
          label="Level against its mark"
          unit="mm"
          hint="below the mark is negative"
          :errors="submit.at('levelChangeMm')"
        />
        <v-text-field v-model="form.words" label="To the owner" placeholder="It has settled." />
        <p v-if="page && !due" class="quiet">No settling check is open for this machine: the picture is kept with it.</p>
      </div>
    </div>
    <template #actions>
      <v-btn variant="outlined" size="large" :disabled="submit.busy.value" @click="close('not-settled')">Not settled yet</v-btn>
      <v-btn variant="outlined" size="large" @click="visit">Ask for a visit</v-btn>
    </template>
  </FormDialog>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: 22px;
}
.picture {
  position: relative;
  cursor: crosshair;
  touch-action: none;
  align-self: start;
  justify-self: center;
}
/* the whole of it stands on screen with what is done about it */
img {
  display: block;
  max-width: 100%;
  max-height: 60vh;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
circle,
line {
  stroke: #fff;
  stroke-width: 3;
  vector-effect: non-scaling-stroke;
  paint-order: stroke;
  fill: none;
  filter: drop-shadow(0 0 2px #000);
}
.level {
  stroke-dasharray: 12 8;
}
p {
  margin: 0;
}
@media (max-width: 760px) {
  .both {
    grid-template-columns: 1fr;
  }
}
</style>
