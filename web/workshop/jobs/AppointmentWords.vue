<script setup lang="ts">
import type { Appointment } from '@core/workshop/jobs/answers.js';
import { useDates } from '../../base/units/dates.js';

/** When a machine comes in and when it is ready, as it stands in the plan. */
defineProps<{ appointment: Appointment }>();
const dates = useDates();
const at = dates.weekdayAndTime;
</script>

<template>
  <span class="figures"
    >{{ at(appointment.from) }}, {{ appointment.bench }}; ready {{ at(appointment.to)
    }}{{ appointment.confirmed ? '' : ' (planned, nobody was told)' }}</span
  >
</template>
