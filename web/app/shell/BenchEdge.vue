<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { useEarlyTyping } from '../../base/keys/earlyTyping.js';
import { computed, defineAsyncComponent, onMounted, onScopeDispose, reactive, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useDisplay } from 'vuetify';
import { mdiDotsVertical } from '@mdi/js';
import { urgentWords } from '@core/edge/words/health.js';
import { formatClock } from '@core/base/units/display.js';
import { useSession } from '../../workshop/people/sessionStore.js';
import { useOutbox } from '../../base/outbox/deviceOutbox.js';
import { usePush } from '../../base/push/usePush.js';
import { useBenches } from '../../bench/benches/benchStore.js';
import { useNow } from '../../base/units/now.js';
import { newerVersion } from '../../base/shell/newerVersion.js';
import { useServerHealth } from '../../base/shell/serverHealth.js';
import { useShortcuts } from '../../base/keys/shortcuts.js';
import KeyCap from '../../base/keys/KeyCap.vue';

/** The front edge of the bench: where one goes, and every clock that runs, on every screen. */
/** what menus, a call, sums and the list of keys need comes when they are first asked for */
const CallSheet = defineAsyncComponent(() => import('../../workshop/calls/CallSheet.vue'));
const AccountMenu = defineAsyncComponent(() => import('./AccountMenu.vue'));
const PlacesMenu = defineAsyncComponent(() => import('./PlacesMenu.vue'));
const LeaveDialog = defineAsyncComponent(() => import('./LeaveDialog.vue'));
const ReckonerDialog = defineAsyncComponent(() => import('../../machine/shop-sums/ReckonerDialog.vue'));
const KeysDialog = defineAsyncComponent(() => import('../../base/keys/KeysDialog.vue'));
const session = useSession();
const benches = useBenches();
const router = useRouter();
const route = useRoute();
const now = useNow();
const keysOpen = ref(false);
const sumsOpen = ref(false);
const callOpen = ref(false);
/** once opened they stay, with what was typed */
const used = reactive({ keys: false, sums: false, me: false, places: false });
const meLabel = computed(() => {
  const personName = session.account?.personName ?? '';
  return newerVersion.value
    ? say('{personName}: account and look; a newer version is ready', { personName })
    : say('{personName}: account and look', { personName });
});
const meButton = ref<HTMLElement>();
const placesButton = ref<HTMLElement>();
watch(keysOpen, () => (used.keys = true));
watch(sumsOpen, () => (used.sums = true));
/** somebody types the number as soon as the key is pressed: what comes before the sheet is there is kept for it */
const early = useEarlyTyping(callOpen);
/** a sum is two keys away, also the first time */
const earlySum = useEarlyTyping(sumsOpen);

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
// a menu that is made anew would open by itself
watch(folded, () => (used.places = false));
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
    <template v-if="folded">
      <button ref="placesButton" class="edge-places" type="button" aria-haspopup="menu" @click="used.places = true">Places</button>
      <PlacesMenu v-if="used.places" :activator="placesButton" :places="places" />
    </template>
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
    <button
      ref="meButton"
      class="edge-me"
      :class="{ newer: newerVersion }"
      type="button"
      aria-haspopup="menu"
      :aria-label="meLabel"
      @click="used.me = true"
    >
      <v-icon :icon="mdiDotsVertical" />
    </button>
    <AccountMenu v-if="used.me" :activator="meButton" @sums="sumsOpen = true" @keys="keysOpen = true" @sign-out="signOut()" />
    <Teleport to="body"
      ><CallSheet v-if="callOpen" v-model="callOpen" :at-bench="atBench" :typed="early.typed.value" @ready="early.end"
    /></Teleport>
    <ReckonerDialog v-if="used.sums" v-model="sumsOpen" :typed="earlySum.typed.value" @ready="earlySum.end" />
    <LeaveDialog v-if="leaving" v-model="leaving" :waiting="waiting" @sure="signOut(true)" />
    <KeysDialog v-if="used.keys" v-model="keysOpen" />
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
  position: relative;
  width: 52px;
  color: var(--on-slab-soft);
}
.edge-me.newer::after {
  content: '';
  position: absolute;
  top: 16px;
  right: 12px;
  width: 12px;
  height: 12px;
  border-radius: 50%;
  background: var(--on-slab);
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
