<script setup lang="ts" generic="Cause extends string">
/** Causes with the share of each as a bar, and its next check. None is taken for granted. */
const chosen = defineModel<Cause | undefined>({ required: true });
defineProps<{
  name: string;
  causes: readonly { cause: Cause; label: string; nextCheck: string; probability: number; confirmed: number }[];
}>();
</script>

<template>
  <ol class="plain-list">
    <li v-for="each in causes" :key="each.cause">
      <label>
        <input type="radio" :name="name" :value="each.cause" :checked="chosen === each.cause" @change="chosen = each.cause" />
        <span class="bar" aria-hidden="true"><i :style="{ width: `${100 * each.probability}%` }" /></span>
        <b class="figures">{{ Math.round(100 * each.probability) }} %</b>
        <span
          >{{ each.label }}<span v-if="each.confirmed" class="quiet">, found {{ each.confirmed }} × here</span>
          <span class="next">{{ each.nextCheck }}</span></span
        >
      </label>
    </li>
  </ol>
</template>

<style scoped>
label {
  display: grid;
  grid-template-columns: 26px 90px 52px 1fr;
  gap: 10px;
  align-items: start;
  padding: 6px 0;
  cursor: pointer;
}
.bar {
  border: 1.5px solid var(--ink);
  height: 14px;
  margin-top: 4px;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--ink);
}
.next {
  display: block;
  color: var(--ink-soft);
}
</style>
