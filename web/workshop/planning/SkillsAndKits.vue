<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { reactive, ref, watch } from 'vue';
import { KIT_KEYS, KITS, SKILL_KEYS, SKILLS, type KitKind, type Skill } from '@core/workshop/planning/capacities.js';
import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { call } from '../../base/http/api.js';
import { changeBoard, type BoardEvents } from './changeBoard.js';
import NumberField from '../../base/units/NumberField.vue';

/** What the workshop has few of: who can do what, and how many of each kit there are. */
const props = defineProps<{ board: WorkshopBoard; isLead: boolean }>();
const emit = defineEmits<BoardEvents>();
const counts = reactive<Record<KitKind, number | null>>({ 'pump-supply': null, 'pressure-tester': null, 'flush-rig': null });
const open = ref(false);

watch(
  () => props.board.kits,
  (kits) => {
    for (const kind of KIT_KEYS) counts[kind] = kits.find((kit) => kit.kind === kind)?.count ?? null;
  },
  { immediate: true },
);

const send = changeBoard(emit);
const can = (skills: readonly Skill[] | null, skill: Skill): boolean => skills === null || skills.includes(skill);
/** whoever can do everything is written down as nobody in particular */
function toggle(person: WorkshopBoard['people'][number], skill: Skill): Promise<void> {
  const next = SKILL_KEYS.filter((each) => can(person.skills, each) !== (each === skill));
  const skills = next.length === SKILL_KEYS.length ? null : next;
  return send(() => call<WorkshopBoard>('PUT', `/people/${person.id}/skills`, { body: { skills, version: person.version } }));
}
function saveKits(): Promise<void> {
  const kits = KIT_KEYS.flatMap((kind) => (counts[kind] === null ? [] : [{ kind, count: counts[kind] }]));
  return send(() => call<WorkshopBoard>('PUT', '/kits', { body: { kits, version: props.board.workshopVersion } }));
}
const kitWords = (): string => {
  const known = props.board.kits.map(({ kind, count }) => `${count} × ${sayWord(KITS[kind])}`);
  return known.length > 0 ? known.join(', ') : say('not counted: each is always there');
};
</script>

<template>
  <section>
    <h2>Skills and kits</h2>
    <table class="skills">
      <thead>
        <tr>
          <th scope="col"><span class="hidden">Who</span></th>
          <th v-for="skill in SKILL_KEYS" :key="skill" scope="col">{{ SKILLS[skill] }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="person in board.people" :key="person.id">
          <th scope="row">{{ person.name }}</th>
          <td v-for="skill in SKILL_KEYS" :key="skill">
            <label
              ><input
                type="checkbox"
                :checked="can(person.skills, skill)"
                :disabled="!isLead"
                :aria-label="`${person.name} ${SKILLS[skill]}`"
                @change="toggle(person, skill)"
            /></label>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="figures">
      Kits: {{ kitWords() }}.
      <button v-if="isLead" type="button" class="link" :aria-expanded="open" @click="open = !open">count them</button>
    </p>
    <form v-if="open" class="kits" novalidate @submit.prevent="saveKits">
      <NumberField v-for="kind in KIT_KEYS" :key="kind" v-model="counts[kind]" :label="KITS[kind]" unit="pcs" />
      <v-btn type="submit">Save</v-btn>
      <span class="quiet">An empty field is a kit nobody counts.</span>
    </form>
  </section>
</template>

<style scoped>
.skills {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-weight: 400;
  text-align: left;
  padding: 4px 12px 4px 0;
}
tbody th {
  white-space: nowrap;
  font-weight: 500;
}
tr + tr,
tbody tr {
  border-top: 1px solid var(--line-soft);
}
label {
  display: grid;
  place-items: center start;
  min-height: 40px;
}
input {
  width: 22px;
  height: 22px;
  accent-color: var(--ink);
}
.hidden {
  position: absolute;
  clip-path: inset(50%);
}
.link {
  text-decoration: underline;
}
.kits {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.kits .quiet {
  grid-column: 2 / -1;
  align-self: center;
}
</style>
