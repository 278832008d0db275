<script setup lang="ts">
import { onMounted, ref } from 'vue';
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
const rows = (): { id: string | null; name: string }[] => [{ id: null, name: 'The whole workshop' }, ...props.people];
</script>

<template>
  <section>
    <h2>Calendar addresses</h2>
    <p class="quiet">
      A calendar program that knows the address shows the plan, read only. Whoever has it can read it: give it to nobody else.
    </p>
    <ul class="plain-list">
      <li v-for="row in rows()" :key="row.id ?? 'workshop'">
        <span>{{ row.name }}</span>
        <button type="button" class="link" @click="make(row.id)">
          {{ has(row.id) ? 'a new address; the old one ends' : 'make an address' }}
        </button>
        <code v-if="shown && shown.personId === row.id">{{ shown.url }}</code>
      </li>
    </ul>
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
.link {
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
