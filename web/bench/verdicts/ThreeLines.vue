<script setup lang="ts">
/** What a verdict alone would hide: passed over, failed, mended, a line each. */
defineProps<{ passedOver: readonly string[]; failed: readonly string[]; mended: readonly string[] }>();
</script>

<template>
  <dl v-if="passedOver.length + failed.length + mended.length" class="lines">
    <template v-if="passedOver.length"
      ><dt>Passed over</dt>
      <dd>{{ passedOver.join('; ') }}</dd></template
    >
    <template v-if="failed.length"
      ><dt>Failed</dt>
      <dd>{{ failed.join('; ') }}</dd></template
    >
    <template v-if="mended.length"
      ><dt>Mended</dt>
      <dd>{{ mended.join('; ') }}</dd></template
    >
  </dl>
</template>

<style scoped>
.lines {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 4px 16px;
  margin: 10px 0 0;
}
dt {
  font-weight: 620;
}
dd {
  margin: 0;
}
</style>
