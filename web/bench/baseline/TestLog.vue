<script setup lang="ts">
import { ref } from 'vue';
import { say } from '@core/base/words/say.js';
import { PART_INSTRUMENTS } from '@core/bench/instruments/kinds.js';
import { shortName } from '@core/machine/catalogue/names.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { LoadReading } from '@core/physics/diagnosis/loadReading.js';
import { blockOf, kindOfPart, readParts } from '@core/physics/diagnosis/sensors.js';
import type { ConditionPage } from '@core/workshop/logs/answers.js';
import { get, wordsOf } from '../../base/http/api.js';
import FileButton from '../../base/files/FileButton.vue';
import { useLog } from '../../workshop/logs/useLog.js';

/** A reading out of the log that ran along with the test: the last even load of it, for every part of this loop that it reads. */
const props = defineProps<{ systemId: string; file: LoopFile; sensors: readonly string[]; today: string }>();
const emit = defineEmits<{ read: [reading: LoadReading, sensors: { sensor: string; part: string }[]] }>();
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
  const known = await get<ConditionPage>(`/systems/${props.systemId}/condition`);
  const looked = await log.look(picked, readParts([props.file]), known.columns);
  if (!looked) return null;
  if ('problem' in looked) return looked.problem;
  const whole = looked.columns.parts.filter(({ temperature, power }) => temperature && power);
  if (whole.length === 0)
    return say('No column of this log is known for the temperature and the watts of a part. Tell them once under Log and condition.');
  const report = await log.read(picked, {
    ...looked,
    zone: known.zone,
    beginsOn: looked.layout.style === 'clock' ? props.today : null,
  });
  const last = report?.days.at(-1);
  if (!last) return say('No even load of twenty minutes stands in this log.');
  const read = sensorsIn(last.reading);
  if (read.length === 0) return say('The log reads parts that this loop does not have.');
  emit('read', last.reading, read);
  return null;
}

/** Parts of a reading, by the sensor that is read for each, or the usual one of its kind. */
function sensorsIn({ partsC }: LoadReading): { sensor: string; part: string }[] {
  const blocks = props.file.components.filter(({ kind }) => kind === 'block');
  return blocks.flatMap((block) => {
    const kind = kindOfPart(shortName(block));
    if (partsC[block.id] === undefined) return [];
    const sensor = props.sensors.find((each) => blockOf(blocks, each)?.id === block.id) ?? (kind && PART_INSTRUMENTS[kind].sensor);
    return sensor === null ? [] : [{ sensor, part: block.id }];
  });
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
