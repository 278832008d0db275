<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { formatMl } from '@core/base/units/display.js';
import type { Shop } from '@core/workshop/people/answers.js';
import { DRAIN_HABITS } from '@core/physics/draining/defaults.js';
import { reactive, ref, watch } from 'vue';
import { LEAK_SCHOOLS, WET_SCHOOLS, type Schools } from '@core/physics/leak-testing/schools.js';
import { SERVICE_POLICIES, type ServicePolicy } from '@core/workshop/due-dates/due.js';
import { monthOfYear } from '@core/base/units/dates.js';
import { LEAK_LIMITS } from '@core/physics/leak-testing/defaults.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { BOOKED_KINDS, type BookedKind } from '@core/workshop/job-kinds/kinds.js';
import { TESTED_KINDS, type JobSchools } from '@core/workshop/jobs/usualSchools.js';
import SchoolsByKind from './SchoolsByKind.vue';
import { choicesOf } from '../../base/look/choices.js';
import StaleNotice from '../../base/shell/StaleNotice.vue';
import NumberField from '../../base/units/NumberField.vue';

/** How this workshop works: its dates, its tests, how it drains. */
const props = defineProps<{ shop: Shop; isLead: boolean }>();
const emit = defineEmits<{ changed: [shop: Shop] }>();
const notices = useNotices();
const submit = useSubmit();
const resolution = ref<number | null>(null);
const form = reactive({
  name: '',
  timeZone: '',
  policy: 'twelve-months' as ServicePolicy,
  leak: 'dry-then-wet' as Schools['leak'],
  wet: 'day' as Schools['wet'],
  limit: 'screen' as Schools['limit'],
  hotFromMonth: null as number | null,
  hotUntilMonth: null as number | null,
  drain: { ...DRAIN_HABITS } as { turns: boolean; headLeastMl: number | null; joints: boolean },
  byKind: {} as JobSchools,
  loadsMayStay: [] as BookedKind[],
  version: 1,
});
const MONTHS = [
  { value: null, title: 'no such rule' },
  ...Array.from({ length: 12 }, (_, index) => ({ value: index + 1, title: monthOfYear(index + 1) })),
];
const HEADS = [{ value: null, title: 'never' }, ...[50, 100, 200, 300].map((ml) => ({ value: ml, title: say('when it saves {formatMl} or more', { formatMl: formatMl(ml) }) }))]; // prettier-ignore
const LOAD_KINDS = TESTED_KINDS.filter((kind) => kind !== 'top-up').map((value) => ({ value, title: say(BOOKED_KINDS[value].label) }));
const zones = Intl.supportedValuesOf('timeZone');

// the form follows what is saved; a new person or bench leaves it as it was typed
watch(
  () => props.shop.workshop,
  (workshop, before) => {
    const { schools, rates: _rates, contact: _contact, reading: _reading, heatLimits: _heatLimits, door: _door, ...rest } = workshop;
    const ofForm = (shop: Shop['workshop']): string =>
      JSON.stringify({ ...shop, rates: null, contact: null, reading: null, version: null });
    // contact and prices are saved by forms of their own
    if (before && ofForm(before) === ofForm(workshop)) {
      form.version = workshop.version;
      return;
    }
    Object.assign(form, rest, {
      drain: { ...rest.drain },
      leak: schools.leak,
      wet: schools.wet,
      limit: schools.limit,
      byKind: schools.byKind ?? {},
      loadsMayStay: [...(schools.loadsMayStay ?? [])],
    });
    resolution.value = schools.gaugeResolutionKpa;
  },
  { immediate: true },
);

async function save(): Promise<void> {
  const body = {
    name: form.name,
    timeZone: form.timeZone,
    policy: form.policy,
    hotFromMonth: form.hotFromMonth,
    hotUntilMonth: form.hotFromMonth === null ? null : form.hotUntilMonth,
    drain: form.drain,
    schools: {
      leak: form.leak,
      wet: form.wet,
      limit: form.limit,
      gaugeResolutionKpa: resolution.value,
      byKind: form.byKind,
      loadsMayStay: form.loadsMayStay,
    },
    version: form.version,
  };
  const answer = await submit.run(() => call<Shop>('PUT', '/workshop', { body }));
  if (!answer) return;
  emit('changed', answer);
  notices.say(say('Saved. Dates follow it at once; runs on the benches keep theirs.'));
}

function keepMine(): void {
  form.version = (submit.stale.value?.theirs as { version: number }).version;
  void save();
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="save">
    <h2>How this workshop works</h2>
    <p><router-link to="/workshop/procedure">The procedures that lead every run</router-link></p>
    <p><router-link to="/course">The course at the practice table</router-link></p>
    <p v-if="!isLead" class="quiet">Only the lead changes these.</p>
    <v-text-field v-model="form.name" label="Name" :readonly="!isLead" :error-messages="submit.at('name')" />
    <v-autocomplete v-model="form.timeZone" :items="zones" label="Time zone" :readonly="!isLead" :error-messages="submit.at('timeZone')" />
    <v-select
      v-model="form.policy"
      :items="choicesOf(SERVICE_POLICIES)"
      label="Coolant comes out"
      hint="Or earlier, where the coolant's own life ends first"
      persistent-hint
      :readonly="!isLead"
    />
    <div class="pair">
      <v-select
        v-model="form.hotFromMonth"
        :items="MONTHS"
        label="Hot months from"
        hint="What falls due in them is done before they begin"
        persistent-hint
        :readonly="!isLead"
        :error-messages="submit.at('hotFromMonth')"
      />
      <v-select
        v-if="form.hotFromMonth !== null"
        v-model="form.hotUntilMonth"
        :items="MONTHS.slice(1)"
        label="to"
        :readonly="!isLead"
        :error-messages="submit.at('hotUntilMonth')"
      />
    </div>
    <v-select
      v-model="form.leak"
      :items="choicesOf(LEAK_SCHOOLS)"
      label="Leaks are looked for"
      :hint="LEAK_SCHOOLS[form.leak].consequence"
      persistent-hint
      :readonly="!isLead"
    />
    <v-select
      v-model="form.limit"
      :items="choicesOf(LEAK_LIMITS)"
      label="The air test excludes"
      :hint="LEAK_LIMITS[form.limit].meaning"
      persistent-hint
      :readonly="!isLead"
    />
    <v-select
      v-model="form.wet"
      :items="choicesOf(WET_SCHOOLS)"
      label="Only the pump runs for"
      :hint="WET_SCHOOLS[form.wet].consequence"
      persistent-hint
      :readonly="!isLead"
    />
    <v-select
      v-model="form.drain.turns"
      :items="[
        { value: true, title: 'Lay it on a side where that gets more out' },
        { value: false, title: 'As it stands: nothing is turned' },
      ]"
      label="To drain a machine"
      :readonly="!isLead"
    />
    <v-select
      v-if="form.drain.turns"
      v-model="form.drain.headLeastMl"
      :items="HEADS"
      label="On its head"
      hint="A lift for two: it must save at least so much against every other way"
      persistent-hint
      :readonly="!isLead"
    />
    <v-select
      v-model="form.drain.joints"
      :items="[
        { value: true, title: 'May be undone where that is worth towels, a ring and a test' },
        { value: false, title: 'Stay closed' },
      ]"
      label="Joints, to drain"
      :readonly="!isLead"
    />
    <SchoolsByKind v-model="form.byKind" :readonly="!isLead" />
    <v-select
      v-model="form.loadsMayStay"
      :items="LOAD_KINDS"
      :readonly="!isLead"
      label="Loads may stay on the supply, behind a passed air test"
      hint="Board, cards and drives stay live: a leak that air did not find meets them. Written down with its reason each time."
      persistent-hint
      multiple
      chips
    />
    <NumberField v-model="resolution" label="The gauge can be read to" unit="kPa" :errors="submit.at('schools.gaugeResolutionKpa')" />
    <StaleNotice
      v-if="submit.stale.value"
      v-bind="submit.stale.value"
      :labels="{
        name: 'Name',
        timeZone: 'Time zone',
        policy: 'Policy',
        hotFromMonth: 'Hot months from',
        hotUntilMonth: 'to',
        schools: 'Schools',
        drain: 'How it drains',
      }"
      @take-theirs="
        emit('changed', { ...shop, workshop: submit.stale.value.theirs as Shop['workshop'] });
        submit.clear();
      "
      @keep-mine="keepMine"
    />
    <p v-else-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <v-btn v-if="isLead" type="submit" size="large" :loading="submit.busy.value">Save</v-btn>
  </form>
</template>

<style scoped>
form {
  max-width: 640px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
</style>
