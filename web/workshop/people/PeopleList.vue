<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed, reactive, ref } from 'vue';
import type { PersonRow } from '@core/workshop/people/answers.js';
import { LEAST_PASSWORD_LENGTH, ROLES, type Role } from '@core/workshop/people/roles.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import PasswordField from './PasswordField.vue';
import { useSession } from './sessionStore.js';

/** Who works here: added, renamed, given another role or a new first password, let in or no longer. */
const props = defineProps<{ people: readonly PersonRow[]; isLead: boolean }>();
const emit = defineEmits<{ changed: [people: PersonRow[]] }>();
const session = useSession();
const notices = useNotices();
const submit = useSubmit();
const roles = Object.entries(ROLES).map(([value, title]) => ({ value, title: sayWord(title) }));
/** id of the person whose line is open, or `new` */
const open = ref<string | null>(null);
const form = reactive({ name: '', email: '', role: 'technician' as Role, password: '' });
const hint = say('At least {LEAST_PASSWORD_LENGTH} letters; it is changed at the first sign-in', { LEAST_PASSWORD_LENGTH });
const sorted = computed(() => [...props.people].sort((a, b) => Number(b.active) - Number(a.active) || a.name.localeCompare(b.name)));

function show(id: string | null): void {
  submit.clear();
  const person = props.people.find((each) => each.id === id);
  Object.assign(form, { name: person?.name ?? '', email: person?.email ?? '', role: person?.role ?? 'technician', password: '' });
  open.value = open.value === id ? null : id;
}
const take = (person: PersonRow): void => emit('changed', [...props.people.filter(({ id }) => id !== person.id), person]);

async function add(): Promise<void> {
  const made = await submit.run((idempotencyKey) => call<PersonRow>('POST', '/people', { body: { ...form }, idempotencyKey }));
  if (!made) return;
  take(made);
  show(null);
}

async function edit(
  { id, version, ...was }: PersonRow,
  change: Partial<Pick<PersonRow, 'name' | 'role' | 'active'>>,
): Promise<PersonRow | null> {
  const body = { name: was.name, role: was.role, active: was.active, ...change, version };
  const changed = await submit.run(() => call<PersonRow>('PUT', `/people/${id}`, { body }));
  if (!changed) return null;
  take(changed);
  if (id === session.account?.personId) await session.load();
  return changed;
}

async function save(person: PersonRow): Promise<void> {
  if (await edit(person, { name: form.name, role: form.role })) show(null);
}

async function letIn(person: PersonRow, active: boolean): Promise<void> {
  const changed = await edit(person, { active });
  if (!changed) return;
  show(null);
  notices.say(
    active
      ? say('{name} is let in again.', { name: person.name })
      : say('{name} is signed out everywhere, and no longer let in.', { name: person.name }),
    active ? undefined : () => edit(changed, { active: true }),
  );
}

async function givePassword(person: PersonRow): Promise<void> {
  const changed = await submit.run(() => call<PersonRow>('PUT', `/people/${person.id}/password`, { body: { password: form.password } }));
  if (!changed) return;
  show(null);
  notices.say(say('{name} signs in with the new password, and is asked for an own one.', { name: person.name }));
}
</script>

<template>
  <section>
    <header class="spread">
      <h2>People</h2>
      <v-btn v-if="isLead" variant="outlined" :aria-expanded="open === 'new'" @click="show('new')">{{
        open === 'new' ? 'Close' : 'New person'
      }}</v-btn>
    </header>
    <form v-if="open === 'new'" class="pair mt-3" novalidate @submit.prevent="add">
      <v-text-field v-model="form.name" label="Name" :error-messages="submit.at('name')" />
      <v-select v-model="form.role" :items="roles" label="Role" />
      <v-text-field v-model="form.email" label="E-mail" type="email" autocomplete="off" :error-messages="submit.at('email')" />
      <PasswordField
        v-model="form.password"
        label="First password"
        autocomplete="new-password"
        :hint="hint"
        :errors="submit.at('password')"
      />
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
      <v-btn type="submit" size="large" :loading="submit.busy.value">Add</v-btn>
    </form>
    <ul class="plain-list lines">
      <li v-for="person in sorted" :key="person.id" :class="{ away: !person.active }">
        <div class="line">
          <strong>{{ person.name }}</strong><span
            >{{ ROLES[person.role] }}<template v-if="!person.active">, no longer let in</template></span
          ><span class="quiet">{{ person.email }}</span>
          <button
            v-if="isLead"
            type="button"
            class="link"
            :aria-expanded="open === person.id"
            :aria-label="`${open === person.id ? 'Close' : 'Change'}: ${person.name}`"
            @click="show(person.id)"
          >
            {{ open === person.id ? 'close' : 'change' }}
          </button>
        </div>
        <div v-if="open === person.id" class="panel">
          <form class="pair" novalidate @submit.prevent="save(person)">
            <v-text-field v-model="form.name" label="Name" :error-messages="submit.at('name')" />
            <v-select v-model="form.role" :items="roles" label="Role" />
            <v-btn type="submit" size="large" :loading="submit.busy.value">Save</v-btn>
            <v-btn v-if="person.active" variant="text" size="large" :disabled="submit.busy.value" @click="letIn(person, false)"
              >No longer let in</v-btn
            >
            <v-btn v-else variant="text" size="large" :disabled="submit.busy.value" @click="letIn(person, true)">Let in again</v-btn>
          </form>
          <form
            v-if="person.active && person.id !== session.account?.personId"
            class="pair"
            novalidate
            @submit.prevent="givePassword(person)"
          >
            <PasswordField
              v-model="form.password"
              label="New first password"
              autocomplete="new-password"
              hint="For somebody who forgot: every device of this person is signed out"
              :errors="submit.at('password')"
            />
            <v-btn type="submit" size="large" variant="outlined" :disabled="form.password === ''" :loading="submit.busy.value"
              >Give it</v-btn
            >
          </form>
          <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.4fr) 76px;
  gap: 4px 16px;
  align-items: center;
  min-height: 44px;
}
.line > * {
  overflow-wrap: anywhere;
}
.lines > li {
  border-top: 1px solid var(--line-soft);
}
.away strong {
  font-weight: 420;
  text-decoration: line-through;
}
.panel {
  display: grid;
  gap: 12px;
  padding: 4px 0 16px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.pair > p {
  grid-column: 1 / -1;
  margin: 0;
}
.link {
  text-decoration: underline;
  min-height: 44px;
  padding: 0 8px;
}
@media (max-width: 700px) {
  .line {
    grid-template-columns: 1fr auto;
  }
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
