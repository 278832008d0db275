<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { computed } from 'vue';
import { SERVICE_POLICIES, type ServicePolicy } from '@core/workshop/due-dates/due.js';

/** The narrowest policy that counts for a machine. */
const props = defineProps<{ own: ServicePolicy | null; owners: ServicePolicy | null }>();
const words = computed(() => {
  if (props.own) return say('{label}, set for this machine', { label: sayWord(SERVICE_POLICIES[props.own].label) });
  return props.owners
    ? say('{label}, agreed with this owner', { label: sayWord(SERVICE_POLICIES[props.owners].label) })
    : say('as the workshop does');
});
</script>

<template>
  <p class="quiet">Policy: {{ words }}</p>
</template>
