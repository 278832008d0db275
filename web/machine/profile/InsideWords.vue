<script setup lang="ts">
import { formatMl, formatMlWithSd } from '@core/base/units/display.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';

/** What is inside a loop now, in a line, and who says so. */
defineProps<{ inside: InsideNow | null }>();
</script>

<template>
  <span v-if="inside">
    <template v-if="inside.by === 'never-filled'">never filled</template>
    <template v-else-if="inside.by === 'units'"
      >never filled<template v-if="inside.volume && inside.volume.volumeMl > 1"
        >; {{ formatMl(inside.volume.volumeMl) }} stayed in its pump when that was tested on its own</template
      ></template
    >
    <template v-else-if="inside.volume === null">what is inside: nobody knows</template>
    <template v-else-if="inside.by === 'book'"
      ><template v-if="inside.volume.volumeMl <= 1">empty, by the book</template
      ><template v-else>{{ formatMlWithSd(inside.volume.volumeMl, inside.volume.sdMl) }} inside, by the book</template></template
    >
    <span v-else class="estimate">about {{ formatMl(inside.volume.volumeMl) }} inside, if it stands at its mark</span>
  </span>
</template>
