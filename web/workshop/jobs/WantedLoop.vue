<script setup lang="ts">
import { computed } from 'vue';
import { say } from '@core/base/words/say.js';
import type { LoopChange } from '@core/machine/loop-change/loopChange.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import type { WantedLoop } from '@core/workshop/jobs/answers.js';
import { useDates } from '../../base/units/dates.js';
import ChangeWork from '../../machine/loop-change/ChangeWork.vue';
import LoopProfile from '../../machine/profile/LoopProfile.vue';

/** Which drawing a loop shall become, and what that asks for. */
const wanted = defineModel<number | null>({ required: true });
const props = defineProps<{
  wishes: readonly WantedLoop[];
  /** the chosen one and the work that it asks for; null: none is chosen */
  chosen: { readonly file: LoopFile; readonly change: LoopChange } | null;
  loopId: string | null;
  colour: string | null;
  /** it may go together as it was */
  optional?: boolean;
  at: (path: string) => string[];
}>();
const dates = useDates();
const choices = computed(() => [
  ...(props.optional ? [{ value: null, title: say('as it was') }] : []),
  ...props.wishes.map(({ number, reason, at }) => ({
    value: number,
    title: reason
      ? say('revision {number}: {reason}', { number, reason })
      : say('revision {number} of {day}', { number, day: dates.day(at) }),
  })),
]);
</script>

<template>
  <section class="wanted">
    <p v-if="wishes.length === 0" class="empty-wish">
      <strong>Nothing is drawn yet.</strong> Draw the loop as it shall become and save it as wanted: the difference is the work, the tubes
      to cut and what has to be bought.
      <router-link v-if="loopId" :to="`/loops/${loopId}`">Draw it</router-link>
    </p>
    <template v-else>
      <v-select
        v-model="wanted"
        :items="choices"
        :label="optional ? 'It goes together' : 'What the loop shall become'"
        :error-messages="at('wanted')"
      />
      <LoopProfile v-if="chosen" :loop="chosen.file" :filled="new Map()" :colour="colour" :height="110" label="The loop as it is wanted" />
      <ChangeWork v-if="chosen" :work="chosen.change" :wanted="chosen.file" />
    </template>
  </section>
</template>

<style scoped>
.wanted {
  display: grid;
  gap: 12px;
}
.empty-wish {
  margin: 0;
  border-left: 5px solid var(--ink);
  padding-left: 12px;
}
</style>
