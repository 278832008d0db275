<script setup lang="ts">
import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import type { Said } from '@core/workshop/owner-door/said.js';
import { formatDay } from '@core/base/units/dates.js';
import { say } from '@core/base/words/say.js';
import { ref } from 'vue';
import { shrink } from '../base/files/shrink.js';

/** The photograph of the level mark: where to look, and how, before the camera opens. */
const props = defineProps<{
  settle: NonNullable<DoorPage['settle']>;
  open: boolean;
  busy: boolean;
  tell: (said: Said, file: string | null) => Promise<boolean>;
}>();
/** bytes of a picture as it is sent */
const MOST_BYTES = 1_000_000;
const picture = ref('');
const text = ref('');
const problem = ref('');
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const [file] = input.files ?? [];
  problem.value = '';
  if (file)
    picture.value = await shrink(file, MOST_BYTES).catch(() => {
      problem.value = say('This file is no picture that this device can read. Take a photograph, or choose another one.');
      return '';
    });
  input.value = '';
}
async function send(): Promise<void> {
  if (await props.tell({ kind: 'photo', text: text.value.trim() }, picture.value)) picture.value = text.value = '';
}
</script>

<template>
  <section class="sheet" :class="{ asked: open }" aria-labelledby="level">
    <h2 id="level">Its level</h2>
    <p v-if="settle.sent" class="stamp">Your picture has arrived; the workshop reads it.</p>
    <template v-else>
      <p>
        In the first days the last air comes home and the level sinks a little. A picture shows that it has settled, until
        {{ formatDay(settle.to) }}.
      </p>
      <div class="how">
        <svg viewBox="0 0 120 110" role="img" aria-label="The level mark from straight ahead">
          <rect class="glass" x="34" y="8" width="52" height="94" rx="6" />
          <rect class="liquid" x="36" y="44" width="48" height="56" rx="4" />
          <line class="mark" x1="26" y1="40" x2="94" y2="40" />
          <path class="eye" d="M4 40 H22 M98 40 H116" />
        </svg>
        <ol>
          <li>Switch the machine off and leave it standing upright for an hour: it must be cold.</li>
          <li>Find the reservoir, the clear vessel with the liquid, and the mark on it.</li>
          <li>Hold the camera straight ahead at the height of the mark, so near that both fill the picture.</li>
        </ol>
      </div>
      <label class="file act">
        <input type="file" accept="image/*" capture="environment" @change="take" />
        {{ picture ? 'Another picture' : 'Take the picture' }}
      </label>
      <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
      <template v-if="picture">
        <img :src="picture" alt="Your picture" />
        <label>Anything to it <input v-model="text" type="text" maxlength="500" /></label>
        <button type="button" class="act" :disabled="busy" @click="send">Send it</button>
      </template>
    </template>
  </section>
</template>
