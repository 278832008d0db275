<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { BOARD, fedBy, SUPPLY } from '@core/machine/electrical/sheet.js';
import type { ConnectorsAnswer } from '@core/workshop/machines/answers.js';
import { computed } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import ConnectorRow from '../machine/electrical/ConnectorRow.vue';
import IsolationList from '../machine/electrical/IsolationList.vue';
import SourceRail from '../machine/electrical/SourceRail.vue';
import { useSheet } from '../machine/electrical/useSheet.js';
import { useSession } from '../workshop/people/sessionStore.js';

/** What hangs on what in one machine, by name: the list that is pulled at the bench comes from it. */
const props = defineProps<{ id: string }>();
const session = useSession();
const page = usePage(
  (signal) => get<ConnectorsAnswer>(`/systems/${props.id}/connectors`, signal),
  () => props.id,
);
const { data, problem } = page;
const own = useSheet(page);
const { sheet, isChanged, touched, submit, hubs, sources, pumps, radiators } = own;
const mayEdit = computed(() => session.may('machines'));
const rails = computed(() => {
  const { value: now } = sheet;
  if (!now) return [];
  return [
    { id: SUPPLY, title: say('Supply'), beside: say('off at the back before anything is pulled') },
    { id: BOARD, title: say('Board'), beside: say('dead once its main connector is pulled') },
    ...hubs.value.map(({ id, name }) => ({ id, title: name, beside: say('hub or controller') })),
  ].map((rail) => ({ ...rail, connectors: fedBy(now, rail.id) }));
});
</script>

<template>
  <main class="page">
    <div v-if="problem" class="stack">
      <h1>These connectors cannot be shown</h1>
      <p role="alert">{{ problem }}</p>
    </div>
    <template v-else-if="data">
      <header class="spread">
        <div>
          <h1>Connectors</h1>
          <p class="quiet">
            <router-link :to="`/systems/${id}`">{{ data.systemName }}</router-link>
          </p>
        </div>
        <v-btn v-if="sheet && mayEdit" size="large" :disabled="!isChanged" :loading="submit.busy.value" @click="own.keep"
          >Write it down</v-btn
        >
      </header>
      <p v-if="submit.problem.value" role="alert" class="danger">
        {{ submit.problem.value }}
        <button v-if="submit.stale.value" type="button" class="link" @click="own.readTheirs">Show theirs</button>
      </p>
      <section v-if="!sheet" class="sheet empty">
        <h2>Nobody wrote them down yet</h2>
        <p>
          Until then the bench pulls what any machine has: board, cards, drives. With the sheet it pulls this machine’s own, by name, knows
          the pump that hangs on the board, asks after what was never connected, and doubts leads of another supply.
        </p>
        <v-btn v-if="mayEdit" size="large" @click="own.begin">Begin with what is usual</v-btn>
      </section>
      <div v-else class="columns">
        <div>
          <SourceRail
            v-for="rail in rails"
            :key="rail.id"
            :title="rail.title"
            :beside="rail.beside"
            :connectors="rail.connectors"
            @add="own.add(rail.id)"
          >
            <template v-if="rail.id === 'supply'" #head>
              <input
                class="supply"
                :value="sheet.supply"
                placeholder="which one"
                aria-label="Name of the supply"
                maxlength="120"
                @input="sheet = { ...sheet, supply: ($event.target as HTMLInputElement).value }"
              />
            </template>
            <template #default="{ connector }">
              <ConnectorRow
                :model-value="connector"
                :sources="sources.filter(({ value }) => value !== connector.id)"
                :pumps="pumps"
                :radiators="radiators"
                :open="touched === connector.id"
                @update:model-value="own.change"
                @touch="touched = touched === connector.id ? null : connector.id"
                @remove="own.remove(connector)"
              />
            </template>
          </SourceRail>
        </div>
        <aside class="stack">
          <IsolationList v-for="loop in data.loops" :key="loop.id" :sheet="sheet" :loop="loop" :several="data.loops.length > 1" />
        </aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(280px, 1fr);
  gap: 44px;
  margin-top: 20px;
}
.empty {
  max-width: 720px;
  padding: 18px 22px;
  margin-top: 20px;
}
.supply {
  background: none;
  color: inherit;
  border-bottom: 1px solid var(--on-slab-soft);
  min-height: 32px;
  min-width: 16ch;
}
.supply::placeholder {
  color: var(--on-slab-soft);
}
p {
  margin: 4px 0 12px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
  .columns aside {
    order: -1;
  }
}
</style>
