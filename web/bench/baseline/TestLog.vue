<script setup lang="ts">
import { ref } from 'vue';
import { say } from '@core/base/words/say.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { LoadReading } from '@core/physics/diagnosis/loadReading.js';
import { blockOf, readParts } from '@core/physics/diagnosis/sensors.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import { get, wordsOf } from '../../base/http/api.js';
import FileButton from '../../base/files/FileButton.vue';
import { useLog } from '../../workshop/logs/useLog.js';

/** A reading out of the log that ran along with the test: the last even load of it, for the part that the sensor means. */
const props = defineProps<{ systemId: string; file: LoopFile; sensor: string; today: string }>();
const emit = defineEmits<{ read: [reading: LoadReading, part: string] }>();
const log = useLog();
const problem = ref<string | null>(null);

async function take(picked: File): Promise<void> {
  try {
    problem.value = await readOut(picked);
  } catch (error) {
    problem.value = wordsOf(error);
  }
}

/** @returns why nothing was read; null: it was */
async function readOut(picked: File): Promise<string | null> {
  const part = blockOf(
    props.file.components.filter(({ kind }) => kind === 'block'),
    props.sensor,
  )?.id;
  if (part === undefined) return say('The sensor {sensor} means no one block of this loop.', { sensor: props.sensor });
  const known = await get<ConditionPage>(`/systems/${props.systemId}/condition`);
  const looked = await log.look(picked, readParts([props.file]), known.columns);
  if (!looked) return null;
  if ('problem' in looked) return looked.problem;
  const column = looked.columns.parts.find((each) => each.part === part);
  if (!column?.temperature || !column.power)
    return say('No column of this log is known for the temperature and the watts of that part. Tell them once under Log and condition.');
  const report = await log.read(picked, {
    ...looked,
    zone: known.zone,
    beginsOn: looked.layout.style === 'clock' ? props.today : null,
  });
  const last = report?.days.filter(({ reading }) => reading.partsC[part] !== undefined).at(-1);
  if (!last) return say('No even load of twenty minutes stands in this log.');
  emit('read', last.reading, part);
  return null;
}
</script>

<template>
  <div class="row">
    <FileButton accept=".csv,.txt,.log,text/*" :disabled="log.busy.value !== null" @picked="take">{{
      log.busy.value === null ? 'From a log of the test' : 'Reading it …'
    }}</FileButton>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
  </div>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
