<script setup lang="ts">
import { computed } from 'vue';
import type { KeyAction } from './actions.js';
import { activeKey } from './assigned.js';

/** The key that does what a button does; nothing where it is turned off. */
const props = defineProps<{ action: KeyAction }>();
const key = computed(() => activeKey(props.action));
</script>

<template>
  <kbd v-if="key !== null" class="ml-2">{{ key }}</kbd>
</template>
