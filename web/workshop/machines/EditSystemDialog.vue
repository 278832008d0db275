<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { isInRun } from '@core/workshop/due-dates/attention.js';
import type { Owner, SystemRow } from '@core/workshop/machines/answers.js';
import { ref, watch } from 'vue';
import { asOwnersWay } from '@core/workshop/people/ownersReading.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import StaleNotice from '../../base/shell/StaleNotice.vue';
import OwnerFields, { type OwnerForm } from './OwnerFields.vue';
import { ownerInput, systemInput } from './forms.js';
import SystemFields, { type SystemForm } from './SystemFields.vue';
import DialogFocus from '../../base/look/DialogFocus.vue';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ system: SystemRow; owner: Owner }>();
const emit = defineEmits<{ saved: [] }>();

const systemSubmit = useSubmit();
const ownerSubmit = useSubmit();
const system = ref<SystemForm>({ ...props.system });
const owner = ref<OwnerForm>(ownerForm(props.owner));
const versions = ref({ system: props.system.version, owner: props.owner.version });
const retired = ref(props.system.state === 'retired');

function ownerForm(from: Owner): OwnerForm {
  const { name, email, phone, channel, note, policy, reading } = from;
  return { name, email: email ?? '', phone: phone ?? '', channel, ...asOwnersWay(reading), note, policy };
}

watch(
  open,
  (now) => {
    if (!now) return;
    system.value = { ...props.system };
    owner.value = ownerForm(props.owner);
    versions.value = { system: props.system.version, owner: props.owner.version };
    retired.value = props.system.state === 'retired';
    systemSubmit.clear();
    ownerSubmit.clear();
  },
  { immediate: true },
);

const nextState = (): SystemRow['state'] =>
  retired.value ? 'retired' : props.system.state === 'retired' ? 'in-service' : props.system.state;

/** Both parts are separate rows: each is saved if it changed, and each names its own stale save. */
async function save(): Promise<void> {
  const ownerDone =
    JSON.stringify(ownerInput(owner.value)) === JSON.stringify(ownerInput(ownerForm(props.owner))) ||
    (await ownerSubmit.run(() =>
      call<Owner>('PUT', `/owners/${props.owner.id}`, {
        body: { ...ownerInput(owner.value), version: versions.value.owner },
      }),
    ));
  if (!ownerDone) return;
  if (typeof ownerDone === 'object') versions.value.owner = ownerDone.version;
  const saved = await systemSubmit.run(() =>
    call<SystemRow>('PUT', `/systems/${props.system.id}`, {
      body: { ...systemInput(system.value, props.owner.id), state: nextState(), version: versions.value.system },
    }),
  );
  if (!saved) return;
  open.value = false;
  emit('saved');
}

function takeTheirs(): void {
  open.value = false;
  emit('saved');
}

function keepMine(kind: 'system' | 'owner'): void {
  const theirs = (kind === 'system' ? systemSubmit : ownerSubmit).stale.value?.theirs as { version: number };
  versions.value[kind] = theirs.version;
  void save();
}

const systemLabels = {
  name: say('Machine'),
  tag: say('Serial or tag'),
  caseText: say('Case'),
  builtBy: say('Built by'),
  hoursPerDay: say('Hours a day'),
  coolantC: say('Coolant on average'),
  dustPlace: say('Where it stands'),
  policy: say('Policy'),
  note: say('Note'),
  state: say('State'),
};
const ownerLabels = {
  name: say('Owner'),
  phone: say('Phone'),
  email: 'E-mail',
  channel: say('Reached'),
  policy: say('Policy'),
  note: say('Note'),
};
</script>

<template>
  <v-dialog v-model="open" max-width="960" scrollable>
    <v-card class="pa-6">
      <DialogFocus />
      <form class="stack" novalidate @submit.prevent="save">
        <h2>Owner and machine</h2>
        <div class="two">
          <OwnerFields v-model="owner" :at="ownerSubmit.at" />
          <div class="stack">
            <SystemFields v-model="system" :at="systemSubmit.at" />
            <v-checkbox
              v-model="retired"
              label="Retired: the loop is gone or the machine was given up"
              :disabled="isInRun(props.system.state)"
            />
          </div>
        </div>
        <StaleNotice
          v-if="ownerSubmit.stale.value"
          v-bind="ownerSubmit.stale.value"
          :labels="ownerLabels"
          @take-theirs="takeTheirs"
          @keep-mine="keepMine('owner')"
        />
        <StaleNotice
          v-else-if="systemSubmit.stale.value"
          v-bind="systemSubmit.stale.value"
          :labels="systemLabels"
          @take-theirs="takeTheirs"
          @keep-mine="keepMine('system')"
        />
        <p v-else-if="systemSubmit.problem.value || ownerSubmit.problem.value" role="alert" class="danger">
          {{ systemSubmit.problem.value ?? ownerSubmit.problem.value }}
        </p>
        <div class="row">
          <v-btn type="submit" size="large" :loading="systemSubmit.busy.value || ownerSubmit.busy.value">Save</v-btn
          ><v-btn variant="text" size="large" @click="open = false">Leave as it was</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 28px;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
