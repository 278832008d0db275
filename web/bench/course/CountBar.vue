<script setup lang="ts">
/** What was noticed, missed and harmed, drawn to one scale; each with its figure, so that no shade has to be told from another. */
defineProps<{ noticed: number; missed: number; harmed: number; most: number }>();
</script>

<template>
  <span class="counts figures" role="img" :aria-label="`${noticed} noticed, ${missed} missed, ${harmed} harmed`">
    <span v-if="noticed" class="noticed" :style="{ flexGrow: noticed }">{{ noticed }} noticed</span>
    <span v-if="missed" class="missed" :style="{ flexGrow: missed }">{{ missed }} missed</span>
    <span v-if="harmed" class="harmed" :style="{ flexGrow: harmed }">{{ harmed }} harmed</span>
    <span :style="{ flexGrow: Math.max(0, most - noticed - missed - harmed) }" />
  </span>
</template>

<style scoped>
.counts {
  display: flex;
  gap: 3px;
  min-height: 24px;
  font-size: 0.85rem;
}
.counts > span {
  flex-basis: 0;
  min-width: 0;
}
.noticed,
.missed,
.harmed {
  min-width: 82px !important;
  padding: 2px 8px;
  white-space: nowrap;
}
.noticed {
  background: var(--ink);
  color: var(--sheet);
}
.missed {
  border: 2px dashed var(--ink);
}
.harmed {
  border-left: 6px solid var(--danger);
  font-weight: 700;
}
</style>
