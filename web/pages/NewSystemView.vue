<script setup lang="ts">
import type { Owner, SystemRow } from '@core/workshop/machines/answers.js';
import { say } from '@core/base/words/say.js';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { call, get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useSubmit } from '../base/http/useSubmit.js';
import OwnerFields from '../workshop/machines/OwnerFields.vue';
import { ownerInput, emptyOwner, emptySystem, systemInput } from '../workshop/machines/forms.js';
import { useSession } from '../workshop/people/sessionStore.js';
import SystemFields from '../workshop/machines/SystemFields.vue';

const router = useRouter();
/** who may not enter an owner enters machines of those who are known */
const mayOwners = useSession().may('desk');
const hint = mayOwners ? say('Leave empty for a new owner') : say('A new owner is the desk’s and the lead’s to enter');
const submit = useSubmit();
const ownerSubmit = useSubmit();
/** what was typed to find an owner who is known */
const looked = ref('');
const {
  data: owners,
  problem,
  take,
} = usePage(
  (signal) =>
    get<{ owners: Owner[] }>(`/owners?${new URLSearchParams({ q: looked.value.trim() })}`, signal).then((answer) => answer.owners),
  looked,
);
const known = ref<string | null>(null);
const owner = ref(emptyOwner());
const system = ref(emptySystem());

/** The owner is saved first; if the machine is refused afterwards, the owner stays chosen and is not made twice. */
async function save(): Promise<void> {
  if (known.value === null) {
    const made = await ownerSubmit.run((idempotencyKey) =>
      call<Owner>('POST', '/owners', { body: ownerInput(owner.value), idempotencyKey }),
    );
    if (!made) return;
    take([...(owners.value ?? []), made]);
    known.value = made.id;
  }
  const ownerId = known.value;
  const made = await submit.run((idempotencyKey) =>
    call<SystemRow>('POST', '/systems', { body: systemInput(system.value, ownerId), idempotencyKey }),
  );
  if (made) await router.replace(`/systems/${made.id}/loops/new`);
}
</script>

<template>
  <main class="page">
    <h1>New machine</h1>
    <form class="two mt-6" novalidate @submit.prevent="save">
      <section class="stack">
        <h2>Whose machine is it?</h2>
        <v-autocomplete
          v-model="known"
          :items="owners ?? []"
          :item-props="({ phone, email }: Owner) => ({ subtitle: phone ?? email ?? '' })"
          no-filter
          item-title="name"
          item-value="id"
          label="A known owner"
          clearable
          :hint="hint"
          persistent-hint
          no-data-text="Nobody is called so"
          @update:search="(text: string) => (looked = text)"
        />
        <p v-if="problem" role="alert" class="danger">Known owners cannot be shown: {{ problem }}</p>
        <OwnerFields v-if="known === null && mayOwners" v-model="owner" :at="ownerSubmit.at" />
        <p v-if="ownerSubmit.problem.value" role="alert" class="danger">{{ ownerSubmit.problem.value }}</p>
      </section>
      <section class="stack">
        <h2>The machine</h2>
        <SystemFields v-model="system" :at="submit.at" />
        <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        <v-btn type="submit" size="x-large" :loading="submit.busy.value || ownerSubmit.busy.value" :disabled="known === null && !mayOwners"
          >Save and lay out its loop</v-btn
        >
      </section>
    </form>
  </main>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 48px;
  align-items: start;
  max-width: 1080px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
    gap: 28px;
  }
}
</style>
