<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useTwin } from '../machine/compute/useTwin.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { blocksFromBaselines } from '@core/physics/diagnosis/measured.js';
import CausePanel from '../machine/condition/CausePanel.vue';
import DrainPanel from '../machine/draining/DrainPanel.vue';
import FillPanel from '../machine/filling/FillPanel.vue';
import ComparePanel from '../machine/heat/ComparePanel.vue';
import HeatPanel from '../machine/heat/HeatPanel.vue';
import { useHeatSetup } from '../machine/heat/useHeatSetup.js';
import { useLoopPage } from '../machine/loop/useLoopPage.js';
import AirPanel from '../machine/air/AirPanel.vue';

/** The loop profile of one loop: what drains, how it fills, where gas stays, how warm it gets; two variants compared. */
const props = defineProps<{ id: string }>();

const MODES = { drain: 'Drain', fill: 'Fill', air: 'Air and flow', heat: 'Heat', cause: 'Cause', compare: 'Compare' } as const;
type Mode = keyof typeof MODES;

const route = useRoute();
const router = useRouter();
const coolants = useCoolants();
const { loop, problem, notDrawn } = useLoopPage(() => props.id);
const mode = computed<Mode>(() => (Object.hasOwn(MODES, String(route.query.show)) ? (route.query.show as Mode) : 'drain'));
const colour = computed(() => coolants.find(loop.value?.coolantProductId ?? null)?.colour ?? null);
const liquid = computed(() => coolants.liquidOf(loop.value?.coolantProductId ?? null));
const measured = computed(
  () =>
  loop.value ? blocksFromBaselines(loop.value.file, loop.value.baselines.map(({ reading }) => reading), liquid.value) : [], // prettier-ignore
);
const setup = useHeatSetup(() => props.id, loop);
const twin = useTwin(
  () => loop.value?.file ?? null,
  () => liquid.value,
);
</script>

<template>
  <main class="page">
    <div v-if="problem" class="stack">
      <h1>{{ problem }}</h1>
      <p v-if="notDrawn"><router-link :to="`/loops/${id}`">Lay out the loop</router-link></p>
      <p><router-link to="/systems">All machines</router-link></p>
    </div>
    <template v-else-if="loop">
      <header class="head">
        <div>
          <p class="quiet">
            <router-link :to="`/systems/${loop.systemId}`">{{ loop.systemName }}</router-link>,
            <router-link :to="`/loops/${id}`">{{ loop.name }}</router-link>
          </p>
          <h1>Loop profile</h1>
        </div>
        <nav class="modes" aria-label="What to look at">
          <button
            v-for="(words, key) in MODES"
            :key="key"
            type="button"
            :class="{ now: mode === key }"
            :aria-current="mode === key ? 'page' : undefined"
            @click="router.replace({ query: { show: key } })"
          >
            {{ words }}
          </button>
        </nav>
      </header>
      <p v-if="twin.problem.value" class="sheet mt-4">{{ twin.problem.value }}</p>
      <template v-else>
        <DrainPanel
          v-if="mode === 'drain'"
          :loop="loop.file"
          :twin="twin"
          :colour="colour"
          :inside="loop.inside"
          :policy="loop.drainPolicy"
        />
        <FillPanel v-else-if="mode === 'fill'" :loop="loop.file" :twin="twin" :colour="colour" :liquid="liquid" :inside="loop.inside" />
        <AirPanel v-else-if="mode === 'air'" :loop="loop.file" :twin="twin" :colour="colour" :liquid="liquid" />
        <HeatPanel
          v-else-if="mode === 'heat' && setup"
          v-model:setup="setup"
          :loop="loop.file"
          :twin="twin"
          :colour="colour"
          :measured="measured"
          :fans="loop.fans"
          :system-id="loop.systemId"
          :loop-id="id"
        />
        <CausePanel v-else-if="mode === 'cause'" :loop="loop.file" :twin="twin" :baselines="loop.baselines.map(({ reading }) => reading)" />
        <ComparePanel
          v-else-if="setup"
          :setup="setup"
          :loop-id="id"
          :loop="loop.file"
          :twin="twin"
          :colour="colour"
          :liquid="liquid"
          :measured="measured"
          :revisions="loop.revisions"
          :fans="loop.fans"
        />
      </template>
    </template>
  </main>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: end;
  gap: 24px;
  margin-bottom: 14px;
}
.modes {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.modes button {
  min-height: var(--touch);
  padding: 0 22px;
  border-radius: 3px;
  font-size: 1.05rem;
}
.modes .now {
  background: var(--slab);
  color: var(--on-slab);
  font-weight: 600;
}
</style>
