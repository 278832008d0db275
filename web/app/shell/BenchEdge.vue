<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { useEarlyTyping } from '../../base/keys/earlyTyping.js';
import { computed, defineAsyncComponent, onMounted, onScopeDispose, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useDisplay, useTheme } from 'vuetify';
import { mdiDotsVertical } from '@mdi/js';
import { urgentWords } from '@core/edge/words/health.js';
import { ROLES } from '@core/workshop/people/roles.js';
import { formatClock } from '@core/base/units/display.js';
import { useSession } from '../../workshop/people/sessionStore.js';
import { switchLook } from '../../base/look/vuetify.js';
import ReckonerDialog from '../../machine/shop-sums/ReckonerDialog.vue';
import { useOutbox } from '../../base/outbox/deviceOutbox.js';
import { usePush } from '../../base/push/usePush.js';
import { useBenches } from '../../bench/benches/benchStore.js';
import { useNow } from '../../base/units/now.js';
import { useServerHealth } from '../../base/shell/serverHealth.js';
import { useShortcuts } from '../../base/keys/shortcuts.js';
import KeyCap from '../../base/keys/KeyCap.vue';
import KeysDialog from '../../base/keys/KeysDialog.vue';
import DialogFocus from '../../base/look/DialogFocus.vue';

/** The front edge of the bench: where one goes, and every clock that runs, on every screen. */
/** what a call needs comes with the first one */
const CallSheet = defineAsyncComponent(() => import('../../workshop/calls/CallSheet.vue'));
const session = useSession();
const benches = useBenches();
const router = useRouter();
const route = useRoute();
const theme = useTheme();
const now = useNow();
const keysOpen = ref(false);
const sumsOpen = ref(false);
const callOpen = ref(false);
/** somebody types the number as soon as the key is pressed: what comes before the sheet is there is kept for it */
const early = useEarlyTyping(callOpen);

/** s; without the event stream, new runs of colleagues appear within this time */
const REFRESH_S = 30;
onMounted(() => void benches.refresh());
// a run that was begun or signed off on the page just left shows at once
watch(
  () => route.path,
  () => void benches.refresh(),
);
const { live } = usePush({ run: refreshSoon, benches: refreshSoon, resync: refreshSoon });
const timer = window.setInterval(() => {
  if (!live.value) void benches.refresh();
}, REFRESH_S * 1000);
/** ms; several entries in a row ask once */
const TOGETHER_MS = 250;
let soon: number | undefined;
function refreshSoon(): void {
  window.clearTimeout(soon);
  soon = window.setTimeout(() => void benches.refresh(), TOGETHER_MS);
}
onScopeDispose(() => {
  window.clearInterval(timer);
  window.clearTimeout(soon);
});

const places = [
  { to: '/today', label: say('Today') },
  { to: '/systems', label: say('Machines') },
  { to: '/plan', label: say('Plan') },
  { to: '/store', label: say('Store') },
  { to: '/workshop', label: say('Workshop') },
];

/** at a bench the edge is for clocks: places fold into one button, and the machine under the hands stands first */
const atBench = computed(() => /^\/runs\/[^/]+$/.test(route.path));
/** on a phone five names do not fit beside the clocks either */
const { xs } = useDisplay();
const folded = computed(() => atBench.value || xs.value);
const here = (id: string): boolean => route.path === `/runs/${id}`;
/** what hands do when a clock is over; any other clock says its own name */
const THEN: Readonly<Record<string, string>> = { 'wet-run': 'look at the joints', firmware: 'read the temperatures' };

const clocks = computed(() =>
  // what waits has no clock: it stands on Today and in the plan
  benches.runs
    .filter(({ waits }) => !waits)
    .map((run) => {
      const running = run.timers[0];
      const leftS = running ? running.seconds - (now.value + run.aheadMs - Date.parse(running.startedAt)) / 1000 : null;
      return {
        id: run.id,
        name: run.systemName,
        step: sayWord(run.stepTitle),
        face: leftS === null ? null : leftS > 0 ? formatClock(leftS) : say('time is up'),
        ended: leftS !== null && leftS <= 0,
        then: running ? (THEN[running.id] ?? running.label.toLowerCase()) : null,
      };
    })
    .sort((a, b) => Number(here(b.id)) - Number(here(a.id))),
);

const outbox = useOutbox();
const waiting = computed(() => outbox.value.waiting.length);
const kept = computed(() => waiting.value - outbox.value.keeping.size);
const refused = computed(() => outbox.value.refused.length);
const parts = useServerHealth();
const serverWords = computed(() => (parts.value ? urgentWords(parts.value) : null));
const leaving = ref(false);
/** with entries waiting it is said first: they stay here, under the name of who made them */
async function signOut(sure = false): Promise<void> {
  if (waiting.value > 0 && !sure) {
    leaving.value = true;
    return;
  }
  leaving.value = false;
  await session.signOut();
  await router.push('/sign-in');
}

useShortcuts({
  today: () => void router.push('/today'),
  systems: () => void router.push('/systems'),
  plan: () => void router.push('/plan'),
  store: () => void router.push('/store'),
  workshop: () => void router.push('/workshop'),
  'new-system': () => void router.push('/systems/new'),
  search: () => void router.push('/search'),
  call: () => {
    callOpen.value = true;
  },
  sums: () => {
    sumsOpen.value = true;
  },
  keys: () => {
    keysOpen.value = true;
  },
});
</script>

<template>
  <nav class="edge no-print" aria-label="Main">
    <v-menu v-if="folded" location="top start">
      <template #activator="{ props: activator }">
        <button v-bind="activator" class="edge-places" type="button">Places</button>
      </template>
      <v-list>
        <v-list-item v-for="place in places" :key="place.to" :title="place.label" :to="place.to" />
      </v-list>
    </v-menu>
    <router-link
      v-for="place in folded ? [] : places"
      :key="place.to"
      class="edge-place"
      :class="{ here: route.path.startsWith(place.to) }"
      :to="place.to"
      >{{ place.label }}</router-link
    >
    <ul class="edge-clocks plain-list" aria-label="Runs in progress">
      <li v-for="clock in clocks" :key="clock.id">
        <router-link class="edge-clock" :class="{ ended: clock.ended }" :to="`/runs/${clock.id}`">
          <span class="edge-name">{{ clock.name }}</span>
          <span v-if="clock.face" class="edge-face figures">{{ clock.face }}</span>
          <span v-if="clock.ended" class="edge-step">{{ clock.then }}</span>
          <span v-if="!clock.face" class="edge-step">{{ clock.step }}</span>
        </router-link>
      </li>
    </ul>
    <router-link v-if="serverWords" class="edge-waits" to="/workshop">{{ serverWords }}</router-link>
    <p v-if="kept + refused > 0" class="edge-waits" role="status">
      <span v-if="kept > 0">{{ kept }} {{ kept === 1 ? 'waits' : 'wait' }} on this device{{ outbox.away ? ', server away' : '' }}</span>
      <span v-if="refused > 0">{{ refused }} not taken</span>
    </p>
    <button class="edge-sums" type="button" :aria-expanded="callOpen" @click="callOpen = !callOpen">Call <KeyCap action="call" /></button>
    <button class="edge-sums spare" type="button" @click="sumsOpen = true">Sums <KeyCap action="sums" /></button>
    <v-menu location="top end">
      <template #activator="{ props: activator }">
        <button v-bind="activator" class="edge-me" type="button" :aria-label="`${session.account?.personName}: account and look`">
          <v-icon :icon="mdiDotsVertical" />
        </button>
      </template>
      <v-list min-width="240">
        <v-list-item
          :title="session.account?.personName"
          :subtitle="`${ROLES[session.account?.role ?? 'technician']}, ${session.account?.workshopName}`"
        />
        <v-divider />
        <v-list-item :title="theme.global.name.value === 'day' ? 'Dark look' : 'Light look'" @click="switchLook" />
        <v-list-item title="Search everything" subtitle="press f" to="/search" />
        <v-list-item title="Messages to owners" to="/messages" />
        <v-list-item title="Your account" to="/own-password" />
        <v-list-item title="Sums" @click="sumsOpen = true" />
        <v-list-item title="Keys" @click="keysOpen = true" />
        <v-list-item title="Sign out" @click="signOut()" />
      </v-list>
    </v-menu>
    <Teleport to="body"
      ><CallSheet v-if="callOpen" v-model="callOpen" :at-bench="atBench" :typed="early.typed.value" @ready="early.end"
    /></Teleport>
    <ReckonerDialog v-model="sumsOpen" />
    <v-dialog v-model="leaving" max-width="520">
      <v-card class="pa-6">
        <DialogFocus />
        <h2>{{ waiting }} {{ waiting === 1 ? 'entry waits' : 'entries wait' }} on this device</h2>
        <p class="mt-2 mb-4">
          The server does not have {{ waiting === 1 ? 'it' : 'them' }} yet. Signed out, {{ waiting === 1 ? 'it stays' : 'they stay' }} here
          and {{ waiting === 1 ? 'goes' : 'go' }} under the name of who made {{ waiting === 1 ? 'it' : 'them' }} once somebody of this
          workshop signs in on this device.
        </p>
        <div class="row">
          <v-btn size="large" @click="leaving = false">Stay until delivered</v-btn>
          <v-btn size="large" variant="text" @click="signOut(true)">Sign out</v-btn>
        </div>
      </v-card>
    </v-dialog>
    <KeysDialog v-model="keysOpen" />
  </nav>
</template>

<style scoped>
.edge {
  position: fixed;
  inset: auto 0 0 0;
  height: var(--edge-height);
  background: var(--slab);
  color: var(--on-slab);
  display: flex;
  align-items: stretch;
  padding: 0 20px;
  gap: 2px;
  z-index: 1000;
  border-top: 4px solid var(--slab-raised);
}
.edge-place {
  display: grid;
  place-items: center;
  min-width: 92px;
  padding: 0 14px;
  text-decoration: none;
  font-size: 1.05rem;
  color: var(--on-slab-soft);
}
.edge-places {
  margin: 8px 8px 8px 0;
  padding: 0 18px;
  border-radius: 3px;
  background: var(--slab-raised);
  color: var(--on-slab);
}
.edge-place.here {
  color: var(--on-slab);
  box-shadow: inset 0 -5px 0 var(--on-slab);
  font-weight: 620;
}
.edge-place:hover {
  color: var(--on-slab);
}
.edge-sums {
  padding: 0 16px;
  color: var(--on-slab-soft);
}
.edge-waits {
  display: grid;
  align-content: center;
  margin: 0;
  padding: 0 14px;
  line-height: 1.25;
  white-space: nowrap;
  color: var(--on-slab);
  border-left: 4px solid var(--on-slab);
}
.edge-clocks {
  flex: 1;
  display: flex;
  gap: 8px;
  overflow-x: auto;
  scrollbar-width: none;
  padding-block: 8px;
}
.edge-clock:first-child {
  /* to the right while all fit; from the left once they do not */
  margin-left: auto;
}
.edge-clock {
  flex: none;
  display: flex;
  align-items: baseline;
  gap: 12px;
  height: 100%;
  padding: 0 16px;
  background: var(--slab-raised);
  border-radius: 3px;
  text-decoration: none;
  color: var(--on-slab);
  white-space: nowrap;
  line-height: 44px;
}
.edge-name {
  color: var(--on-slab-soft);
  max-width: 15ch;
  overflow: hidden;
  text-overflow: ellipsis;
}
.edge-face {
  font-size: 1.3rem;
  font-weight: 560;
}
.edge-clock.ended {
  background: var(--on-slab);
  color: var(--slab);
}
.edge-clock.ended .edge-name {
  color: var(--slab);
}
.edge-me {
  width: 52px;
  color: var(--on-slab-soft);
}
.edge :focus-visible {
  outline-color: #b9a5ff;
  outline-offset: -3px;
}
@media (max-width: 900px) {
  .edge {
    padding: 0 6px;
  }
  .edge-place {
    min-width: 0;
    padding: 0 12px;
  }
  /* name over time: two whole clocks instead of one and a half */
  .edge-clock {
    flex-direction: column;
    align-items: flex-start;
    justify-content: center;
    gap: 0;
    padding: 0 10px;
    line-height: 1.2;
  }
  .edge-name {
    max-width: 12ch;
    font-size: 0.85rem;
  }
  .edge-face {
    font-size: 1.1rem;
  }
  .edge-place {
    font-size: 0.95rem;
  }
}
/* a phone has no keys to press */
@media (max-width: 600px) {
  .edge :deep(kbd) {
    display: none;
  }
  .edge-sums {
    padding: 0 10px;
  }
  /* it stands in the menu as well: the clock needs the room */
  .edge-sums.spare {
    display: none;
  }
}
</style>
