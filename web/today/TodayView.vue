<script setup lang="ts">
import { computed, onMounted } from 'vue';
import { useSession } from '../accounts/sessionStore.js';
import { useDates } from '../units/dates.js';
import { useBenches } from './benchStore.js';
import BenchPlinth from './BenchPlinth.vue';
import DueRunway from './DueRunway.vue';

const benches = useBenches();
const session = useSession();
const dates = useDates();
onMounted(() => void benches.refresh());

const standing = computed(() => [
  ...benches.benches.map((bench) => ({ ...bench, runs: benches.runs.filter(({ benchId }) => benchId === bench.id) })),
  ...benches.runs.filter(({ benchId }) => benchId === null).map((run) => ({ id: run.id, name: 'No bench', runs: [run] })),
]);
const lines = computed(() => [...benches.overdue, ...benches.coming]);
</script>

<template>
  <main class="page">
    <header class="spread">
      <h1>{{ session.account?.workshopName }}</h1>
      <p class="quiet">{{ benches.today ? dates.day(benches.today) : '' }}</p>
    </header>
    <p v-if="benches.problem" role="alert" class="danger">
      {{ benches.problem }} <v-btn size="small" @click="benches.refresh()">Try again</v-btn>
    </p>

    <section class="benches" aria-label="Benches">
      <template v-for="bench in standing" :key="bench.id">
        <BenchPlinth v-for="run in bench.runs" :key="run.id" :name="bench.name" :run="run" />
        <BenchPlinth
          v-if="bench.runs.length === 0"
          :name="bench.name"
          :run="null"
          :next="benches.next.find(({ benchId }) => benchId === bench.id) ?? null"
        />
      </template>
    </section>

    <section v-if="benches.loaded" class="dues">
      <header class="spread">
        <h2>{{ benches.overdue.length }} overdue, {{ benches.coming.length }} coming up</h2>
        <router-link to="/systems">All {{ benches.count }} systems</router-link>
      </header>
      <DueRunway v-if="lines.length" :today="benches.today" :lines="lines" />
      <p v-else-if="benches.count === 0" class="first">
        No systems yet. <router-link to="/systems/new">Enter the first machine</router-link>: its owner, then its loop. The fill plan, the
        leak test and the next service date follow from there.
      </p>
      <p v-else class="quiet">Nothing falls due in the next six weeks.</p>
    </section>
  </main>
</template>

<style scoped>
.benches {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 0;
  margin: 18px 0 46px;
  align-items: stretch;
}
.dues {
  margin-top: 22px;
}
.dues h2 {
  margin-bottom: 8px;
}
.first {
  font-size: 1.15rem;
  max-width: 60ch;
}
</style>
