<script setup lang="ts">
import KeyCap from '../../base/keys/KeyCap.vue';
import { describeEntry, type RunEvent } from '@core/bench/runs/log.js';
import { computed, ref } from 'vue';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import type { EntryItem } from '../../base/outbox/items.js';
import { useDates } from '../../base/units/dates.js';

/** The log, newest first. What the server does not have yet says so. */
const props = withDefaults(
  defineProps<{
    procedure: Procedure;
    state: RunState;
    events: readonly RunEvent[];
    waiting: number;
    keeping?: ReadonlySet<string>;
    away?: boolean;
    refused?: readonly EntryItem[];
  }>(),
  { keeping: () => new Set<string>(), away: false, refused: () => [] },
);
const emit = defineEmits<{ undo: []; note: [text: string]; dismiss: [id: string] }>();
const wordsOf = (entry: EntryItem): string => describeEntry(props.procedure, { ...entry, seq: 0, by: '' }, props.events);
const dates = useDates();
const all = ref(false);
const SHORT = 7;
const entries = computed(() => {
  const newest = [...props.events].reverse();
  return (all.value ? newest : newest.slice(0, SHORT)).map((event) => ({
    event,
    text: describeEntry(props.procedure, event, props.events),
    back: props.state.withdrawn.has(event.id),
    unsaved: event.seq > props.events.length - props.waiting,
    keeping: props.keeping.has(event.id),
  }));
});
</script>

<template>
  <section class="log">
    <header class="spread">
      <h2>Log</h2>
      <v-btn size="small" variant="outlined" :disabled="events.length === 0" @click="emit('undo')"
        >Take back the last <KeyCap action="undo"
      /></v-btn>
    </header>
    <p v-if="keeping.size > 0" role="status" class="waiting">Being written to this device.</p>
    <p v-else-if="waiting > 0" role="status" class="waiting">
      {{ waiting }} {{ waiting === 1 ? 'entry is' : 'entries are' }} on this device only;
      {{ away ? 'they go when the server is back.' : 'sending.' }}
    </p>
    <p v-else-if="away" role="status" class="waiting">The server cannot be reached. The run goes on; entries wait on this device.</p>
    <div v-for="entry in refused" :key="entry.id" class="waiting" role="alert">
      <p>
        Not taken: <b>{{ wordsOf(entry) }}</b> <span class="quiet">{{ entry.why }}</span>
      </p>
      <div class="row">
        <v-btn
          size="small"
          variant="outlined"
          @click="
            emit('note', `${wordsOf(entry)} (not taken: ${entry.why})`);
            emit('dismiss', entry.id);
          "
          >Keep as a note</v-btn
        >
        <v-btn size="small" variant="text" @click="emit('dismiss', entry.id)">Read</v-btn>
      </div>
    </div>
    <ol class="plain-list" reversed>
      <li
        v-for="{ event, text, back, unsaved, keeping: unkept } in entries"
        :key="event.id"
        :data-entry="event.id"
        :class="{ back, unsaved, keeping: unkept }"
      >
        <time :datetime="event.at" class="quiet">{{ dates.time(event.at) }}</time><span
          ><a v-if="event.body.type === 'photo'" :href="`/api/photos/${event.body.photoId}`" target="_blank" rel="noopener">{{ text }}</a
          ><template v-else>{{ text }}</template
          ><span v-if="event.deliveredBy" class="quiet">, made by {{ event.by }}, delivered by {{ event.deliveredBy }}</span></span
        >
      </li>
    </ol>
    <button v-if="events.length > SHORT" type="button" class="more" @click="all = !all">
      {{ all ? 'Only the newest' : `All ${events.length} entries` }}
    </button>
    <p v-if="events.length === 0" class="quiet">Nothing yet. Every tick, reading and note lands here with its time and name.</p>
  </section>
</template>

<style scoped>
.log {
  font-size: 0.94rem;
}
li {
  display: grid;
  grid-template-columns: minmax(48px, max-content) 1fr;
  gap: 10px;
  padding: 5px 0;
  border-top: 1px solid var(--line-soft);
}
.back span {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.unsaved span::after {
  content: ' (not saved yet)';
  color: var(--ink-soft);
}
.waiting {
  border-left: 4px solid var(--ink);
  padding-left: 10px;
}
.more {
  text-decoration: underline;
  min-height: 40px;
}
header {
  margin-bottom: 6px;
}
time {
  white-space: nowrap;
}
</style>
