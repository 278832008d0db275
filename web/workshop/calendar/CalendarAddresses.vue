<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { capital, say } from '@core/base/words/say.js';
import { useSession } from '../people/sessionStore.js';
import { usePublicAddress } from '../people/publicAddress.js';
import { call, get, wordsOf } from '../../base/http/api.js';

/** Calendar addresses that nobody can guess. A new one ends the old one; it is shown once. */
const props = defineProps<{ people: readonly { id: string; name: string }[] }>();
const feeds = ref<{ personId: string | null }[]>([]);
const address = usePublicAddress();
const shown = ref<{ personId: string | null; url: string } | null>(null);
const problem = ref<string | null>(null);

async function load(): Promise<void> {
  feeds.value = (await get<{ feeds: { personId: string | null }[] }>('/calendars').catch(() => ({ feeds: [] }))).feeds;
}
onMounted(load);
async function make(personId: string | null): Promise<void> {
  try {
    const { path } = await call<{ path: string }>('POST', '/calendars', { body: { personId }, idempotencyKey: crypto.randomUUID() });
    shown.value = { personId, url: `${address.origin.value}${path}` };
    problem.value = null;
    await load();
  } catch (error) {
    problem.value = wordsOf(error);
  }
}
const has = (personId: string | null): boolean => feeds.value.some((feed) => feed.personId === personId);
const session = useSession();
/** one's own; the lead makes the workshop's and everybody's */
const rows = (): { id: string | null; name: string }[] =>
  session.account?.role === 'lead'
    ? [{ id: null, name: say('the whole workshop') }, ...props.people]
    : props.people.filter(({ id }) => id === session.account?.personId);
async function end(personId: string | null): Promise<void> {
  try {
    await call('DELETE', `/calendars/${personId ?? 'workshop'}`);
    if (shown.value?.personId === personId) shown.value = null;
    problem.value = null;
    await load();
  } catch (error) {
    problem.value = wordsOf(error);
  }
}
</script>

<template>
  <section>
    <h2>Calendar addresses</h2>
    <p class="quiet">
      A calendar program that knows the address shows the plan, read only. Whoever has it can read it: give it to nobody else.
    </p>
    <ul class="plain-list">
      <li v-for="row in rows()" :key="row.id ?? 'workshop'">
        <span>{{ capital(row.name) }}</span>
        <span class="acts">
          <button
            type="button"
            class="link"
            :aria-label="has(row.id) ? `A new address for ${row.name}; the old one ends` : `Make an address for ${row.name}`"
            @click="make(row.id)"
          >
            {{ has(row.id) ? 'a new address; the old one ends' : 'make an address' }}
          </button>
          <button v-if="has(row.id)" type="button" class="link" :aria-label="`Switch off the calendar of ${row.name}`" @click="end(row.id)">
            switch it off
          </button>
        </span>
        <code v-if="shown && shown.personId === row.id">{{ shown.url }}</code>
      </li>
    </ul>
    <p v-if="shown && address.caveat.value" class="quiet">{{ address.caveat.value }}</p>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 16px;
  min-height: 44px;
  align-items: center;
  border-top: 1px solid var(--line-soft);
}
.acts {
  display: flex;
  gap: 18px;
}
.link {
  min-height: 32px;
  text-decoration: underline;
}
code {
  grid-column: 1 / -1;
  font-family: var(--mono);
  overflow-wrap: anywhere;
}
p {
  margin: 0;
}
</style>
