<script setup lang="ts">
import { ref } from 'vue';
import { say } from '@core/base/words/say.js';
import { reachWords } from '@core/edge/words/reach.js';
import { earlyWords } from '@core/edge/words/lives.js';
import type { EarlyLot, LivesAnswer, LotHolder } from '@core/workshop/learned-lives/answers.js';
import { call, wordsOf } from '../../base/http/api.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import { useSession } from '../people/sessionStore.js';

/** Lots that fail earlier than all others of their kind: which machines hold them, whose owners know. */
defineProps<{ lots: readonly EarlyLot[] }>();
const emit = defineEmits<{ changed: [lives: LivesAnswer] }>();
const dates = useDates();
const notices = useNotices();
const session = useSession();
const busy = ref(false);

const unwritten = ({ holders, told }: EarlyLot): LotHolder[] =>
  holders.filter(({ email, systemId }) => email !== null && !told.includes(systemId));
const ownersWords = (lot: EarlyLot): string =>
  say('{owners, plural, one {Write to its owner} other {Write to # owners}}', { owners: unwritten(lot).length });

async function act(work: () => Promise<LivesAnswer>): Promise<void> {
  busy.value = true;
  try {
    emit('changed', await work());
  } catch (error) {
    notices.say(wordsOf(error));
  } finally {
    busy.value = false;
  }
}
const write = ({ id }: EarlyLot): Promise<void> =>
  act(async () => {
    const { lives, written } = await call<{ lives: LivesAnswer; written: number }>('POST', `/early-lots/${id}/letters`, { body: {} });
    notices.say(say('{written, plural, one {# letter waits} other {# letters wait}} to be sent.', { written }));
    return lives;
  });
const tell = ({ id }: EarlyLot, { systemId }: LotHolder, told: boolean): Promise<void> =>
  act(() => call<LivesAnswer>('PUT', `/early-lots/${id}/told`, { body: { systemId, told } }));
</script>

<template>
  <section v-for="lot in lots" :key="lot.id" class="early" :aria-label="lot.what">
    <header class="spread">
      <div>
        <h3>{{ lot.what }} fails earlier than others</h3>
        <p class="figures">{{ earlyWords(lot) }}</p>
        <p class="quiet">
          Seen first on {{ dates.day(lot.seenOn) }}. More often than chance: no verdict on its maker. Water, cleaner and hands of those days
          may be it as well.
        </p>
      </div>
      <v-btn v-if="unwritten(lot).length && session.may('desk')" :loading="busy" @click="write(lot)">{{ ownersWords(lot) }}</v-btn>
    </header>
    <p v-if="lot.holders.length === 0">No machine in use holds it now.</p>
    <ul v-else class="plain-list" :aria-label="`Machines that hold ${lot.what} now`">
      <li v-for="each in lot.holders" :key="each.systemId">
        <label>
          <input
            type="checkbox"
            :checked="lot.told.includes(each.systemId)"
            :disabled="busy || !session.may('desk')"
            :aria-label="`${each.ownerName} was told of ${each.systemName}`"
            @change="tell(lot, each, ($event.target as HTMLInputElement).checked)"
          />
          told
        </label>
        <router-link :to="`/systems/${each.systemId}`">{{ each.systemName }}</router-link>
        <span>{{ each.ownerName }}, {{ reachWords(each) }}</span>
        <span class="figures quiet">in it since {{ dates.day(each.since) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.early {
  border: 2px solid var(--ink);
  border-radius: 3px;
  padding: 14px 18px;
  display: grid;
  gap: 10px;
}
.early p {
  margin: 0;
  max-width: 66ch;
}
.early header {
  align-items: start;
}
li {
  display: grid;
  grid-template-columns: 86px minmax(0, 1fr) minmax(0, 1.4fr) auto;
  gap: 14px;
  align-items: center;
  min-height: 48px;
  border-top: 1px solid var(--line-soft);
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 48px;
}
input {
  width: 22px;
  height: 22px;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: 86px minmax(0, 1fr);
  }
}
</style>
