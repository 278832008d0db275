<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import type { SignedInRow } from '@core/workshop/people/answers.js';
import { DEVICES } from '@core/workshop/people/roles.js';
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useDates } from '../../base/units/dates.js';
import { useSession } from './sessionStore.js';

/** Where somebody is signed in: each can be ended, a tablet that was left on a train first of all. */
const sessions = ref<SignedInRow[] | null>(null);
const submit = useSubmit();
const dates = useDates();
const session = useSession();
interface Answer {
  sessions: SignedInRow[];
}

onMounted(() => submit.run(async () => (sessions.value = (await get<Answer>('/signed-in')).sessions)));
const elsewhere = computed(
  () => (sessions.value ?? []).filter(({ own, personId }) => !own && personId === session.account?.personId).length,
);
const endOthers = (): Promise<unknown> => submit.run(async () => (sessions.value = (await call<Answer>('DELETE', '/signed-in')).sessions));
const end = (id: string): Promise<unknown> =>
  submit.run(async () => (sessions.value = (await call<Answer>('DELETE', `/signed-in/${id}`)).sessions));
</script>

<template>
  <section>
    <header class="spread">
      <h2>Signed in</h2>
      <v-btn v-if="elsewhere > 0" variant="outlined" :loading="submit.busy.value" @click="endOthers">Sign out everywhere else</v-btn>
    </header>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <ul v-if="sessions" class="plain-list lines">
      <li v-for="each in sessions" :key="each.id">
        <strong>{{ each.person }}</strong>
        <span>{{ each.own ? 'here' : each.device ? `on ${DEVICES[each.device]}` : 'somewhere' }}</span>
        <span class="quiet figures"
          >last used {{ dates.day(each.lastUsed) }}, {{ dates.time(each.lastUsed)
          }}<template v-if="each.since">; since {{ dates.day(each.since) }}</template></span
        >
        <button
          v-if="!each.own"
          type="button"
          class="link"
          :disabled="submit.busy.value"
          :aria-label="`Sign out: ${each.person}, ${each.device ? DEVICES[each.device] : 'somewhere'}, ${dates.day(each.lastUsed)}, ${dates.time(each.lastUsed)}`"
          @click="end(each.id)"
        >
          sign out
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.8fr) 84px;
  gap: 4px 16px;
  align-items: center;
  min-height: 44px;
  border-top: 1px solid var(--line-soft);
}
.link {
  text-decoration: underline;
  min-height: 44px;
  padding: 0 8px;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: 1fr auto;
  }
}
</style>
