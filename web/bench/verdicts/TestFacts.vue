<script setup lang="ts">
import type { RunRecord } from '@core/edge/records/record.js';
import { LEAK_LIMITS } from '@core/physics/leak-testing/defaults.js';
import { formatLeak, formatLeakWithSe, formatMl, formatRoughMl } from '@core/base/units/display.js';
import { useDates } from '../../base/units/dates.js';

/** The air test of a record and every leak that was found, as lines of its list. */
defineProps<{ record: RunRecord }>();
const dates = useDates();
const RETEST_WORDS = { air: 'under test air', running: 'after running', standing: 'standing' } as const;
</script>

<template>
  <template v-if="record.dryTest"
    ><dt>Air test</dt>
    <dd>
      {{ record.dryTest.verdict === 'pass' ? 'passed' : record.dryTest.verdict }} against
      {{ formatLeak(LEAK_LIMITS[record.schools.limit].mbarLs) }}, {{ record.dryTest.readings }} readings
    </dd>
    <dt>Leak</dt>
    <dd>{{ formatLeakWithSe(record.dryTest.leakMbarLs, record.dryTest.seMbarLs) }}</dd>
    <dt>Excludes</dt>
    <dd>more than {{ formatRoughMl(record.dryTest.excludedMlPerDay) }} of water a day</dd>
    <template v-if="record.dryTest.gasMl !== undefined">
      <dt>Air in the loop then</dt>
      <dd>{{ formatMl(record.dryTest.gasMl) }}</dd>
    </template>
    <template v-for="test in record.dryTest.before ?? []" :key="test.testNumber">
      <dt>Test {{ test.testNumber }} before it</dt>
      <dd>
        {{ test.verdict === 'pass' ? 'passed' : test.verdict === 'fail' ? 'leaked' : 'not decided' }}, {{ test.readings }} readings<template
          v-if="test.leakMbarLs !== null"
          >, {{ formatLeak(test.leakMbarLs) }}</template
        >.
        {{ test.ended }}
      </dd>
    </template></template
  >
  <template v-for="leak in record.leaks ?? []" :key="`${leak.at} ${leak.place}`">
    <dt>Leak found</dt>
    <dd>
      {{ leak.place }}, a {{ leak.amount }}{{ leak.inAir ? ', with air' : '' }}{{ leak.text ? `: ${leak.text}` : '' }} ({{
        leak.by
      }})<template v-if="leak.mended"><br />{{ leak.mended.cause }}: {{ leak.mended.text }} ({{ leak.mended.by }})</template
      ><template v-for="look in leak.retests" :key="look.at"
        ><br />{{ look.dry ? 'dry' : 'still leaking' }} {{ RETEST_WORDS[look.how] }}, {{ dates.time(look.at) }} ({{ look.by }})</template
      >
    </dd>
  </template>
</template>
