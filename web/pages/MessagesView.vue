<script setup lang="ts">
import type { MessagesAnswer } from '@core/workshop/messages/answers.js';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useDates } from '../base/units/dates.js';

const dates = useDates();
const { data: answer, problem, load } = usePage((signal) => get<MessagesAnswer>('/messages', signal));
const STATES = { waiting: 'waits to be sent', sent: 'sent', failed: 'could not be sent: call instead' };
</script>

<template>
  <main class="page">
    <header class="spread">
      <h1>Messages</h1>
      <v-btn variant="outlined" @click="load">Look again</v-btn>
    </header>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <div v-if="answer" class="columns">
      <section>
        <h2>To owners</h2>
        <p v-if="answer.messages.length === 0" class="quiet">
          Nothing yet. Every night those who like e-mail hear of services that come due; a message by hand is written on a machine’s page.
        </p>
        <details v-for="(each, index) in answer.messages" :key="each.id" :open="index === 0">
          <summary>
            <strong>{{ each.subject }}</strong>
            <span class="quiet figures"> {{ each.address }} · {{ dates.dayAndTime(each.sentAt ?? each.at) }}</span>
            <span :class="{ danger: each.state === 'failed' }"> {{ STATES[each.state] }}</span>
          </summary>
          <pre>{{ each.body }}</pre>
          <p class="quiet">
            <router-link :to="`/systems/${each.systemId}`">{{ each.systemName }}</router-link>, {{ each.by ?? 'written at night'
            }}<template v-if="each.problem">. {{ each.problem }}</template>
          </p>
        </details>
      </section>
      <section>
        <h2>Mail stand-in</h2>
        <p class="quiet">
          Without an outside mail server (SMTP_URL) messages go to a stand-in on this machine and stay here: nothing leaves the workshop.
        </p>
        <ul class="plain-list">
          <li v-for="each in answer.standIn" :key="each.id">
            {{ each.subject }}<br /><span class="quiet figures">{{ each.recipient }} · {{ dates.dayAndTime(each.at) }}</span>
            <details v-if="each.text">
              <summary>Read it</summary>
              <pre>{{ each.text }}</pre>
            </details>
          </li>
        </ul>
      </section>
    </div>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 44px;
  margin-top: 16px;
}
details {
  border-top: 1px solid var(--line-soft);
  padding: 8px 0;
}
summary {
  cursor: pointer;
  min-height: 40px;
}
pre {
  font: inherit;
  white-space: pre-wrap;
  border-left: 4px solid var(--line);
  padding-left: 14px;
  max-width: 70ch;
}
li {
  border-top: 1px solid var(--line-soft);
  padding: 8px 0;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
