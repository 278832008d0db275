<script setup lang="ts">
import { ref, watch } from 'vue';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import StaleNotice from '../../base/shell/StaleNotice.vue';
import CustomerFields, { type CustomerForm } from './CustomerFields.vue';
import { customerInput, systemInput } from './forms.js';
import SystemFields, { type SystemForm } from './SystemFields.vue';
import type { Customer, SystemRow } from './types.js';

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ system: SystemRow; customer: Customer }>();
const emit = defineEmits<{ saved: [] }>();

const systemSubmit = useSubmit();
const customerSubmit = useSubmit();
const system = ref<SystemForm>({ ...props.system });
const owner = ref<CustomerForm>(ownerForm(props.customer));
const versions = ref({ system: props.system.version, customer: props.customer.version });
const retired = ref(props.system.state === 'retired');

function ownerForm(from: Customer): CustomerForm {
  return { name: from.name, email: from.email ?? '', phone: from.phone ?? '', channel: from.channel, note: from.note, policy: from.policy };
}

watch(open, (now) => {
  if (!now) return;
  system.value = { ...props.system };
  owner.value = ownerForm(props.customer);
  versions.value = { system: props.system.version, customer: props.customer.version };
  retired.value = props.system.state === 'retired';
  systemSubmit.clear();
  customerSubmit.clear();
});

const nextState = (): SystemRow['state'] =>
  retired.value ? 'retired' : props.system.state === 'retired' ? 'in-service' : props.system.state;

/** Both parts are separate rows: each is saved if it changed, and each names its own stale save. */
async function save(): Promise<void> {
  const ownerDone =
    JSON.stringify(customerInput(owner.value)) === JSON.stringify(customerInput(ownerForm(props.customer))) ||
    (await customerSubmit.run(() =>
      call<Customer>('PUT', `/customers/${props.customer.id}`, {
        body: { ...customerInput(owner.value), version: versions.value.customer },
      }),
    ));
  if (!ownerDone) return;
  if (typeof ownerDone === 'object') versions.value.customer = ownerDone.version;
  const saved = await systemSubmit.run(() =>
    call<SystemRow>('PUT', `/systems/${props.system.id}`, {
      body: { ...systemInput(system.value, props.customer.id), state: nextState(), version: versions.value.system },
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

function keepMine(kind: 'system' | 'customer'): void {
  const theirs = (kind === 'system' ? systemSubmit : customerSubmit).stale.value?.theirs as { version: number };
  versions.value[kind] = theirs.version;
  void save();
}

const systemLabels = {
  name: 'Machine',
  caseText: 'Case',
  builtBy: 'Built by',
  hoursPerDay: 'Hours a day',
  coolantC: 'Coolant on average',
  dustPlace: 'Where it stands',
  policy: 'Policy',
  note: 'Note',
  state: 'State',
};
const customerLabels = { name: 'Owner', phone: 'Phone', email: 'E-mail', channel: 'Reached', policy: 'Policy', note: 'Note' };
</script>

<template>
  <v-dialog v-model="open" max-width="960" scrollable>
    <v-card class="pa-6">
      <form class="stack" novalidate @submit.prevent="save">
        <h2>Owner and machine</h2>
        <div class="two">
          <CustomerFields v-model="owner" :at="customerSubmit.at" />
          <div class="stack">
            <SystemFields v-model="system" :at="systemSubmit.at" />
            <v-checkbox
              v-model="retired"
              label="Retired: the loop is gone or the machine was given up"
              :disabled="props.system.state === 'on-bench'"
            />
          </div>
        </div>
        <StaleNotice
          v-if="customerSubmit.stale.value"
          v-bind="customerSubmit.stale.value"
          :labels="customerLabels"
          @take-theirs="takeTheirs"
          @keep-mine="keepMine('customer')"
        />
        <StaleNotice
          v-else-if="systemSubmit.stale.value"
          v-bind="systemSubmit.stale.value"
          :labels="systemLabels"
          @take-theirs="takeTheirs"
          @keep-mine="keepMine('system')"
        />
        <p v-else-if="systemSubmit.problem.value || customerSubmit.problem.value" role="alert" class="danger">
          {{ systemSubmit.problem.value ?? customerSubmit.problem.value }}
        </p>
        <div class="row">
          <v-btn type="submit" size="large" :loading="systemSubmit.busy.value || customerSubmit.busy.value">Save</v-btn
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
