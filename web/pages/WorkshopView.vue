<script setup lang="ts">
import type { Shop } from '@core/workshop/people/answers.js';
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { computed } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import ServerParts from '../base/shell/ServerParts.vue';
import BenchList from '../bench/benches/BenchList.vue';
import HeatLimitsForm from '../machine/condition/HeatLimitsForm.vue';
import LearnedVolumes from '../machine/learning/LearnedVolumes.vue';
import LearnedLives from '../workshop/learned-lives/LearnedLives.vue';
import CalendarAddresses from '../workshop/calendar/CalendarAddresses.vue';
import FirstWeek from '../workshop/first-week/FirstWeek.vue';
import DoorForm from '../workshop/owner-door/DoorForm.vue';
import ContactForm from '../workshop/people/ContactForm.vue';
import PeopleList from '../workshop/people/PeopleList.vue';
import SignedInList from '../workshop/people/SignedInList.vue';
import ReadingForm from '../workshop/people/ReadingForm.vue';
import WaysForm from '../workshop/people/WaysForm.vue';
import PeopleHours from '../workshop/planning/PeopleHours.vue';
import SkillsAndKits from '../workshop/planning/SkillsAndKits.vue';
import RatesForm from '../workshop/prices/RatesForm.vue';
import { useSession } from '../workshop/people/sessionStore.js';

/** The workshop itself, one matter at a time: who works here, when, on what, how, for how much. */
const props = defineProps<{ part?: string }>();
const PARTS = {
  people: 'People',
  hours: 'Hours, skills, kits',
  benches: 'Benches',
  ways: 'How it works',
  reading: 'Units and dates',
  prices: 'Prices',
  address: 'Address',
  owners: 'Owners’ page',
  learned: 'Learned volumes',
  lives: 'Learned lives',
  server: 'Server',
} as const;
type Part = keyof typeof PARTS;
const at = computed<Part>(() => (Object.keys(PARTS) as Part[]).find((each) => each === props.part) ?? 'people');

const session = useSession();
const isLead = computed(() => session.account?.role === 'lead');
const { data: shop, problem, take } = usePage((signal) => get<Shop>('/workshop', signal));
const board = usePage(
  (signal) => get<WorkshopBoard>('/plan', signal),
  () => (at.value === 'hours' ? 'hours' : null),
);
async function changed(answer: Shop): Promise<void> {
  take(answer);
  await session.load();
}
</script>

<template>
  <main class="page">
    <h1>Workshop</h1>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <FirstWeek v-if="isLead" />
    <div v-if="shop" class="parts">
      <nav aria-label="Parts of the workshop">
        <router-link
          v-for="(title, each) in PARTS"
          :key="each"
          :to="`/workshop/${each}`"
          :aria-current="at === each ? 'page' : undefined"
          >{{ title }}</router-link
        >
        <router-link to="/workshop/procedure">Procedures</router-link>
        <router-link to="/course">The course</router-link>
      </nav>
      <div class="part">
        <template v-if="at === 'people'">
          <PeopleList :people="shop.people" :is-lead="isLead" @changed="shop && take({ ...shop, people: $event })" />
          <SignedInList v-if="isLead" />
        </template>
        <template v-else-if="at === 'hours'">
          <p v-if="board.problem.value" role="alert" class="danger">{{ board.problem.value }}</p>
          <template v-if="board.data.value">
            <PeopleHours :board="board.data.value" @changed="board.take" @problem="board.problem.value = $event" />
            <SkillsAndKits :board="board.data.value" :is-lead="isLead" @changed="board.take" @problem="board.problem.value = $event" />
            <CalendarAddresses :people="board.data.value.people" />
          </template>
        </template>
        <BenchList
          v-else-if="at === 'benches'"
          :benches="shop.benches"
          :is-lead="isLead"
          @changed="shop && take({ ...shop, benches: $event })"
        />
        <section v-else-if="at === 'ways'">
          <WaysForm :shop="shop" :is-lead="isLead" @changed="changed" />
          <HeatLimitsForm class="mt-8" :shop="shop.workshop" :is-lead="isLead" @changed="changed" />
        </section>
        <section v-else-if="at === 'reading'">
          <h2>Units, dates, language</h2>
          <p class="quiet">For everybody here who chose no own way, for letters and calendars. An own way stands under your account.</p>
          <ReadingForm class="mt-4" :shop="shop.workshop" :is-lead="isLead" @changed="changed" />
        </section>
        <RatesForm v-else-if="at === 'prices'" :shop="shop.workshop" :is-lead="isLead" :today="session.today" @changed="changed" />
        <DoorForm v-else-if="at === 'owners'" :shop="shop.workshop" :is-lead="isLead" @changed="changed" />
        <ContactForm v-else-if="at === 'address'" :shop="shop.workshop" :is-lead="isLead" @changed="changed" />
        <LearnedVolumes v-else-if="at === 'learned'" :is-lead="isLead" />
        <LearnedLives v-else-if="at === 'lives'" :is-lead="isLead" />
        <ServerParts v-else />
      </div>
    </div>
  </main>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr);
  gap: 44px;
  margin-top: 18px;
  align-items: start;
}
nav {
  display: grid;
  position: sticky;
  top: 12px;
}
nav a {
  display: flex;
  align-items: center;
  min-height: 48px;
  padding: 0 14px;
  border-left: 4px solid var(--line);
  color: inherit;
  text-decoration: none;
}
nav a[aria-current] {
  border-left-color: var(--ink);
  font-weight: 660;
}
.part {
  grid-template-columns: minmax(0, 1fr);
  display: grid;
  gap: 34px;
  align-content: start;
}
@media (max-width: 900px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
    gap: 16px;
  }
  nav {
    position: static;
    display: flex;
    flex-wrap: wrap;
  }
  nav a {
    border-left: 0;
    border-bottom: 4px solid var(--line);
  }
  nav a[aria-current] {
    border-bottom-color: var(--ink);
  }
}
</style>
