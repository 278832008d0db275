<script setup lang="ts">
/** Lines to be ticked one by one: each guards somebody who is not there to see. */
defineProps<{ legend: string; lines: readonly { id: string; text: string }[] }>();
const seen = defineModel<string[]>({ required: true });
</script>

<template>
  <fieldset>
    <legend>{{ legend }}</legend>
    <label v-for="line in lines" :key="line.id"><input v-model="seen" type="checkbox" :value="line.id" /> {{ line.text }}</label>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  display: grid;
}
legend {
  font-weight: 600;
  padding: 0;
}
label {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 48px;
  border-top: 1px solid var(--line-soft);
}
input {
  flex: none;
  width: 26px;
  height: 26px;
  accent-color: var(--ink);
}
</style>
