<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { computed, nextTick, ref, shallowRef } from 'vue';
import { seededRandom } from '@core/base/random/random.js';
import { say } from '@core/base/words/say.js';
import { COLOUR_VERDICTS, colourLimitWords, PATCH_WORDS, refusalWords } from '@core/edge/words/colour.js';
import { colourVerdict } from '@core/machine/liquids/colourDifference.js';
import { findCard, PATCHES, readColour, type Patch, type Patches, type Photo, type Place } from '@core/machine/liquids/colourPhoto.js';
import type { ColourRead } from '@core/machine/liquids/colourSchema.js';
import { dyeWords, type Dye } from '@core/machine/liquids/dye.js';
import { simulatedPhoto } from '@core/machine/liquids/simulatedPhoto.js';
import { wordsOf } from '../../base/http/api.js';
import DialogFocus from '../../base/look/DialogFocus.vue';
import FileButton from '../../base/files/FileButton.vue';
import { useSession } from '../people/sessionStore.js';
import { sendPhoto } from '../photos/takePhoto.js';

/** One photograph of the retained sample and the liquid before a white card: touched twice, it says whether the colour changed. */
const props = defineProps<{
  systemId: string;
  jobId: string | null;
  /** dye that went into this very loop; none: the sample of its lot is the reference */
  dyes?: readonly Dye[];
}>();
const emit = defineEmits<{ close: []; read: [reading: ColourRead] }>();
const session = useSession();

/** px of the longer side that is looked at */
const LONGEST_PX = 1000;
/** of the shorter side: radius of a patch */
const RADIUS_SHARE = 1 / 26;
const STEP_PX = 4;

const canvas = ref<HTMLCanvasElement | null>(null);
const photo = shallowRef<Photo | null>(null);
/** null: it is a drawn one, for trying */
const file = shallowRef<File | null>(null);
const places = ref<Partial<Record<Patch, Place>>>({});
const problem = ref<string | null>(null);
const busy = ref(false);
const held = ref<Patch | null>(null);

const radius = computed(() => (photo.value ? Math.max(6, Math.round(Math.min(photo.value.width, photo.value.height) * RADIUS_SHARE)) : 6));
const isWhole = (of: Partial<Record<Patch, Place>>): of is Patches => PATCHES.every((patch) => of[patch]);
const answer = computed(() => (photo.value && isWhole(places.value) ? readColour(photo.value, places.value, radius.value) : null));
const next = computed(() => (!places.value.sample ? 'sample' : !places.value.liquid ? 'liquid' : null));
const order = computed(() =>
  !photo.value
    ? say('Stand sample and liquid side by side before one white card, in even light. Never through tube.')
    : next.value === 'sample'
      ? say('Touch the retained sample.')
      : next.value === 'liquid'
        ? say('Touch the liquid.')
        : say('Rings lie on the liquids, squares on the card beside them: drag what lies wrong.'),
);

async function show(own: Photo): Promise<void> {
  photo.value = own;
  places.value = {};
  await nextTick();
  const context = canvas.value?.getContext('2d');
  context?.putImageData(new ImageData(new Uint8ClampedArray(own.pixels), own.width, own.height), 0, 0);
}
async function take(picked: File): Promise<void> {
  problem.value = null;
  try {
    const bitmap = await createImageBitmap(picked);
    const scale = Math.min(1, LONGEST_PX / Math.max(bitmap.width, bitmap.height));
    const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
    const drawn = document.createElement('canvas');
    Object.assign(drawn, { width, height });
    const context = drawn.getContext('2d', { colorSpace: 'srgb' });
    if (!context) throw new Error(say('This browser shows no pictures.'));
    context.drawImage(bitmap, 0, 0, width, height);
    file.value = picked;
    await show({ width, height, pixels: context.getImageData(0, 0, width, height).data });
  } catch {
    problem.value = say('This file is no picture that can be read.');
  }
}
/** a stand-in for a camera */
async function draw(): Promise<void> {
  file.value = null;
  const random = seededRandom(7);
  await show(simulatedPhoto({ sample: [0.62, 0.6, 0.5], liquid: [0.5, 0.52, 0.34], lamp: [0.82, 0.74, 0.6], falls: 0.06, glare: false, noise: 2 }, random)); // prettier-ignore
}

/** where on the picture, in its own px */
function placeOf(event: PointerEvent): Place | null {
  const box = canvas.value?.getBoundingClientRect();
  if (!box || !photo.value) return null;
  return {
    x: ((event.clientX - box.left) / box.width) * photo.value.width,
    y: ((event.clientY - box.top) / box.height) * photo.value.height,
  };
}
function put(patch: Patch, place: Place): void {
  const own = photo.value;
  if (!own) return;
  const inside = { x: Math.max(0, Math.min(own.width - 1, place.x)), y: Math.max(0, Math.min(own.height - 1, place.y)) };
  const card = patch === 'sample' ? 'sampleCard' : patch === 'liquid' ? 'liquidCard' : null;
  places.value = { ...places.value, [patch]: inside, ...(card ? { [card]: findCard(own, inside, radius.value) } : {}) };
}
function touch(event: PointerEvent): void {
  const place = placeOf(event);
  if (!place) return;
  const near = PATCHES.find((patch) => {
    const own = places.value[patch];
    return own && Math.hypot(own.x - place.x, own.y - place.y) < 1.6 * radius.value;
  });
  held.value = near ?? next.value;
  if (!near && next.value) put(next.value, place);
  if (held.value) (event.target as Element).setPointerCapture?.(event.pointerId);
}
function drag(event: PointerEvent): void {
  const place = held.value ? placeOf(event) : null;
  if (!place || !held.value) return;
  // a card stays where it was put while its liquid is dragged
  places.value = { ...places.value, [held.value]: place };
}
const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-STEP_PX, 0],
  ArrowRight: [STEP_PX, 0],
  ArrowUp: [0, -STEP_PX],
  ArrowDown: [0, STEP_PX],
};
function key(event: KeyboardEvent, patch: Patch): void {
  const step = STEPS[event.key];
  const own = places.value[patch];
  if (!step || !own) return;
  event.preventDefault();
  places.value = { ...places.value, [patch]: { x: own.x + step[0], y: own.y + step[1] } };
}
/** for hands without a pointer: the rings are put down in the middle and moved from there */
function begin(): void {
  const own = photo.value;
  if (!own) return;
  put('sample', { x: 0.3 * own.width, y: 0.6 * own.height });
  put('liquid', { x: 0.7 * own.width, y: 0.6 * own.height });
}

async function write(): Promise<void> {
  const reading = answer.value?.reading;
  if (!reading || !file.value) return;
  busy.value = true;
  problem.value = null;
  try {
    const photoId = await sendPhoto(props.systemId, props.jobId, file.value, say('Liquid and retained sample'), session.account);
    emit('read', { deltaE: reading.deltaE, sd: reading.sd, photoId });
  } catch (error) {
    problem.value = wordsOf(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog :model-value="true" max-width="980" scrollable @update:model-value="emit('close')">
    <v-card class="pa-6">
      <DialogFocus />
      <h2>Colour beside the retained sample</h2>
      <p v-if="dyes && dyes.length > 0" class="dyed">
        <strong>It was dyed</strong> ({{ dyeWords(dyes) }}): the sample of its lot is no reference. Stand the sample of this very loop
        beside it; without one a photograph says nothing.
      </p>
      <p class="order" aria-live="polite">{{ order }}</p>
      <div v-if="photo" class="look">
        <div class="picture" :style="{ maxWidth: `calc(54vh * ${photo.width / photo.height})` }">
          <canvas
            ref="canvas"
            :width="photo.width"
            :height="photo.height"
            @pointerdown="touch"
            @pointermove="drag"
            @pointerup="held = null"
            @pointercancel="held = null"
          />
          <svg :viewBox="`0 0 ${photo.width} ${photo.height}`">
            <g v-for="patch in PATCHES" :key="patch">
              <g
                v-if="places[patch]"
                tabindex="0"
                role="button"
                :aria-label="`${PATCH_WORDS[patch]}: arrows move it`"
                :transform="`translate(${places[patch]?.x} ${places[patch]?.y})`"
                @keydown="key($event, patch)"
              >
                <template v-if="patch.endsWith('Card')">
                  <rect class="under" :x="-radius" :y="-radius" :width="2 * radius" :height="2 * radius" />
                  <rect :x="-radius" :y="-radius" :width="2 * radius" :height="2 * radius" />
                </template>
                <template v-else>
                  <circle class="under" :r="radius" />
                  <circle :r="radius" />
                </template>
              </g>
            </g>
          </svg>
        </div>
        <div class="says">
          <template v-if="answer?.reading">
            <p class="big-number">{{ grouped(answer.reading.deltaE, 1) }}</p>
            <p class="figures">ΔE₀₀ ± {{ grouped(Math.max(0.1, answer.reading.sd), 1) }}</p>
            <p>
              <strong>{{ COLOUR_VERDICTS[colourVerdict(answer.reading.deltaE)] }}</strong>
            </p>
            <p class="quiet">{{ colourLimitWords() }}</p>
          </template>
          <ul v-else-if="answer" class="plain-list" role="alert">
            <li v-for="(refusal, index) in answer.refusals" :key="index" class="danger">{{ refusalWords(refusal) }}</li>
          </ul>
          <template v-else>
            <p class="big-number">–</p>
            <v-btn variant="text" @click="begin">Without a pointer: put the rings down</v-btn>
          </template>
          <p v-if="!file" class="quiet">A drawn picture, for trying: it is not written down.</p>
        </div>
      </div>
      <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
      <div class="row acts">
        <v-btn v-if="file && answer?.reading" size="large" :loading="busy" @click="write">Write it down</v-btn>
        <FileButton accept="image/*" capture @picked="take">{{ photo ? 'Take another' : 'Take the photograph' }}</FileButton>
        <v-btn v-if="!photo" variant="text" size="large" @click="draw">Try it on a drawn picture</v-btn>
        <v-btn variant="text" size="large" @click="emit('close')">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.dyed {
  border-left: 5px solid var(--danger);
  padding-left: 12px;
}
.order {
  font-size: 1.25rem;
  min-height: 2.4em;
  margin: 6px 0 10px;
}
.look {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 240px;
  gap: 24px;
  align-items: start;
}
.picture {
  position: relative;
  line-height: 0;
}
canvas {
  width: 100%;
  touch-action: none;
  cursor: crosshair;
}
.picture svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.picture circle,
.picture rect {
  fill: none;
  stroke: #fff;
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.picture .under {
  stroke: #000;
  stroke-width: 5;
}
.picture g:focus-visible {
  outline: 3px solid var(--ring);
}
.says p,
.says li {
  margin: 0 0 8px;
}
.acts {
  margin-top: 16px;
}
@media (max-width: 700px) {
  .look {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
