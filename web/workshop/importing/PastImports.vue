<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { ref } from 'vue';
import type { PastImport, UndoneImport } from '@core/workshop/importing/answers.js';
import { call, get, wordsOf } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';

/** Tables that were brought before; each can be taken back as a whole. */
const emit = defineEmits<{ undone: [] }>();
const dates = useDates();
const notices = useNotices();
const { data, load } = usePage((signal) => get<{ imports: PastImport[] }>('/imports', signal));
const busy = ref<string | null>(null);
defineExpose({ load });

const many = (count: number, one: string, more: string): string[] => (count === 0 ? [] : [`${count} ${count === 1 ? one : more}`]);
const madeWords = ({ systems, owners, works, coolants }: PastImport['counts']): string =>
  [
    ...many(systems, 'machine', 'machines'),
    ...many(works, 'entry', 'entries'),
    ...many(owners, 'owner', 'owners'),
    ...many(coolants, 'coolant', 'coolants'),
  ].join(', ');

async function undo({ id }: PastImport): Promise<void> {
  busy.value = id;
  try {
    const { removed, kept } = await call<UndoneImport>('POST', `/imports/${id}/undo`, { body: {} });
    notices.say(
      kept.length === 0
        ? say('Taken back: {madeWords}.', { madeWords: madeWords(removed) || say('nothing was left of it') })
        : say('Taken back: {madeWords}. Worked with since, so they stay: {slice}{say}.', {
            madeWords: madeWords(removed) || 'nothing',
            slice: kept.slice(0, 5).join(', '),
            say: kept.length > 5 ? say(' and {length} more', { length: kept.length - 5 }) : '',
          }),
    );
    await load();
    emit('undone');
  } catch (error) {
    notices.say(wordsOf(error));
  } finally {
    busy.value = null;
  }
}
</script>

<template>
  <section v-if="data && data.imports.length > 0" class="past">
    <h2>Brought before</h2>
    <ul class="plain-list">
      <li v-for="each in data.imports" :key="each.id">
        <span
          ><strong>{{ each.fileName || (each.kind === 'machines' ? 'machines' : 'history') }}</strong
          ><br /><span class="quiet">{{ dates.day(each.at) }}, {{ each.by }}</span></span
        >
        <span class="figures">{{ madeWords(each.counts) }}</span>
        <span v-if="each.undoneAt" class="quiet">taken back {{ dates.day(each.undoneAt) }}</span>
        <v-btn v-else variant="outlined" :loading="busy === each.id" :aria-label="`Take back ${each.fileName}`" @click="undo(each)"
          >Take back</v-btn
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.past {
  margin-top: 34px;
}
.past li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
}
@media (max-width: 600px) {
  .past li {
    grid-template-columns: 1fr;
    gap: 4px;
    justify-items: start;
  }
}
</style>
