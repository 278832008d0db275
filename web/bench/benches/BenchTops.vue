<script setup lang="ts">
/** Benches as one sees them: tops side by side, what stands on each, and at the end the table where nothing real ever stands. */
const chosen = defineModel<string | null>({ required: true });
defineProps<{
  benches: readonly {
    readonly id: string;
    readonly name: string;
    /** whose machine stands there; null: free */ readonly taken: string | null;
  }[];
  /** a table for practice is offered beside them; `cannot`: why this loop cannot be played there */
  practice?: { readonly cannot: string | null } | null;
}>();
const practising = defineModel<boolean>('practising', { default: false });

function choose(id: string): void {
  practising.value = false;
  chosen.value = id;
}
</script>

<template>
  <div class="tops" role="radiogroup" aria-label="Bench">
    <button
      v-for="bench in benches"
      :key="bench.id"
      type="button"
      role="radio"
      class="bench"
      :aria-checked="!practising && chosen === bench.id"
      :disabled="bench.taken !== null"
      @click="choose(bench.id)"
    >
      <span class="stands">{{ bench.taken ?? 'free' }}</span>
      <span class="top">{{ bench.name }}</span>
    </button>
    <button
      v-if="practice"
      type="button"
      role="radio"
      class="bench practice"
      :aria-checked="practising"
      :disabled="practice.cannot !== null"
      @click="practising = true"
    >
      <span class="stands">{{ practice.cannot ?? 'a simulated bench that hides a fault' }}</span>
      <span class="top">Practice table</span>
    </button>
  </div>
</template>

<style scoped>
.tops {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 14px;
  padding-bottom: 16px;
}
.bench {
  display: grid;
  grid-template-rows: 1fr auto;
  min-height: 96px;
  text-align: left;
}
.stands {
  align-self: end;
  padding: 6px 12px;
  color: var(--ink-soft);
}
[aria-checked='true'] .stands::before {
  content: '▼ ';
  color: var(--ink);
}
.top {
  position: relative;
  padding: 9px 14px;
  background: var(--well);
  border: 2px solid var(--ink);
  border-radius: 2px;
}
.top::before,
.top::after {
  content: '';
  position: absolute;
  top: 100%;
  width: 10px;
  height: 12px;
  background: var(--ink);
}
.top::before {
  left: 14px;
}
.top::after {
  right: 14px;
}
[aria-checked='true'] .top {
  background: var(--slab);
  color: var(--on-slab);
}
:disabled .top {
  border-style: dashed;
  background: none;
}
:disabled {
  cursor: default;
}
/* a folding table: nothing real ever stands there */
.practice .top::before,
.practice .top::after {
  transform: skewX(24deg);
}
.practice .top::after {
  transform: skewX(-24deg);
}
</style>
