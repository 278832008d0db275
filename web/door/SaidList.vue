<script setup lang="ts">
import type { DoorSaid } from '@core/workshop/owner-door/answers.js';
import { formatDayTime } from '@core/base/units/dates.js';
import { saidWords } from '@core/edge/words/door.js';

/** What was sent from here, and what became of it. */
defineProps<{ said: readonly DoorSaid[]; timeZone: string }>();
</script>

<template>
  <section class="sheet" aria-labelledby="said">
    <h2 id="said">What you sent</h2>
    <ol class="said">
      <li v-for="each in said" :key="each.at">
        <small>{{ formatDayTime(each.at, timeZone) }}</small>
        <p>{{ saidWords(each.said, timeZone) }}</p>
        <p v-if="each.answer" class="answer">
          <strong>{{ each.answer.taken ? 'Taken' : 'Not taken' }}</strong> {{ each.answer.words }}
        </p>
        <!-- an agreement needs nobody to read it -->
        <p v-else class="note">{{ each.said.kind === 'agreed' ? 'it counts' : 'waits to be read' }}</p>
      </li>
    </ol>
  </section>
</template>
