<script setup lang="ts">
import { provide, reactive, ref } from 'vue';
import { useHeight } from '../../base/units/useSize.js';
import { FRAME, type FrameRegion } from './frame.js';
import KeyPad from './KeyPad.vue';
import { useKeyPad } from './useKeyPad.js';

/**
 * One frame for every step at the bench: everything that hands need stands at its own place and nothing scrolls but the checks.
 * What a step itself has to say comes into the regions from wherever it is worked out (`FramePart`); what stands in a region by
 * default gives way to it.
 */
defineProps<{ /** something runs on power here: its switch has its place whether it runs or not */ powered: boolean }>();
const filled = reactive<Partial<Record<FrameRegion, number>>>({});
const has = (region: FrameRegion): boolean => (filled[region] ?? 0) > 0;
provide(FRAME, {
  fill: (region) => {
    filled[region] = (filled[region] ?? 0) + 1;
    return () => {
      filled[region] = (filled[region] ?? 1) - 1;
    };
  },
});

const frame = ref<HTMLElement | null>(null);
const typing = useKeyPad(frame);
const picture = ref<HTMLElement | null>(null);
const pictureHeight = useHeight(picture, 190);
const shows = defineModel<'loop' | 'curve'>('shows', { required: true });
</script>

<template>
  <div
    ref="frame"
    class="frame"
    :class="{ powered, working: has('work'), curved: has('curve') && shows === 'curve', typing: typing.field.value !== null }"
  >
    <div class="head"><slot name="head" /></div>
    <div class="picture">
      <div v-show="!has('curve') || shows === 'loop'" ref="picture" class="loop"><slot name="picture" :height="pictureHeight" /></div>
      <div v-show="has('curve') && shows === 'curve'" data-region="curve" class="curve" />
      <div v-if="has('curve')" class="which" role="group" aria-label="Picture">
        <button type="button" :aria-pressed="shows === 'loop'" @click="shows = 'loop'">Loop</button>
        <button type="button" :aria-pressed="shows === 'curve'" @click="shows = 'curve'">Curve</button>
      </div>
    </div>
    <div data-region="order" class="order"><slot v-if="!has('order')" name="order" /></div>
    <div v-show="!has('work')" data-region="figure" class="figure"><slot v-if="!has('figure')" name="figure" /></div>
    <div v-show="!has('work')" data-region="limit" class="limit" />
    <div v-show="!has('work')" data-region="so-far" class="so-far" />
    <div v-show="has('work')" data-region="work" class="work" />
    <div class="side">
      <div v-if="$slots.caution" class="caution"><slot name="caution" /></div>
      <div v-show="has('pump')" data-region="pump" class="pump" />
      <section class="checks" aria-label="To look at"><slot /></section>
      <KeyPad v-if="typing.field.value" :typing="typing" />
    </div>
    <div class="act">
      <div v-show="has('act')" data-region="act" class="own-act" />
      <slot name="act" />
    </div>
    <slot name="sheet" />
  </div>
</template>

<style scoped src="./frame.css"></style>
