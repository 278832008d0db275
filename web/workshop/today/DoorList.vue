<script setup lang="ts">
import type { Coming, Ready } from '@core/workshop/jobs/answers.js';
import { BOOKED_KINDS } from '@core/workshop/job-kinds/kinds.js';
import { daysBetween } from '@core/base/units/calendar.js';
import { useDates } from '../../base/units/dates.js';
import { useArrivals } from '../jobs/arrivals.js';
import { useSession } from '../people/sessionStore.js';

/** The door: what is brought today, and what is done and waits for its owner. */
defineProps<{ comingIn: readonly Coming[]; ready: readonly Ready[]; today: string }>();
const emit = defineEmits<{ changed: [] }>();
const dates = useDates();
const session = useSession();
const arrivals = useArrivals(() => emit('changed'));
</script>

<template>
  <section v-if="comingIn.length || ready.length" class="lists" aria-label="At the door">
    <div v-if="comingIn.length">
      <h2>Comes in</h2>
      <ul class="plain-list">
        <li v-for="each in comingIn" :key="each.jobId">
          <span class="figures time">{{ each.awaitedOn === today ? dates.time(each.at) : dates.weekday(each.awaitedOn) }}</span>
          <span>
            <router-link :to="`/jobs/${each.jobId}`"
              ><strong>{{ each.systemName }}</strong></router-link
            >
            {{ BOOKED_KINDS[each.kind].short }}
            <span class="quiet">{{ each.ownerName }}, {{ each.bench }}</span>
          </span>
          <span v-if="each.broughtOn" class="here">here</span>
          <span v-else-if="session.may('machines')" class="acts">
            <button type="button" :aria-label="`${each.systemName} is here`" @click="arrivals.say(each, 'brought', today)">
              It is here
            </button>
            <button
              v-if="each.awaitedOn <= today"
              type="button"
              :aria-label="`${each.systemName} did not come`"
              @click="arrivals.say(each, 'not-come', today)"
            >
              Did not come
            </button>
          </span>
        </li>
      </ul>
    </div>
    <div v-if="ready.length">
      <h2>Ready, not fetched</h2>
      <ul class="plain-list">
        <li v-for="each in ready" :key="each.jobId">
          <span class="figures time">{{ daysBetween(each.since, today) === 0 ? 'today' : `${daysBetween(each.since, today)} d` }}</span>
          <span>
            <router-link :to="`/jobs/${each.jobId}`"
              ><strong>{{ each.systemName }}</strong></router-link
            >
            {{ BOOKED_KINDS[each.kind].short }}
            <span class="quiet">{{ [each.ownerName, each.phone].filter(Boolean).join(', ') }}</span>
          </span>
          <span v-if="session.may('machines')" class="acts">
            <button type="button" :aria-label="`${each.systemName} was fetched`" @click="arrivals.say(each, 'fetched', today)">
              Fetched
            </button>
          </span>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped src="./rows.css"></style>

<style scoped>
.here {
  font-weight: 700;
}
</style>
