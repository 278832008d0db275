<script setup lang="ts">
import { computed } from 'vue';
import { circuitFiles } from '@core/machine/loop-file/circuits.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { LoopAnswer } from '@core/workshop/machines/answers.js';
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';

/** A drawing of several circuits: the bench leads one at a time, so each becomes a loop of its own. */
const props = defineProps<{
  file: LoopFile;
  /** the loop as it was saved; null: it is new, or is being changed */
  saved: Pick<LoopAnswer, 'id' | 'version'> | null;
}>();
const emit = defineEmits<{ parted: [loop: LoopAnswer, names: readonly string[]] }>();
const submit = useSubmit();
const names = computed(() => circuitFiles(props.file).map(({ name }) => name));
const list = computed(() => names.value.join(' · '));

async function part(): Promise<void> {
  const { saved } = props;
  if (!saved) return;
  const answer = await submit.run((idempotencyKey) =>
    call<LoopAnswer>('POST', `/loops/${saved.id}/part`, { body: { version: saved.version }, idempotencyKey }),
  );
  if (answer) emit('parted', answer, names.value);
}
</script>

<template>
  <section v-if="names.length > 1" class="circuits" role="status">
    <div>
      <h2>{{ names.length }} circuits in one drawing</h2>
      <p>
        {{ list }}: each is filled, tested, bled, drained and dated for itself.
        <span class="quiet"
          >The bench takes them one by one and keeps the other’s pump off the supply. This drawing stays as a revision.</span
        >
      </p>
      <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    </div>
    <v-btn v-if="saved" size="large" :loading="submit.busy.value" @click="part">Make {{ names.length }} loops of it</v-btn>
    <p v-else class="quiet">Saved, it can become {{ names.length }} loops.</p>
  </section>
</template>

<style scoped>
.circuits {
  display: flex;
  gap: 24px;
  align-items: center;
  justify-content: space-between;
  flex-wrap: wrap;
  padding: 12px 16px;
  margin-top: 14px;
  background: var(--sheet);
  border-left: 4px solid var(--ink);
}
.circuits > div {
  flex: 1 1 420px;
}
p {
  margin: 2px 0 0;
}
</style>
