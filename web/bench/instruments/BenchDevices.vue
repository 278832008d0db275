<script setup lang="ts">
import { say, midSentence, sayWord } from '@core/base/words/say.js';
import type { AccessAnswer, InstrumentsAnswer } from '@core/bench/instruments/answers.js';
import { computed, onMounted, ref } from 'vue';
import { INSTRUMENT_KINDS } from '@core/bench/instruments/kinds.js';
import { call, get, wordsOf } from '../../base/http/api.js';
import { usePush } from '../../base/push/usePush.js';

/** Benches with their instruments: who is connected, what went wrong, and the secret that a device signs in with. */
const props = defineProps<{ isLead: boolean }>();
const answer = ref<InstrumentsAnswer | null>(null);
const problem = ref<string | null>(null);
/** shown once, until the page is left */
const fresh = ref<(AccessAnswer & { readonly benchId: string }) | null>(null);

async function load(): Promise<void> {
  try {
    answer.value = await get<InstrumentsAnswer>('/instruments');
    problem.value = null;
  } catch (error) {
    problem.value = wordsOf(error);
  }
}
onMounted(load);
usePush({ instruments: () => void load(), resync: () => void load() });
defineExpose({ load });

async function renew(benchId: string): Promise<void> {
  problem.value = null;
  try {
    fresh.value = {
      benchId,
      ...(await call<AccessAnswer>('POST', `/benches/${benchId}/access`, { body: {} })),
    };
    await load();
  } catch (error) {
    problem.value = wordsOf(error);
  }
}

const where = computed(() => {
  const broker = answer.value?.broker;
  if (!broker) return '';
  if (broker.url === null) return say('No broker is reached at the moment; hand entry goes on.');
  if (!broker.embedded) return say('Devices connect to the broker at {url} (MQTT).', { url: broker.url });
  return broker.others.length === 0
    ? say('Devices connect to {url} (MQTT).', { url: broker.url })
    : say('Devices connect to {url} (MQTT); when that one goes, to {others}.', { url: broker.url, others: broker.others.join(', ') });
});
</script>

<template>
  <div>
    <p class="quiet">{{ where }} Topics and payloads stand in the documentation, under instruments.</p>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <ul v-if="answer" class="plain-list benches">
      <li v-for="bench in answer.benches.filter(({ forPractice }) => !forPractice)" :key="bench.id">
        <div class="spread">
          <strong>{{ bench.name }}</strong>
          <v-btn
            v-if="props.isLead"
            variant="outlined"
            :aria-label="bench.hasAccess ? `New secret for its devices: ${bench.name}` : `Connect devices: ${bench.name}`"
            @click="renew(bench.id)"
            >{{ bench.hasAccess ? 'New secret for its devices' : 'Connect devices' }}</v-btn
          >
        </div>
        <p v-if="bench.instruments.length === 0" class="quiet">Nothing connected: readings are typed.</p>
        <p v-else class="kinds">
          <span v-for="each in bench.instruments" :key="each.kind" :class="{ off: !each.online }"
            >{{ midSentence(sayWord(INSTRUMENT_KINDS[each.kind].label)) }}{{ each.online ? '' : ', off line'
            }}{{ each.simulated ? ', simulated' : '' }}</span
          >
        </p>
        <p v-for="each in bench.instruments.filter((one) => one.problem)" :key="`${each.kind}!`" role="alert" class="danger">
          {{ INSTRUMENT_KINDS[each.kind].label }}: {{ each.problem }}
        </p>
        <dl v-if="fresh?.benchId === bench.id" class="secret">
          <dt>Name</dt>
          <dd>{{ fresh.name }}</dd>
          <dt>Secret</dt>
          <dd>{{ fresh.secret }}</dd>
          <template v-if="fresh.url !== null">
            <dt>Brokers</dt>
            <dd>
              <div v-for="url in [fresh.url, ...fresh.others]" :key="url">{{ url }}</div>
            </dd>
          </template>
          <dt>Topics</dt>
          <dd>lavacrum/{{ fresh.name.replace('.', '/') }}/…</dd>
          <dd v-if="fresh.others.length > 0" class="quiet wide">
            Give a device all of these brokers: it goes to the next when one is gone.
          </dd>
          <dd class="quiet wide">Shown once. The secret before it no longer works.</dd>
        </dl>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.benches li {
  padding: 10px 0;
  border-top: 1px solid var(--line-soft);
}
p {
  margin: 2px 0 6px;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.off {
  color: var(--ink-soft);
  text-decoration: line-through;
}
.secret {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 14px;
  padding: 10px 14px;
  background: var(--sheet);
  border-left: 4px solid var(--ink);
  overflow-wrap: anywhere;
}
.secret dd {
  margin: 0;
  font-family: 'Atkinson Hyperlegible Mono Variable', monospace;
}
.secret .wide {
  grid-column: 1 / -1;
  font-family: inherit;
}
</style>
