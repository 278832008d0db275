<script setup lang="ts">
import type { WasteContainer, WasteEntryRow } from '@core/workshop/store/answers.js';
import { WASTE_KINDS } from '@core/workshop/store/schema.js';
import { formatMl } from '@core/base/units/display.js';
import { capital, sayWord } from '@core/base/words/say.js';
import { computed } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useDates } from '../base/units/dates.js';
import { useSession } from '../workshop/people/sessionStore.js';

/** The paper that goes with a waste container: what is in it and from where, who hands it over, who takes it. */
const props = defineProps<{ id: string }>();
const dates = useDates();
const session = useSession();
const { data: paper, problem } = usePage(
  (signal) => get<{ container: WasteContainer; entries: WasteEntryRow[] }>(`/waste/${props.id}`, signal),
  () => props.id,
);
const contact = computed(() => session.account?.contact);
const print = (): void => window.print();
const BLANK = '______________________';
</script>

<template>
  <main class="page">
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <template v-else-if="paper">
      <header class="spread no-print">
        <h1>Hand-over of {{ paper.container.label }}</h1>
        <div class="row">
          <v-btn size="large" @click="print">Print</v-btn>
          <v-btn variant="outlined" size="large" :href="`/api/waste/${id}/paper.pdf`">As a PDF</v-btn>
          <v-btn variant="text" size="large" to="/store">Back to the store</v-btn>
        </div>
      </header>
      <article class="paper">
        <h2>Hand-over of waste</h2>
        <dl>
          <dt>From</dt>
          <dd>{{ [session.account?.workshopName, contact?.address, contact?.phone].filter(Boolean).join(' · ') }}</dd>
          <dt>Container</dt>
          <dd>{{ paper.container.label }}, holds {{ formatMl(paper.container.capacityMl) }}</dd>
          <dt>What</dt>
          <dd>{{ capital(sayWord(WASTE_KINDS[paper.container.kind])) }} out of liquid-cooling loops</dd>
          <dt>How much</dt>
          <dd class="figures">{{ formatMl(paper.container.levelMl) }}, as {{ paper.entries.length }} entries were poured in</dd>
          <dt>Waste code</dt>
          <dd>{{ paper.container.wasteCode || BLANK }} <small>by the list that holds here</small></dd>
          <dt>To</dt>
          <dd>{{ paper.container.handedTo || BLANK }}</dd>
          <dt>Carried by</dt>
          <dd>{{ paper.container.carrier || (paper.container.state === 'handed-over' ? 'the workshop itself' : BLANK) }}</dd>
          <dt>On</dt>
          <dd>{{ paper.container.handedOn ? dates.day(paper.container.handedOn) : BLANK }}</dd>
          <dt>Their paper</dt>
          <dd>{{ paper.container.documentNumber || BLANK }}</dd>
        </dl>
        <table>
          <caption>
            What went in
          </caption>
          <thead>
            <tr>
              <th scope="col">On</th>
              <th scope="col">Volume</th>
              <th scope="col">From</th>
            </tr>
          </thead>
          <tbody class="figures">
            <tr v-for="entry in paper.entries" :key="entry.id">
              <td>{{ dates.day(entry.at) }}</td>
              <td>{{ formatMl(entry.volumeMl) }}</td>
              <td>{{ entry.systemName ?? entry.note }}</td>
            </tr>
          </tbody>
        </table>
        <p class="sign">Handed over {{ BLANK }} Taken {{ BLANK }}</p>
        <p>
          <small
            >Safety data sheets of the coolants go with it. Local rules and the collection point’s own papers come first; this is no legal
            statement.</small
          >
        </p>
      </article>
    </template>
  </main>
</template>

<style scoped>
.paper {
  background: #fff;
  color: #111;
  border: 2px solid #111;
  padding: 28px 34px;
  max-width: 190mm;
  margin-top: 16px;
}
dl {
  display: grid;
  grid-template-columns: 8em 1fr;
  gap: 6px 18px;
  margin: 14px 0 22px;
}
dt {
  color: #444;
}
dd {
  margin: 0;
}
table {
  width: 100%;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 600;
}
th,
td {
  text-align: left;
  border-top: 1px solid #bbb;
  padding: 3px 8px 3px 0;
}
.sign {
  padding-top: 34px;
}
@media print {
  .paper {
    border: 0;
    padding: 0;
    max-width: none;
  }
}
</style>
