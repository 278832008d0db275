<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { isolated, type ElectricalSheet } from '@core/machine/electrical/sheet.js';
import { computed } from 'vue';

/** What these connectors mean at the bench, for one loop: what comes off before liquid, what is moved, what is off already. */
const props = defineProps<{ sheet: ElectricalSheet; loop: { readonly id: string; readonly name: string }; several: boolean }>();
const rows = computed(() => isolated(props.sheet, props.loop.id));
const groups = computed(() => {
  const of = (as: string) => rows.value.filter((row) => row.as === as);
  return [
    { title: say('Pulled before liquid, back by name'), rows: of('pulled') },
    { title: say('Moved onto the supply: where it hangs is dead then'), rows: of('moved') },
    { title: say('Connected to nothing; asked after at the return to power'), rows: of('left') },
  ].filter((group) => group.rows.length > 0);
});
const offCount = computed(() => rows.value.filter(({ as }) => as !== 'left').length);
</script>

<template>
  <section>
    <h2>{{ several ? `At the bench, ${loop.name}` : 'At the bench' }}</h2>
    <p class="big-number">
      {{ offCount }} <small>{{ offCount === 1 ? 'connector comes off' : 'connectors come off' }}</small>
    </p>
    <template v-for="group in groups" :key="group.title">
      <h3>{{ group.title }}</h3>
      <ul class="plain-list">
        <li v-for="{ connector, off } in group.rows" :key="connector.id">
          {{ connector.name }}<span v-if="off" class="quiet">, off {{ off }}</span>
        </li>
      </ul>
    </template>
    <p class="quiet">Only this loop’s pump stays on power, and fans as a load for the supply.</p>
  </section>
</template>

<style scoped>
h3 {
  margin: 12px 0 2px;
  font-size: 1rem;
}
li {
  padding: 3px 0;
}
p {
  margin: 6px 0;
}
</style>
