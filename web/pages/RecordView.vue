<script setup lang="ts">
import { serverNowIso } from '../base/units/now.js';
import { useLimitWords } from '@core/edge/words/dates.js';
import { waitsForWords } from '@core/edge/words/waiting.js';
import { OWED } from '@core/workshop/due-dates/owed.js';
import { capital, say } from '@core/base/words/say.js';
import type { RunEvent } from '@core/bench/runs/log.js';
import type { RunRecord } from '@core/edge/records/record.js';
import { computed, onMounted, onScopeDispose, ref, watch } from 'vue';
import { coolantReadWords } from '@core/bench/runs/entries/coolantRead.js';
import { strengthWords } from '@core/edge/words/strength.js';
import { CLARITY_WORDS } from '@core/machine/liquids/rinsing.js';
import { SIGNS } from '@core/workshop/jobs/scope.js';
import { LEAK_SCHOOLS, WET_SCHOOLS } from '@core/physics/leak-testing/schools.js';
import type { StepKind } from '@core/bench/runs/procedure.js';
import { ENDS_LOOP, JOB_KINDS } from '@core/workshop/job-kinds/kinds.js';
import { colourWords } from '@core/edge/words/colour.js';
import { formatIn, formatMl, formatMlWithSd, formatMm, grouped } from '@core/base/units/display.js';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { deviceOutbox, useOutbox } from '../base/outbox/deviceOutbox.js';
import type { OutboxItem } from '../base/outbox/items.js';
import { useSession } from '../workshop/people/sessionStore.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import TestFacts from '../bench/verdicts/TestFacts.vue';
import ThreeLines from '../bench/verdicts/ThreeLines.vue';
import VerdictPlates from '../bench/verdicts/VerdictPlates.vue';
import BaselineTable from '../bench/baseline/BaselineTable.vue';
import ServiceReportView from '../bench/services/ServiceReportView.vue';
import LoopProfile from '../machine/profile/LoopProfile.vue';
import { useNotices } from '../base/shell/notices.js';
import { useDates } from '../base/units/dates.js';
import { downloadLog, downloadRecord } from '../bench/runs/recordFiles.js';
import ReasonDialog from '../base/look/ReasonDialog.vue';

const props = defineProps<{ id: string }>();
const dates = useDates();
const notices = useNotices();
const session = useSession();
const page = usePage(
  (signal) => get<{ record: RunRecord; corrections: RunEvent[] }>(`/runs/${props.id}/record`, signal),
  () => props.id,
);
const { data: answer, load } = page;
const problem = computed(() =>
  page.missing.value ? say('There is no signed record here; the run may still be open.') : page.problem.value,
);
watch(answer, (found) => {
  if (found) document.title = say('Record of {name} · Lavacrum', { name: found.record.system.name });
});
const correcting = ref(false);
const coolants = useCoolants();
/** the record names its coolant; the colour is looked up and may be gone with the bottle */
const colour = computed(() => coolants.products.find(({ name }) => name === record.value?.coolant?.productName)?.colour ?? null);
const record = computed(() => answer.value?.record ?? null);
/** a record says only what happened: without such steps nothing was tested, poured or bled */
const had = (...kinds: readonly StepKind[]): boolean =>
  record.value?.had === undefined || kinds.some((kind) => record.value?.had?.includes(kind));
const endsLoop = computed(() => record.value?.service !== undefined && ENDS_LOOP.includes(record.value.service.kind));
/** a top-up gives back what is missing: nothing was planned, nothing stood on the bench */
const pours = computed(() => had('fill') && (record.value?.service?.kind !== 'top-up' || record.value.volumes.pouredMl > 0));
const settles = computed(() => !endsLoop.value && !record.value?.unit && had('fill'));
const title = computed(() => {
  const service = record.value?.service;
  const words = service ? say(JOB_KINDS[service.kind].label) : record.value?.unit ? say('test out of the case') : 'commissioning';
  return capital(words);
});

const failed = computed(() => [
  ...(record.value?.dryTest?.before ?? [])
    .filter(({ verdict }) => verdict === 'fail')
    .map(({ testNumber }) => say('air test {testNumber}', { testNumber })),
  ...(record.value?.leaks ?? []).map(({ place, inAir }) =>
    say('leak at {place}{say}', { place, say: inAir ? say(', found with air') : '' }),
  ),
]);
const mended = computed(() => (record.value?.leaks ?? []).flatMap((leak) => (leak.mended ? [`${leak.place}: ${leak.mended.text}`] : [])));

onMounted(() => void coolants.load().catch(() => undefined));

function correct(text: string): void {
  correcting.value = false;
  void deviceOutbox.add({
    kind: 'entry',
    id: crypto.randomUUID(),
    at: serverNowIso(),
    made: session.account,
    why: null,
    tries: 0,
    runId: props.id,
    body: { type: 'correction', about: null, text },
  });
}
/** corrections of this record that the server does not have yet, or did not take */
const outbox = useOutbox();
const ownCorrections = (items: readonly OutboxItem[]) =>
  items.flatMap((item) => (item.kind === 'entry' && item.runId === props.id && item.body.type === 'correction' ? [{ id: item.id, text: item.body.text, why: item.why }] : [])); // prettier-ignore
const unsaved = computed(() => ownCorrections(outbox.value.waiting));
const refused = computed(() => ownCorrections(outbox.value.refused));
onScopeDispose(
  deviceOutbox.onDelivered((item) => {
    if (item.kind !== 'entry' || item.runId !== props.id) return;
    notices.say(say('Correction added beside the record.'));
    void load();
  }),
);
</script>

<template>
  <main class="page record">
    <div v-if="problem" class="stack">
      <h1>No record</h1>
      <p role="alert">{{ problem }}</p>
      <p><router-link :to="`/runs/${id}`">Open the run</router-link></p>
    </div>
    <template v-else-if="record">
      <header class="spread">
        <div>
          <h1>{{ title }} of {{ record.system.name }}</h1>
          <p class="quiet">
            {{ record.system.owner }} · {{ record.loop.name }}, revision {{ record.loop.revision
            }}<template v-if="!record.unit"> as built</template>
          </p>
        </div>
        <div class="row no-print">
          <v-btn v-if="!record.unit" :to="`/runs/${id}/report`">Owner’s report</v-btn>
          <v-btn variant="outlined" @click="answer && downloadRecord(answer)">As a file</v-btn>
          <v-btn variant="outlined" @click="answer && downloadLog(answer)">Log as a table</v-btn>
          <v-btn variant="outlined" @click="correcting = true">Add a correction</v-btn>
        </div>
      </header>
      <p class="sealed">
        Signed off {{ dates.dayAndTime(record.signedOffAt) }} by {{ record.signedOffBy
        }}<template v-if="record.remark">: {{ record.remark }}</template>
      </p>
      <p v-if="record.simulated" class="danger simulated">
        A simulated bench played this run: what was read from its instruments says nothing about the machine.
      </p>
      <p v-for="each in unsaved" :key="each.id" role="status">Waits on this device for the server: {{ each.text }}</p>
      <p v-for="each in refused" :key="each.id" role="alert" class="danger">
        Not taken: {{ each.text }} ({{ each.why }})
        <button type="button" class="link" @click="deviceOutbox.dismiss(each.id)">Read</button>
      </p>
      <section v-if="answer?.corrections.length" class="corrections">
        <h2>Corrections</h2>
        <ul class="plain-list">
          <li v-for="each in answer.corrections" :key="each.id">
            <span class="quiet figures">{{ dates.dayAndTime(each.at) }}, {{ each.by }}</span>
            {{ each.body.type === 'correction' ? each.body.text : '' }}
          </li>
        </ul>
      </section>
      <VerdictPlates class="mt-2" :verdicts="record.verdicts ?? []" />
      <ThreeLines :passed-over="record.passedOver.map(({ step, reason }) => `${step}: ${reason}`)" :failed="failed" :mended="mended" />
      <section class="sheet mt-4">
        <LoopProfile :loop="record.loop.file" :colour="colour" :filled="endsLoop || record.unit ? new Map() : null" :height="200" />
      </section>
      <ServiceReportView v-if="record.service" class="mt-6" :report="record.service" />
      <div class="facts">
        <section v-if="pours">
          <h2>Volumes</h2>
          <dl class="figures">
            <dt>Poured</dt>
            <dd>{{ formatMl(record.volumes.pouredMl) }}</dd>
            <dt>Planned</dt>
            <dd>{{ formatMlWithSd(record.volumes.plannedMl, record.volumes.plannedSdMl) }} <span class="quiet">estimate</span></dd>
            <template v-if="record.unit">
              <dt>Stayed inside</dt>
              <dd>{{ formatMl(record.unit.leftMl) }}</dd>
            </template>
            <template v-else>
              <dt>Verdict</dt>
              <dd>{{ record.volumes.balance }}</dd>
              <dt>Coolant</dt>
              <dd>
                {{
                  record.coolant
                    ? `${record.coolant.productName}${record.coolant.lot ? `, lot ${record.coolant.lot}` : ''}`
                    : 'not recorded'
                }}
              </dd>
            </template>
          </dl>
        </section>
        <section v-if="had('dry-test', 'wet-run', 'bleed') || record.leaks?.length">
          <h2>Tightness</h2>
          <dl class="figures">
            <template v-if="record.unit">
              <dt>{{ record.unit.name }}</dt>
              <dd :class="{ danger: !record.unit.tight }">{{ record.unit.tight ? 'tight' : 'leaks' }}: {{ record.unit.how }}</dd>
            </template>
            <dt>School</dt>
            <dd>
              {{ LEAK_SCHOOLS[record.schools.leak].label
              }}<template v-if="LEAK_SCHOOLS[record.schools.leak].wet">, wet {{ WET_SCHOOLS[record.schools.wet].label }}</template>
            </dd>
            <TestFacts :record="record" />
            <template v-if="record.strength"
              ><dt>Strength</dt>
              <dd>
                {{ strengthWords(record.strength)
                }}<template v-if="record.coolantRead && record.coolantRead.strength !== null"
                  ><br />measured {{ coolantReadWords(record.coolantRead) }}, {{ dates.time(record.coolantRead.at) }}</template
                >
              </dd></template
            >
            <template v-if="record.coolantRead && (!record.strength || record.coolantRead.strength === null)"
              ><dt>Coolant measured</dt>
              <dd>{{ coolantReadWords(record.coolantRead) }}, {{ dates.time(record.coolantRead.at) }}</dd></template
            >
            <template v-for="read in record.colours ?? []" :key="read.at"
              ><dt>Colour beside the sample</dt>
              <dd class="figures">{{ colourWords(read) }}, {{ dates.time(read.at) }}</dd></template
            >
            <template v-if="record.lastWater"
              ><dt>Last water</dt>
              <dd>
                {{ CLARITY_WORDS[record.lastWater.clarity]
                }}{{ record.lastWater.ph === null ? '' : `, pH ${grouped(record.lastWater.ph, 1)}` }}
              </dd></template
            >
            <template v-if="had('bleed')"
              ><dt>Bleeding</dt>
              <dd>
                {{ record.bleeding.cycles }} cycles,
                {{ record.bleeding.lastRiseMm === null ? 'rise not read' : `last rise ${formatMm(record.bleeding.lastRiseMm)}`
                }}{{ record.bleeding.bled ? '' : record.bleeding.seen ? ', called bled as seen' : ', not by the criterion' }}
              </dd></template
            >
            <template v-if="settles"
              ><dt>Settling</dt>
              <dd>to be checked {{ dates.day(record.settling.from) }} to {{ dates.day(record.settling.to) }}</dd></template
            >
          </dl>
        </section>
      </div>
      <section v-if="record.intake && (record.intake.symptom || record.intake.condition || record.intake.signs.length)" class="mt-8">
        <h2>As it came in</h2>
        <dl>
          <template v-if="record.intake.symptom"
            ><dt>The owner said</dt>
            <dd>{{ record.intake.symptom }}</dd></template
          >
          <template v-if="record.intake.signs.length"
            ><dt>Seen</dt>
            <dd>{{ record.intake.signs.map((sign) => SIGNS[sign]).join('; ') }}</dd></template
          >
          <template v-if="record.intake.condition"
            ><dt>Its state</dt>
            <dd>{{ record.intake.condition }}</dd></template
          >
          <template v-if="record.intake.colour"
            ><dt>Colour</dt>
            <dd class="figures">{{ colourWords(record.intake.colour) }}</dd></template
          >
          <template v-if="record.intake.flowLph !== null"
            ><dt>Flow</dt>
            <dd class="figures">{{ formatIn('L/h', record.intake.flowLph) }}</dd></template
          >
        </dl>
      </section>
      <BaselineTable :before="record.befores ?? []" :after="record.baselines" />
      <section v-if="record.owed?.length || record.holdsForNow?.length" class="mt-8">
        <h2>Stays open</h2>
        <ul>
          <li v-for="fix in record.holdsForNow ?? []" :key="fix.what">
            Holds for now: {{ fix.what }}, until {{ fix.awaits }}, by {{ dates.day(fix.until) }}. Until then:
            {{ useLimitWords(fix.limits) }}.
          </li>
          <li v-for="each in record.owed ?? []" :key="`${each.kind} ${each.what}`">
            {{ OWED[each.kind] }}: {{ each.what }}, by {{ dates.day(each.until) }}
          </li>
        </ul>
      </section>
      <section v-if="record.exchanged?.length" class="mt-8">
        <h2>Exchanged</h2>
        <ul>
          <li v-for="each in record.exchanged" :key="each">{{ each }}</li>
        </ul>
      </section>
      <section v-if="record.photos?.length" class="mt-8 photos" aria-label="Photographs">
        <a v-for="photo in record.photos" :key="photo.photoId" :href="`/api/photos/${photo.photoId}`"
          ><img :src="`/api/photos/${photo.photoId}`" :alt="photo.caption || 'Photograph'"
        /></a>
      </section>
      <section v-if="record.waits?.length" class="mt-8">
        <h2>Waited, off the bench</h2>
        <ul>
          <li v-for="each in record.waits" :key="each.from">
            {{ dates.dayAndTime(each.from) }} to {{ dates.dayAndTime(each.to) }}: {{ waitsForWords(each) }}
          </li>
        </ul>
      </section>
      <section v-if="record.notNeeded.length" class="mt-8">
        <h2>Not needed</h2>
        <ul>
          <li v-for="each in record.notNeeded" :key="each">{{ each }}</li>
        </ul>
      </section>
      <details class="mt-8">
        <summary>The whole log, {{ record.log.length }} entries</summary>
        <ol class="plain-list log figures">
          <li v-for="each in record.log" :key="each.seq" :class="{ back: each.takenBack }">
            <span class="quiet">{{ dates.dayAndTime(each.at) }}</span><span>{{ each.text }}</span
            ><span class="quiet">{{ each.by }}</span>
          </li>
        </ol>
      </details>
      <p class="quiet mt-8">
        Figures marked as estimates are to be checked against the makers' instructions. Local rules and safety data sheets come first.
      </p>
      <ReasonDialog
        v-model="correcting"
        title="Add a correction"
        label="What the record should say, and why"
        button="Add it"
        :least="3"
        warning="The record stays as it was signed; the correction stands beside it with your name."
        @say="correct"
      />
    </template>
  </main>
</template>

<style scoped>
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.photos img {
  height: 150px;
}
header p {
  margin: 2px 0 0;
}
.sealed {
  border: 2px solid var(--ink);
  padding: 8px 14px;
  margin: 14px 0;
  display: inline-block;
}
.corrections li {
  padding: 4px 0;
}
.facts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 40px;
  margin-top: 26px;
}
dl {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 5px 16px;
  margin: 8px 0 0;
}
.record :deep(dt) {
  color: var(--ink-soft);
}
.record :deep(dd) {
  margin: 0;
}
summary {
  cursor: pointer;
  font-weight: 620;
  font-size: 1.1rem;
}
.log li {
  display: grid;
  grid-template-columns: 170px 1fr auto;
  gap: 14px;
  padding: 3px 0;
  border-top: 1px solid var(--line-soft);
}
.back span:nth-child(2) {
  text-decoration: line-through;
}
@media (max-width: 900px) {
  .facts {
    grid-template-columns: 1fr;
    gap: 20px;
  }
  .log li {
    grid-template-columns: 1fr;
  }
}
</style>
