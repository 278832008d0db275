<script setup lang="ts">
/** A loop is edited as a list in flow order, or drawn in its case. */
const drawn = defineModel<boolean>({ required: true });
</script>

<template>
  <div class="row edit-as" role="group" aria-label="Edit the loop as">
    <button type="button" :class="{ now: !drawn }" :aria-pressed="!drawn" @click="drawn = false">List in flow order</button>
    <button type="button" :class="{ now: drawn }" :aria-pressed="drawn" @click="drawn = true">Drawing in the case</button>
    <slot />
  </div>
</template>

<style scoped>
.edit-as {
  margin: 14px 0 12px;
}
.edit-as button {
  min-height: 44px;
  padding: 0 16px;
  border-radius: 3px;
}
.edit-as .now {
  background: var(--slab);
  color: var(--on-slab);
}
</style>
