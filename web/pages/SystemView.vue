<script setup lang="ts">
import { say } from '@core/base/words/say.js';
import { wasFilled } from '@core/physics/live-book/insideNow.js';
import type { LoopOfSystem } from '@core/workshop/machines/answers.js';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { ATTENTION_WORDS, isBesideDue, sayDue } from '@core/workshop/due-dates/attention.js';
import { BOOKED_KINDS, isBuild } from '@core/workshop/job-kinds/kinds.js';
import { formatMlWithSd } from '@core/base/units/display.js';
import { hasReservoir } from '@core/machine/loop-file/marks.js';
import { isOutline } from '@core/machine/loop-file/outline.js';
import { REVISION_KINDS } from '@core/machine/loop-file/revisionKinds.js';
import LoopActions from '../workshop/machines/LoopActions.vue';
import { useSession } from '../workshop/people/sessionStore.js';
import type { Standing } from '@core/workshop/messages/fitting.js';
import { wayTo } from '@core/workshop/messages/wayTo.js';
import MachineAnswers from '../workshop/calls/MachineAnswers.vue';
import { useArrivals } from '../workshop/jobs/arrivals.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import PolicyWords from '../workshop/due-dates/PolicyWords.vue';
import DueCard from '../workshop/due-dates/DueCard.vue';
import { call, wordsOf } from '../base/http/api.js';
import { filledOf } from '../machine/profile/filledOf.js';
import NotDrawn from '../machine/loop/NotDrawn.vue';
import InsideWords from '../machine/profile/InsideWords.vue';
import LoopProfile from '../machine/profile/LoopProfile.vue';
import { useNotices } from '../base/shell/notices.js';
import { useDates } from '../base/units/dates.js';
import AppointmentWords from '../workshop/jobs/AppointmentWords.vue';
import FalloutStages from '../workshop/fallout/FalloutStages.vue';
import FileList from '../workshop/files/FileList.vue';
import PartLots from '../workshop/lots/PartLots.vue';
import { useMachinePage } from '../workshop/machines/useMachinePage.js';
import UsageCard from '../workshop/usage/UsageCard.vue';
import MachineHistory from '../workshop/machines/MachineHistory.vue';

// what is written on this page comes when somebody writes
const UnitTestDialog = defineAsyncComponent(() => import('../bench/leak-testing/UnitTestDialog.vue'));
const StartRunDialog = defineAsyncComponent(() => import('../bench/runs/StartRunDialog.vue'));
const OwnerLinks = defineAsyncComponent(() => import('../workshop/owner-door/OwnerLinks.vue'));
const MessageDialog = defineAsyncComponent(() => import('../workshop/messages/MessageDialog.vue'));
const CameFilledDialog = defineAsyncComponent(() => import('../machine/loop/CameFilledDialog.vue'));
const EditSystemDialog = defineAsyncComponent(() => import('../workshop/machines/EditSystemDialog.vue'));
const ServiceDialog = defineAsyncComponent(() => import('../workshop/machines/ServiceDialog.vue'));
const props = defineProps<{ id: string }>();
const router = useRouter();
const notices = useNotices();
const coolants = useCoolants();
const { data: page, problem, missing, load } = useMachinePage(() => props.id);
watch(page, (answer) => {
  if (answer) document.title = say('{name} · Lavacrum', { name: answer.system.name });
});
const dates = useDates();
const editing = ref(false);
const writing = ref(false);
const session = useSession();
/** what the letter that fits is chosen by */
const standing = computed((): Standing => {
  const [job] = page.value?.jobs ?? [];
  const due = page.value?.dues.find(({ kind }) => kind === 'coolant-service') ?? null;
  return {
    where: job?.where ?? (page.value?.answers.ready ? 'ready' : null),
    notComeOn: job?.notComeOn ?? null,
    slot: job?.appointment ?? null,
    partsOn: job?.partsOn ?? null,
    due: due && { dueOn: due.dueOn, postponed: due.postponed },
    today: page.value?.today ?? '',
  };
});
const arrivals = useArrivals(() => load());
/** the open job: it is what one looks for next */
const awaited = computed(() => (page.value?.system.state === 'in-service' ? (page.value.jobs[0] ?? null) : null));
const servicing = ref(false);
const starting = ref<LoopOfSystem | null>(null);
const alone = ref<LoopOfSystem | null>(null);

async function changed(text: string): Promise<void> {
  notices.say(text);
  await load();
}

/** the build that waits for its bench */
const isWithoutReservoir = (loopId: string | null): boolean => {
  const file = page.value?.loops.find(({ id }) => id === loopId)?.revision?.file;
  return file !== undefined && !isOutline(file) && !hasReservoir(file);
};
const bookedBuild = computed(() => page.value?.jobs.find(({ kind, state }) => isBuild(kind) && state === 'booked') ?? null);
const several = computed(() => (page.value?.loops.length ?? 0) > 1);
const cameIn = ref<string | null>(null);
async function notFilled(loopId: string): Promise<void> {
  try {
    await call('DELETE', `/loops/${loopId}/came-filled`);
    changed(say('It counts as never filled.'));
  } catch (error) {
    notices.say(wordsOf(error));
  }
}
const waitingRunOf = (loopId: string): string | null =>
  page.value?.system.state === 'waiting'
    ? (page.value.loops.find(({ id }) => id === loopId)?.runs.find(({ state }) => state === 'active')?.id ?? null)
    : null;
const loopName = (loopId: string): string | null =>
  several.value ? (page.value?.loops.find(({ id }) => id === loopId)?.name ?? null) : null;
const channelWords = { phone: say('likes a call'), text: say('likes a text'), email: say('likes an e-mail') };
/** dust beside what is wet: it is cleaned with other work, and never the first thing to say */
const dues = computed(() => {
  const all = page.value?.dues ?? [];
  return [...all.filter((due) => !isBesideDue(due)), ...all.filter(isBesideDue)];
});
const everFilled = computed(() => page.value?.loops.some(({ inside }) => inside !== null && wasFilled(inside)) ?? false);
</script>

<template>
  <main class="page">
    <div v-if="problem" class="stack">
      <h1>{{ missing ? 'No such machine' : 'This machine cannot be shown' }}</h1>
      <p role="alert">{{ problem }}</p>
      <p><router-link to="/systems">All machines</router-link></p>
    </div>
    <template v-else-if="page">
      <header class="head">
        <div>
          <h1>{{ page.system.name }}</h1>
          <p class="quiet">
            {{
              [
                page.system.tag,
                page.system.caseText,
                page.system.builtBy ? `built by ${page.system.builtBy}` : '',
                ATTENTION_WORDS[page.attention],
              ]
                .filter(Boolean)
                .join(' · ')
            }}
          </p>
        </div>
        <div class="owner">
          <p>
            <strong>{{ page.owner.name }}</strong> <span class="quiet">{{ channelWords[page.owner.channel] }}</span>
          </p>
          <p class="figures">
            <a v-if="page.owner.phone" class="phone" :href="`tel:${page.owner.phone.replace(/\s/g, '')}`">{{ page.owner.phone }}</a>
          </p>
          <p class="quiet">{{ page.owner.email }}</p>
        </div>
        <div class="row no-print">
          <v-btn v-if="page.answers.ready" size="large" @click="arrivals.say(page.answers.ready, 'fetched', page.today)">Fetched</v-btn>
          <v-btn v-else-if="awaited" size="large" :to="`/jobs/${awaited.id}`">Its job</v-btn>
          <v-btn
            v-if="page.system.state === 'in-service'"
            size="large"
            :variant="page.answers.ready || awaited ? 'text' : 'flat'"
            :to="`/systems/${page.system.id}/jobs/new`"
            >Take it in</v-btn
          >
          <v-btn v-if="wayTo(page.owner) && session.may('desk')" variant="text" size="large" @click="writing = true">Write</v-btn>
          <v-btn variant="text" size="large" :to="`/systems/${page.system.id}/connectors`">Connectors</v-btn>
          <v-btn variant="text" size="large" :to="`/systems/${page.system.id}/papers`">Papers</v-btn>
          <v-btn v-if="session.may('desk')" variant="outlined" size="large" @click="editing = true">Edit</v-btn>
        </div>
      </header>
      <MachineAnswers
        :machine="page.answers"
        :next="page.next"
        :today="page.today"
        :loop="page.loops.find(({ id }) => id === page?.answers?.loops[0]?.id) ?? null"
        class="mt-4"
      />
      <p v-if="page.system.note || page.owner.note" class="note">
        {{ [page.system.note, page.owner.note].filter(Boolean).join(' ') }}
      </p>

      <div class="columns">
        <div class="stack">
          <section v-for="loop in page.loops" :key="loop.id" class="sheet loop">
            <header class="spread">
              <h2>{{ loop.name }}</h2>
              <p v-if="loop.revision" class="quiet figures">
                {{ formatMlWithSd(loop.revision.volumeMl, loop.revision.volumeSdMl) }} whole ·
                {{ coolants.find(loop.coolantProductId)?.name ?? 'coolant not chosen' }} · revision {{ loop.revision.number }},
                {{ REVISION_KINDS[loop.revision.kind] }}<br />
                <InsideWords :inside="loop.inside" />
                <template v-if="loop.cameFilled && loop.runs.length === 0"
                  ><br />filled elsewhere,
                  {{ coolants.find(loop.cameFilled.productId)?.name ?? 'with an unknown coolant: it mixes with nothing'
                  }}{{ loop.cameFilled.since ? `, since about ${dates.day(loop.cameFilled.since)}` : '' }}
                  <button type="button" class="link no-print" @click="notFilled(loop.id)">It was not</button></template
                >
              </p>
            </header>
            <NotDrawn v-if="loop.revision && isOutline(loop.revision.file)" :file="loop.revision.file" :loop-id="loop.id" />
            <LoopProfile
              v-else-if="loop.revision"
              :loop="loop.revision.file"
              :colour="coolants.find(loop.coolantProductId)?.colour"
              :height="210"
              :filled="filledOf(loop.inside)"
            />
            <FalloutStages
              :loop-id="loop.id"
              :coolant-class="coolants.find(loop.coolantProductId)?.coolantClass ?? null"
              :found="loop.fallout"
              :today="page.today"
              :may-write="session.may('machines')"
              @changed="load"
            />
            <LoopActions
              v-if="!(loop.revision && isOutline(loop.revision.file))"
              :loop="loop"
              :system="page.system"
              :build-id="bookedBuild?.id ?? null"
              @start="starting = loop"
              @alone="alone = loop"
              @came-filled="cameIn = loop.id"
            />
          </section>
          <section v-if="page.loops.length === 0" class="sheet">
            <h2>No loop yet</h2>
            <p class="mt-2">
              Lay out the loop from generic parts in flow order. Volume, coolant to order and the first fill plan follow as you go.
            </p>
            <v-btn size="large" class="mt-4" :to="`/systems/${page.system.id}/loops/new`">Lay out the loop</v-btn>
          </section>
          <p v-else class="no-print">
            <router-link :to="`/systems/${page.system.id}/loops/new`">A second loop in the same case</router-link>
          </p>
          <section class="mt-4">
            <MachineHistory :key="page.system.id" :system="page.system" :at="page" />
          </section>
        </div>

        <aside class="stack">
          <article v-for="job in page.jobs" :key="job.id" class="booked">
            <h2>
              <router-link :to="`/jobs/${job.id}`">{{ BOOKED_KINDS[job.kind].label }}</router-link>
            </h2>
            <p class="quiet">
              {{ job.state === 'active' ? (page.system.state === 'waiting' ? 'waits, off the bench' : 'on the bench') : 'booked'
              }}<template v-if="job.neededBy">, needed by {{ dates.day(job.neededBy) }}</template>
            </p>
            <p v-if="job.appointment"><AppointmentWords :appointment="job.appointment" /></p>
          </article>
          <p v-if="page.loan" class="booked">
            <router-link :to="`/jobs/${page.loan.jobId}`">{{ page.loan.name }}</router-link> is with {{ page.owner.name
            }}<template v-if="page.loan.untilDay">, back {{ sayDue(page.loan.untilDay, page.today) }}</template>
          </p>
          <p v-for="lot in page.earlyLots" :key="lot" class="early">
            <strong>{{ lot }}</strong> fails earlier here than others: look at the liquid.
            <router-link to="/workshop/lives">Learned lives</router-link>
          </p>
          <DueCard
            v-for="due in dues"
            :key="due.id"
            :due="due"
            :today="page.today"
            :big="false"
            :loop-name="loopName(due.loopId)"
            :waiting-run-id="waitingRunOf(due.loopId)"
            :no-reservoir="isWithoutReservoir(due.loopId)"
            @changed="changed"
            @service="servicing = true"
          />
          <p v-if="page.dues.length === 0" class="quiet">
            {{
              page.system.state === 'retired' ? 'Retired: nothing falls due.' : 'No date yet. It is made from the first signed-off fill.'
            }}
          </p>
          <PolicyWords :own="page.system.policy" :owners="page.owner.policy" />
          <UsageCard
            v-if="page.system.state !== 'planned'"
            :system-id="page.system.id"
            :page="page.usage"
            :today="page.today"
            :retired="page.system.state === 'retired'"
            @reload="load"
          />
          <PartLots
            v-if="page.loops.length > 0"
            :system-id="page.system.id"
            :lots="page.lots"
            :loops="page.loops.map(({ id, name, revision }) => ({ id, name, file: revision?.file ?? null }))"
            :today="page.today"
            @reload="load"
          />
          <OwnerLinks :system-id="page.system.id" />
          <FileList owner="systems" :owner-id="page.system.id" usual="invoice" />
          <v-btn
            v-if="everFilled && page.system.state === 'in-service' && page.dues.every((due) => due.kind !== 'coolant-service')"
            variant="outlined"
            class="no-print"
            @click="servicing = true"
            >Record a service</v-btn
          >
        </aside>
      </div>
      <MessageDialog
        v-if="writing"
        :system-id="page.system.id"
        :machine="page.system.name"
        :owner="page.owner.name"
        :reading="page.owner.reading"
        :standing="standing"
        @close="writing = false"
        @sent="changed"
      />
      <EditSystemDialog v-if="editing" v-model="editing" :system="page.system" :owner="page.owner" @saved="load" />
      <CameFilledDialog v-if="cameIn !== null" :model-value="true" :loop-id="cameIn" @update:model-value="cameIn = null" @saved="changed" />
      <ServiceDialog
        v-if="servicing"
        v-model="servicing"
        :system-id="page.system.id"
        :loops="page.loops"
        :today="page.today"
        @saved="changed"
      />
      <UnitTestDialog
        v-if="alone?.revision"
        :loop-id="alone.id"
        :system-name="page.system.name"
        :file="alone.revision.file"
        @close="alone = null"
        @started="router.push(`/runs/${$event}`)"
      />
      <StartRunDialog
        v-if="starting"
        :loop-id="starting.id"
        :loop-name="starting.name"
        :system-name="page.system.name"
        @close="starting = null"
        @started="router.push(`/runs/${$event}`)"
      />
    </template>
  </main>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 12px 44px;
  align-items: start;
}
.head p {
  margin: 2px 0 0;
}
.owner {
  text-align: right;
}
.phone {
  font-size: 1.5rem;
  text-decoration: none;
}
.booked {
  border-left: 4px solid var(--ink);
  padding-left: 14px;
}
.booked h2::first-letter {
  text-transform: uppercase;
}
.note {
  margin: 12px 0 0;
  padding-left: 14px;
  border-left: 3px solid var(--line);
  max-width: 80ch;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.75fr) minmax(320px, 1fr);
  gap: 44px;
  margin-top: 26px;
}
.columns aside {
  gap: 26px;
}
.loop header p {
  margin: 0;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
  /* the desk wants the date before the history */
  .columns aside {
    order: -1;
  }
  .head {
    grid-template-columns: 1fr auto;
  }
  .owner {
    text-align: left;
    grid-row: 2;
  }
}
@media (max-width: 600px) {
  .head {
    grid-template-columns: 1fr;
  }
  .owner {
    grid-row: auto;
  }
}
</style>
