<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, reactive, watch } from 'vue';
import { formatDayTime, weekdayNames } from '@core/base/units/dates.js';
import { formatDegrees, formatIn, formatKpa, formatMl } from '@core/base/units/display.js';
import { READING_CHOICES, reading, readingAs, USUAL_READING, type Reading } from '@core/base/units/reading.js';
import type { Shop } from '@core/workshop/people/answers.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useSession } from './sessionStore.js';

/**
 * How numbers, dates and words are read: by one person over the workshop's way, or by the workshop. What is stored stays in mL, kPa, °C, mm
 * and L/h. The line under the fields shows at once what the choice looks like.
 */
const props = defineProps<{ shop?: Shop['workshop']; isLead?: boolean }>();
const emit = defineEmits<{ changed: [shop: Shop] }>();
const session = useSession();
const notices = useNotices();
const submit = useSubmit();
const workshops = computed<Reading>(() => props.shop?.reading ?? session.account?.workshopReading ?? USUAL_READING);
/** null: as the workshop reads */
const form = reactive<{ [K in keyof Reading]: Reading[K] | null }>({ ...blank(), ...start() });
function blank(): Record<keyof Reading, null> {
  return Object.fromEntries(Object.keys(USUAL_READING).map((key) => [key, null])) as Record<keyof Reading, null>;
}
function start(): Partial<Reading> {
  return props.shop ? props.shop.reading : (session.account?.ownReading ?? {});
}
watch(
  () => [props.shop?.reading, session.account?.ownReading],
  () => Object.assign(form, blank(), start()),
);
const shown = computed<Reading>(() => ({ ...workshops.value, ...chosen() }));
const chosen = (): Partial<Reading> => Object.fromEntries(Object.entries(form).filter(([, value]) => value !== null));

const DAY = '2027-03-09';
/** what a choice looks like, in its own way */
const looks = <K extends keyof Reading>(key: K, value: Reading[K]): string =>
  readingAs({ ...shown.value, [key]: value }, () => LOOKS[key](value as never));
const LANGUAGES = { en: 'English', de: 'Deutsch' } as const;
const LOOKS: { readonly [K in keyof Reading]: (value: Reading[K]) => string } = {
  language: (value) => LANGUAGES[value],
  volume: () => formatMl(750),
  pressure: () => formatKpa(50),
  temperature: () => formatDegrees(31),
  length: () => formatIn('mm', 420),
  flow: () => formatIn('L/h', 180),
  date: () => formatDayTime(DAY, 'UTC'),
  clock: () => formatDayTime(`${DAY}T14:30:00Z`, 'UTC').split(', ').at(-1) ?? '',
  weekBegins: () => weekdayNames()[0] ?? '',
};
const LABELS: { readonly [K in keyof Reading]: string } = {
  language: 'Language',
  volume: 'Volumes',
  pressure: 'Pressures',
  temperature: 'Temperatures',
  length: 'Lengths and tube',
  flow: 'Flow',
  date: 'Days',
  clock: 'Times',
  weekBegins: 'The week begins on',
};
const KEYS = Object.keys(LABELS) as (keyof Reading)[];
const items = (key: keyof Reading) => [
  ...(props.shop ? [] : [{ value: null, title: say('workshop’s: {looks}', { looks: looks(key, workshops.value[key]) }) }]),
  ...READING_CHOICES[key].map((value) => ({ value, title: looks(key, value) })),
];
const example = computed(() =>
  readingAs(
    shown.value,
    () =>
      `${formatMl(750)} · ${formatKpa(50)} · ${formatDegrees(31)} · ${formatIn('mm', 420)} · ${formatIn('L/h', 180)} · ${formatDayTime(`${DAY}T14:30:00Z`, 'UTC')}`,
  ),
);

async function save(): Promise<void> {
  const { shop } = props;
  const saved = await submit.run(async () => {
    if (shop) emit('changed', await call<Shop>('PUT', '/workshop/reading', { body: { ...shown.value, version: shop.version } }));
    else await call('PUT', '/own-reading', { body: chosen() });
    return true;
  });
  if (!saved) return;
  const before = reading().language;
  await session.load();
  // what a page made when it was opened is said in the old language: all of it is made anew
  if (reading().language !== before) return window.location.reload();
  notices.say(say('Saved. Every page follows it; what is stored stays as it was.'));
}
</script>

<template>
  <form class="reading" novalidate @submit.prevent="save">
    <v-select
      v-for="key in KEYS"
      :key="key"
      v-model="form[key]"
      :items="items(key)"
      :label="LABELS[key]"
      :readonly="shop !== undefined && !isLead"
      :error-messages="submit.at(key)"
    />
    <p class="wide figures example" aria-live="polite">{{ example }}</p>
    <p v-if="submit.stale.value" role="alert" class="danger wide">Somebody changed the workshop meanwhile; load the page again.</p>
    <p v-else-if="submit.problem.value" role="alert" class="danger wide">{{ submit.problem.value }}</p>
    <v-btn v-if="shop === undefined || isLead" type="submit" size="large" :loading="submit.busy.value">Save how it is read</v-btn>
  </form>
</template>

<style scoped>
.reading {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(250px, 100%), 1fr));
  gap: 10px 12px;
  align-items: start;
  max-width: 860px;
}
.wide {
  grid-column: 1 / -1;
  margin: 0;
}
.example {
  font-size: 1.25rem;
  min-height: 44px;
  align-content: center;
}
.v-btn {
  justify-self: start;
}
</style>
