<script setup lang="ts">
import { computed, reactive } from 'vue';
import { bypassPart, cannotBypass } from '@core/machine/drawing/bypass.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { fillVolume } from '@core/physics/filling/fillPlan.js';
import { formatMl } from '@core/base/units/display.js';
import type { Procedure } from '@core/bench/runs/procedure.js';
import type { RunState } from '@core/bench/runs/state.js';
import { heldByBook } from '@core/bench/services/changedLoop.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import FormDialog from '../../base/look/FormDialog.vue';
import NumberField from '../../base/units/NumberField.vue';

/** A part goes out and nothing comes in its place: the loop, what it holds and what is still to do are told without it. */
const props = defineProps<{ runId: string; procedure: Procedure; state: RunState; file: LoopFile; undelivered: number }>();
const emit = defineEmits<{ close: []; changed: [] }>();
const submit = useSubmit();
const parts = computed(() =>
  props.file.components
    .filter(({ id }) => cannotBypass(props.file, id) === null)
    .map((part) => ({ value: part.id, title: shortName(part), kind: part.kind })),
);
const form = reactive({ part: null as string | null, text: '', heldMl: null as number | null });
const chosen = computed(() => parts.value.find(({ value }) => value === form.part) ?? null);
const held = computed(() => (form.part === null ? null : heldByBook(props.procedure, props.state, form.part)));
/** what the loop takes at its mark, before and after */
const volumes = computed(() =>
  form.part === null
    ? null
    : { before: fillVolume(props.file).volumeMl, after: fillVolume(bypassPart(props.file, form.part).loop).volumeMl },
);

async function leaveOut(): Promise<void> {
  const saved = await submit.run((idempotencyKey) =>
    call('POST', `/runs/${props.runId}/bypass`, { body: { ...form, part: form.part ?? '' }, idempotencyKey }),
  );
  if (!saved) return;
  emit('changed');
  emit('close');
}
</script>

<template>
  <FormDialog
    title="Leave a part out of the loop"
    button="It is out, the tubes are one"
    :busy="submit.busy.value"
    :problem="undelivered > 0 ? 'What waits on this device must reach the server first.' : submit.problem.value"
    :width="680"
    @submit="leaveOut"
    @close="emit('close')"
  >
    <p class="quiet">
      Nothing comes in its place: its two tubes are joined past it. The loop gets a revision without it; joints to test and what to pour
      follow. It cannot be taken back here: a part that comes in again is drawn again.
    </p>
    <v-select v-model="form.part" :items="parts" label="Part" :error-messages="submit.at('part')" />
    <p v-if="volumes" class="volumes">
      The loop then holds <b>{{ formatMl(volumes.after) }}</b> at its mark, {{ formatMl(volumes.before) }} with it.
    </p>
    <p v-if="chosen?.kind === 'block'" class="danger-note" role="note">
      What this block cooled has no cooler then. No power to it before another one sits on it.
    </p>
    <p v-if="chosen?.kind === 'radiator'" class="danger-note" role="note">
      The loop gives off less heat: read the first temperatures under load before anybody leaves it alone.
    </p>
    <v-text-field v-model="form.text" label="Where it lies now" placeholder="box 4, shelf of returns" :error-messages="submit.at('text')" />
    <NumberField
      v-model="form.heldMl"
      :label="held === null ? 'Left inside it' : `Left inside it, if measured (by the book about ${formatMl(held)})`"
      unit="mL"
      :errors="submit.at('heldMl')"
    />
  </FormDialog>
</template>

<style scoped>
.volumes,
.quiet {
  margin: 0 0 14px;
}
.danger-note {
  margin: 0 0 14px;
  padding: 10px 14px;
  border-left: 6px solid var(--danger);
  font-weight: 600;
}
</style>
