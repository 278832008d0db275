<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { computed, reactive } from 'vue';
import { fittingLetter, type Standing } from '@core/workshop/messages/fitting.js';
import type { OwnReading } from '@core/workshop/people/readingSchema.js';
import { NO_CONTACT } from '@core/workshop/people/contact.js';
import { useSession } from '../people/sessionStore.js';
import { reading as usual, readingAs } from '@core/base/units/reading.js';
import { longDay, longTime } from '@core/base/units/dates.js';
import { LINK_MARK, WITHOUT_DAY, writeMessage, type MessageTemplate } from '@core/workshop/messages/templates.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';

/** A message to an owner from a template, read before it goes. */
const props = defineProps<{ systemId: string; machine: string; owner: string; standing: Standing; reading: OwnReading }>();
const emit = defineEmits<{ close: []; sent: [text: string] }>();
const submit = useSubmit();
const session = useSession();
/** the letter that fits what is known; another one is chosen by hand */
const fitting = fittingLetter(props.standing);
/** a letter is written its owner's way, else the workshop's, whoever writes it */
const inLetter = <T,>(work: () => T): T => readingAs({ ...(session.account?.workshopReading ?? usual()), ...props.reading }, work);
const whenWords = (iso: string | null): string => {
  if (iso === null) return '';
  return inLetter(() =>
    say('on {longDay}', { longDay: iso.length === 10 ? longDay(iso) : longTime(iso, session.account?.timeZone ?? 'UTC') }),
  );
};
const form = reactive({ template: fitting.template, when: whenWords(fitting.when), ready: whenWords(fitting.ready), text: '' });
const templates: { value: MessageTemplate; title: string }[] = [
  { value: 'ready', title: say('It is ready') },
  { value: 'slot', title: say('Its slot is kept') },
  { value: 'moved', title: say('Its slot moved') },
  { value: 'cancelled', title: say('Its slot is cancelled') },
  { value: 'missed', title: say('It was awaited and did not come') },
  { value: 'limit', title: say('What its coolant lasts changed') },
  { value: 'parts-late', title: say('A part is late') },
  { value: 'due-soon', title: say('Its coolant comes due') },
  { value: 'risk', title: say('What putting it off risks') },
];
const letter = computed(() =>
  inLetter(() =>
    writeMessage(form.template, {
      ...form,
      owner: props.owner,
      machine: props.machine,
      workshop: session.account?.workshopName ?? '',
      contact: session.account?.contact ?? NO_CONTACT,
      link: session.account?.doorOpen ? LINK_MARK : '',
    }),
  ),
);

async function send(): Promise<void> {
  const sent = await submit.run((idempotencyKey) =>
    call('POST', '/messages', { body: { systemId: props.systemId, ...form }, idempotencyKey }),
  );
  if (!sent) return;
  emit('sent', say('The message waits to be sent; it goes within a minute.'));
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="`Write to ${owner}`"
    button="Send it"
    :busy="submit.busy.value"
    :problem="submit.problem.value"
    :width="640"
    @submit="send"
    @close="emit('close')"
  >
    <v-select v-model="form.template" :items="templates" label="Matter" />
    <v-text-field
      v-if="!WITHOUT_DAY.includes(form.template)"
      v-model="form.when"
      label="When, in words"
      placeholder="on Thursday, 3 December, from 9"
    />
    <v-text-field v-if="['slot', 'moved'].includes(form.template)" v-model="form.ready" label="Ready by the plan" />
    <v-text-field v-model="form.text" label="What more" />
    <div class="letter">
      <strong>{{ letter.subject }}</strong>
      <pre>{{ letter.body }}</pre>
    </div>
  </FormDialog>
</template>

<style scoped>
.letter {
  border-left: 4px solid var(--ink);
  padding-left: 14px;
}
pre {
  font: inherit;
  white-space: pre-wrap;
  margin: 6px 0 0;
}
</style>
