<script setup lang="ts">
import type { LinksAnswer, NewLinkAnswer } from '@core/workshop/owner-door/answers.js';
import type { OwnerLinkRow } from '@core/workshop/owner-door/link.js';
import { say } from '@core/base/words/say.js';
import QRCode from 'qrcode';
import { computed, ref } from 'vue';
import { call, get } from '../../base/http/api.js';
import { usePage } from '../../base/http/usePage.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';
import { usePublicAddress } from '../people/publicAddress.js';
import { useSession } from '../people/sessionStore.js';

/** Addresses under which the owner sees this machine. A new one is shown once, to be handed over or scanned at the counter. */
const props = defineProps<{ systemId: string }>();
const dates = useDates();
const session = useSession();
const notices = useNotices();
const submit = useSubmit();
const address = usePublicAddress();
const { data: answer, take } = usePage(
  (signal) => get<LinksAnswer>(`/systems/${props.systemId}/links`, signal),
  () => props.systemId,
);
const fresh = ref<{ address: string; code: string } | null>(null);
const now = computed(() => new Date().toISOString());
const isOpen = ({ endedAt, expiresAt }: OwnerLinkRow): boolean => endedAt === null && expiresAt > now.value;
const open = computed(() => answer.value?.links.filter(isOpen) ?? []);

async function make(): Promise<void> {
  const made = await submit.run((idempotencyKey) =>
    call<NewLinkAnswer>('POST', `/systems/${props.systemId}/links`, { body: { jobId: null }, idempotencyKey }),
  );
  if (!made) return;
  const svg = await QRCode.toString(made.address, { type: 'svg', margin: 1 });
  fresh.value = { address: made.address, code: `data:image/svg+xml;utf8,${encodeURIComponent(svg)}` };
  take(made);
}
async function end(id: string | null): Promise<void> {
  const after = await submit.run(() =>
    call<LinksAnswer>('DELETE', id === null ? `/systems/${props.systemId}/links` : `/owner-links/${id}`),
  );
  if (!after) return;
  take(after);
  notices.say(id === null ? say('No link of this machine opens anything any more.') : say('That link opens nothing any more.'));
}
const copy = (): void => {
  if (fresh.value) void navigator.clipboard.writeText(fresh.value.address).then(() => notices.say(say('Copied.')));
};
</script>

<template>
  <section v-if="answer && session.account?.doorOpen" class="links no-print">
    <h2>Owner’s page</h2>
    <p class="quiet">
      {{
        open.length === 0
          ? 'No link is open. Letters carry one; here is made one to hand over.'
          : 'Whoever has a link sees where this machine stands, and can answer.'
      }}
    </p>
    <div v-if="fresh" class="fresh">
      <img :src="fresh.code" alt="Code that opens the owner’s page" />
      <div>
        <p class="address">{{ fresh.address }}</p>
        <p class="quiet">Shown this once. {{ address.caveat.value ?? '' }}</p>
        <v-btn variant="outlined" @click="copy">Copy</v-btn>
      </div>
    </div>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <v-btn v-if="session.may('desk')" variant="outlined" :loading="submit.busy.value" @click="make">Make a link</v-btn>
    <details v-if="answer.links.length">
      <summary>{{ open.length }} open, {{ answer.links.length - open.length }} ended</summary>
      <ul class="plain-list">
        <li v-for="each in answer.links" :key="each.id">
          <span class="figures">{{ dates.day(each.madeAt) }}</span>
          <span>
            {{ each.by ?? 'by letter' }}
            <span class="quiet">{{ each.seenAt ? `opened ${dates.dayAndTime(each.seenAt)}` : 'not opened yet' }}</span>
          </span>
          <span v-if="!isOpen(each)" class="quiet">ended</span>
          <button
            v-else-if="session.may('desk')"
            type="button"
            class="link"
            :aria-label="`End the link of ${dates.day(each.madeAt)}`"
            @click="end(each.id)"
          >
            End it
          </button>
        </li>
      </ul>
      <button v-if="open.length > 1 && session.may('desk')" type="button" class="link" @click="end(null)">End all {{ open.length }}</button>
    </details>
  </section>
</template>

<style scoped>
.links {
  display: grid;
  gap: 8px;
  justify-items: start;
}
p {
  margin: 0;
}
.fresh {
  display: grid;
  grid-template-columns: 132px 1fr;
  gap: 14px;
  border: 2px solid var(--ink);
  padding: 10px;
  width: 100%;
}
.fresh img {
  width: 132px;
  background: #fff;
}
.address {
  font-family: var(--mono);
  font-size: 0.9rem;
  overflow-wrap: anywhere;
}
details {
  width: 100%;
}
summary {
  cursor: pointer;
  min-height: 40px;
}
li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 14px;
  border-top: 1px solid var(--line-soft);
  padding: 6px 0;
  align-items: center;
}
li .quiet {
  display: block;
}
</style>
