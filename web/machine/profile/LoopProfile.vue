<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { contentsAtMark } from '@core/physics/live-book/atMark.js';
import { contentsOfShares } from '@core/physics/contents/shares.js';
import { pictureOfContents } from '@core/physics/draining/picture.js';
import { unrollUpright } from '@core/physics/profile/unroll.js';
import { LABEL_PX, type FrontMark, type PlaceDot } from '@core/physics/profile/drawing.js';
import LoopDrawing from './LoopDrawing.vue';

/**
 * A loop on its feet, as it is shown beside other things. `filled` gives for each part how much of it holds liquid;
 * without it the loop stands full.
 */
const props = withDefaults(
  defineProps<{
    loop: LoopFile;
    colour?: string | null;
    filled?: ReadonlyMap<string, number> | null;
    height?: number;
    bare?: boolean;
    selected?: string | null;
    label?: string;
    fronts?: readonly FrontMark[];
    dots?: readonly PlaceDot[];
    labelPx?: number;
  }>(),
  {
    colour: null,
    filled: null,
    height: 260,
    bare: false,
    selected: null,
    label: say('Loop profile: heights along the flow path'),
    fronts: () => [],
    dots: () => [],
    labelPx: LABEL_PX.usual,
  },
);
const emit = defineEmits<{ select: [id: string]; touch: [id: string] }>();

const standing = computed(() => unrollUpright(props.loop));
const picture = computed(() => {
  const { turned } = standing.value;
  const contents =
    props.filled === null ? contentsAtMark(props.loop, turned.network, null) : contentsOfShares(turned.network, props.filled);
  return pictureOfContents(turned, contents);
});
</script>

<template>
  <LoopDrawing
    :unrolled="standing.unrolled"
    :picture="picture"
    :colour="colour"
    :height="height"
    :bare="bare"
    :selected="selected"
    :fronts="fronts"
    :dots="dots"
    :label-px="labelPx"
    :label="label"
    @select="emit('select', $event)"
    @touch="emit('touch', $event)"
  />
</template>
