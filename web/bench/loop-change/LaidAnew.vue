<script setup lang="ts">
import { call } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';

/** A drawing was wanted since this build began: it goes on with that, as long as nothing wet is inside. */
const props = defineProps<{ runId: string; wanted: { readonly number: number; readonly reason: string }; undelivered: number }>();
const emit = defineEmits<{ changed: [] }>();
const submit = useSubmit();
async function goOn(): Promise<void> {
  const said = await submit.run((idempotencyKey) =>
    call('POST', `/runs/${props.runId}/relaid`, { body: { wanted: props.wanted.number }, idempotencyKey }),
  );
  if (said) emit('changed');
}
</script>

<template>
  <section class="anew" aria-label="Another drawing">
    <p>
      <strong>Drawing {{ wanted.number }} is wanted now</strong><template v-if="wanted.reason">: {{ wanted.reason }}</template
      >. What it brings is flushed, put together, closed and tested like the rest; what it leaves as it was stays ticked.
    </p>
    <v-btn size="large" variant="outlined" :loading="submit.busy.value" :disabled="undelivered > 0" @click="goOn"
      >Go on with drawing {{ wanted.number }}</v-btn
    >
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
  </section>
</template>

<style scoped>
.anew {
  display: grid;
  gap: 10px;
  justify-items: start;
  border-left: 5px solid var(--ink);
  background: var(--sheet);
  padding: 10px 14px;
}
p {
  margin: 0;
}
</style>
