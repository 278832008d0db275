<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import type { Layout } from '@core/machine/layouts/schema.js';
import { STARTERS, type Starter } from '@core/machine/catalogue/starters.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { loopVolume } from '@core/machine/loop-file/volume.js';
import { formatMl } from '@core/base/units/display.js';
import { onMounted } from 'vue';
import { wordsOf } from '../../base/http/api.js';
import { useNotices } from '../../base/shell/notices.js';
import { useSession } from '../../workshop/people/sessionStore.js';
import LoopProfile from '../profile/LoopProfile.vue';
import { useLayouts } from './layoutStore.js';

/** How a loop begins: with a usual layout, with one of the workshop's own, in an empty case, or from the parts below. */
const emit = defineEmits<{ starter: [starter: Starter]; layout: [file: LoopFile, name: string]; draw: [] }>();
const layouts = useLayouts();
const notices = useNotices();
const session = useSession();
onMounted(() => void layouts.load().catch(() => undefined));
async function drop(layout: Layout): Promise<void> {
  try {
    await layouts.remove(layout);
    notices.say(say('{name} is no layout of yours any more.', { name: layout.name }), () => layouts.bringBack(layout));
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
</script>

<template>
  <section class="empty">
    <h2>Lay out the loop in the order the coolant will flow</h2>
    <p>Begin with a usual layout and change it, add parts one by one, or drop a loop file here.</p>
    <div class="row mt-4">
      <v-btn v-for="starter in STARTERS" :key="starter.key" size="large" variant="outlined" @click="emit('starter', starter)">{{
        starter.label
      }}</v-btn>
      <v-btn size="large" variant="text" @click="emit('draw')">Draw it in an empty case</v-btn>
    </div>
    <template v-if="layouts.layouts.length > 0">
      <h3>As this workshop builds</h3>
      <ul class="plain-list own">
        <li v-for="layout in layouts.layouts" :key="layout.id">
          <button type="button" class="take" @click="emit('layout', layout.file, layout.name)">
            <strong>{{ layout.name }}</strong>
            <span class="quiet figures">{{ layout.file.components.length }} parts, {{ formatMl(loopVolume(layout.file).volumeMl) }}</span>
            <LoopProfile :loop="layout.file" :filled="new Map()" :colour="null" :height="140" :label="layout.name" />
            <span v-if="layout.note" class="quiet">{{ layout.note }}</span>
          </button>
          <button
            v-if="session.may('machines')"
            type="button"
            class="link"
            :aria-label="`${layout.name} is no layout any more`"
            @click="drop(layout)"
          >
            not any more
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.empty {
  max-width: 900px;
  margin-top: 30px;
}
h3 {
  margin: 22px 0 8px;
}
.own {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 16px;
}
.take {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  width: 100%;
  padding: 10px 12px;
  text-align: left;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.take > :nth-child(n + 3) {
  grid-column: 1 / 3;
}
.link {
  text-decoration: underline;
  min-height: 44px;
}
</style>
