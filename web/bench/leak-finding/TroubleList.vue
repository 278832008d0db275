<script setup lang="ts">
import type { RunEventBody } from '@core/bench/runs/entries/all.js';
import { say } from '@core/base/words/say.js';
import { sistersAsked, sistersOfDoubt } from '@core/bench/runs/sisters.js';
import type { ConfirmedFillCauses } from '@core/bench/fill-troubles/causes.js';
import { lackBeforeDry } from '@core/bench/runs/criteria.js';
import { dryingLeftMs } from '@core/bench/runs/locks.js';
import { computed, onMounted, ref } from 'vue';
import { placesOf, type Procedure } from '@core/bench/runs/procedure.js';
import type { Leak, RunState } from '@core/bench/runs/state.js';
import { partOfPlace } from '@core/machine/seals/places.js';
import { LEAK_CAUSES, leakPlaceOf, rankCauses, type ConfirmedByPlace, type LeakCause } from '@core/bench/leak-finding/causes.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { get } from '../../base/http/api.js';
import DrawDown from './DrawDown.vue';
import FillTroubles from './FillTroubles.vue';
import SistersLook from './SistersLook.vue';
import RankedCauses from './RankedCauses.vue';
import PartTestForm from '../leak-testing/PartTestForm.vue';
import { formatMl } from '@core/base/units/display.js';
import { wouldLeave } from '@core/bench/runs/wouldLeave.js';
import { useNow } from '../../base/units/now.js';

/** What is wrong and open: each with its next check, and the entry that closes it. */
const props = defineProps<{ procedure: Procedure; state: RunState; file: LoopFile; locked: boolean }>();
const emit = defineEmits<{ send: [body: RunEventBody] }>();
const now = useNow(60_000);
const slowNow = useNow(5000);
/** in a service its own drain step lets the liquid out; where this run filled the loop, the leak is drawn down here */
const pours = computed(() => props.state.pours.length > 0);
const confirmed = ref<ConfirmedByPlace>({});
const confirmedFills = ref<ConfirmedFillCauses>({});
const causes = ref<Record<string, LeakCause>>({});
const fixes = ref<Record<string, string>>({});
/** a leak that was called mended without its cause: the likeliest is proposed by its bar, never taken for granted */
const unsaid = ref<string | null>(null);
onMounted(async () => {
  // away from the network the rule set's own frequencies serve
  const found = await get<{ confirmed: ConfirmedByPlace; fills?: ConfirmedFillCauses }>('/leak-causes').catch(() => null);
  confirmed.value = found?.confirmed ?? {};
  confirmedFills.value = found?.fills ?? {};
});

const names = computed(
  () =>
    new Map([
      ...placesOf(props.procedure).map(({ id, name }) => [id, name] as const),
      ...(props.procedure.facts?.ports ?? []).map(({ name, label }) => [name, label] as const),
    ]),
);
const nameOf = (id: string): string => names.value.get(id) ?? id;
const doubts = computed(() => props.state.doubts.filter(({ answer }) => !answer?.tight));
const leaks = computed(() => props.state.leaks.filter((leak) => !leak.retested?.dry || sistersFor(leak).length > 0));
/** other places with the same cause or bag, as long as nobody has looked at them */
const asked = computed(() => sistersAsked(props.procedure, props.state));
const sistersFor = (leak: Leak) => asked.value.filter(({ eventId }) => eventId === leak.eventId);
const ofExchanges = computed(() => asked.value.filter(({ eventId }) => !props.state.leaks.some((leak) => leak.eventId === eventId)));
/** what had the same screws as a part that felt wrong */
const beside = (part: string) => sistersOfDoubt(props.procedure, part, props.state);
const listed = (sisters: readonly { readonly name: string }[]): string => sisters.map(({ name }) => name).join(', ');
function doubtToo(part: string): void {
  const text = say('same screws as {name}', { name: nameOf(part) });
  for (const { id } of beside(part)) emit('send', { type: 'doubt', part: id, text });
}
const fillTroubles = computed(() => props.state.fillTroubles.filter(({ solved }) => solved === null));
const seals = computed(() => props.state.borrowedSeals.filter(({ fitted }) => fitted === null));
const spills = computed(() => props.state.spills.filter(({ onElectronics }) => onElectronics));
const ranked = (leak: Leak) => {
  const kind = props.file.components.find(({ id }) => id === partOfPlace(leak.where))?.kind ?? null;
  const place = leakPlaceOf(leak.where, kind);
  return rankCauses({ place, when: leak.when, amount: leak.amount }, confirmed.value[place]).filter(({ probability }) => probability >= 0.04).slice(0, 4); // prettier-ignore
};
/** mL that would run at a leak's place if it were undone now; null where nobody can tell */
function above({ where }: Leak): number | null {
  const leaves = wouldLeave(props.procedure, props.state, where, now.value);
  return leaves && Math.max(leaves.alone, leaves.beside, leaves.hangs);
}
const drying = computed(() => dryingLeftMs(props.state, now.value));
function mend(leak: Leak): void {
  const cause = causes.value[leak.eventId];
  unsaid.value = cause ? null : leak.eventId;
  if (!cause) return;
  emit('send', { type: 'leak-mended', leak: leak.eventId, cause, fix: fixes.value[leak.eventId]?.trim() || LEAK_CAUSES[cause].nextCheck });
}
</script>

<template>
  <section
    v-if="doubts.length + leaks.length + spills.length + seals.length + fillTroubles.length + ofExchanges.length"
    class="trouble"
    aria-label="Open troubles"
  >
    <article v-for="doubt in doubts" :key="doubt.eventId">
      <h3>{{ nameOf(doubt.part) }} felt wrong</h3>
      <p>“{{ doubt.text }}”. Test it alone, with air, before any liquid.</p>
      <PartTestForm v-if="!locked" :procedure="procedure" :part="doubt.part" @send="emit('send', $event)" />
      <p v-if="!locked && beside(doubt.part).length > 0" class="beside">
        {{ listed(beside(doubt.part)) }} had the same screws.
        <v-btn size="large" variant="outlined" @click="doubtToo(doubt.part)">Test them alone as well</v-btn>
      </p>
    </article>
    <FillTroubles :procedure="procedure" :state="state" :confirmed="confirmedFills" :locked="locked" @send="emit('send', $event)" />
    <article v-for="seal in seals" :key="seal.eventId">
      <h3>No seal at {{ nameOf(seal.from) }}</h3>
      <p>Its seal went to: {{ seal.text }}. No air, no liquid and no pump before it has one again.</p>
      <div v-if="!locked" class="mend">
        <v-text-field v-model="fixes[seal.eventId]" label="Which seal went in" hide-details density="comfortable" />
        <v-btn
          size="large"
          @click="emit('send', { type: 'seal-fitted', borrowed: seal.eventId, text: fixes[seal.eventId]?.trim() || 'a new one' })"
          >Sealed again</v-btn
        >
      </div>
    </article>
    <article v-for="leak in leaks" :key="leak.eventId">
      <h3>Leak at {{ nameOf(leak.where) }}</h3>
      <template v-if="!leak.mended">
        <p v-if="(above(leak) ?? 0) >= 5">Undone now, about {{ formatMl(above(leak) ?? 0) }} would run here.</p>
        <DrawDown
          v-if="!locked && !leak.inAir && pours"
          :procedure="procedure"
          :state="state"
          :place="leak.where"
          :now-ms="slowNow"
          @send="emit('send', $event)"
        />
        <p v-else-if="above(leak) !== null && (above(leak) ?? 0) < 5">The liquid stands below it: it can be undone.</p>
        <RankedCauses v-model="causes[leak.eventId]" :name="leak.eventId" :causes="ranked(leak)" />
        <p v-if="unsaid === leak.eventId && !causes[leak.eventId]" role="alert" class="danger">Touch the cause that was found first.</p>
        <div v-if="!locked" class="mend">
          <v-text-field v-model="fixes[leak.eventId]" label="What was done" hide-details density="comfortable" />
          <v-btn size="large" @click="mend(leak)">Mended</v-btn>
        </div>
      </template>
      <SistersLook
        v-for="each in sistersFor(leak)"
        :key="each.eventId"
        :asked="each"
        :locked="locked"
        @seen="emit('send', { type: 'sisters-seen', leak: each.eventId, text: '' })"
      />
      <div v-if="leak.mended && !leak.retested?.dry" class="mend">
        <p v-if="leak.inAir">Mended: {{ leak.mended.text }}. It was found with air: start the air test again and let it pass.</p>
        <p v-else>Mended: {{ leak.mended.text }}. Run it again, dry towel under it, and look.</p>
        <div v-if="!locked" class="row">
          <v-btn
            v-if="lackBeforeDry(procedure, state, leak) === null"
            size="large"
            @click="emit('send', { type: 'leak-retested', leak: leak.eventId, dry: true })"
            >{{ leak.inAir ? 'Tight now' : 'Dry now' }}</v-btn
          >
          <v-btn size="large" variant="outlined" @click="emit('send', { type: 'leak-retested', leak: leak.eventId, dry: false })">{{
            leak.inAir ? 'Still leaking' : 'Still wet'
          }}</v-btn>
        </div>
      </div>
    </article>
    <article v-for="each in ofExchanges" :key="each.eventId">
      <h3>{{ nameOf(each.where) }} went out</h3>
      <SistersLook :asked="each" :locked="locked" @seen="emit('send', { type: 'sisters-seen', leak: each.eventId, text: '' })" />
    </article>
    <article v-for="spill in spills" :key="spill.eventId">
      <h3>Electronics were splashed</h3>
      <p v-if="spill.rinsedAt && drying !== null">
        {{ drying > 0 ? `Rinsed. About ${Math.ceil(drying / 3_600_000)} h to dry before power.` : 'Rinsed and dried.' }}
      </p>
      <template v-else>
        <p>Part out, blot, rinse as its maker advises: distilled water, then isopropanol of 99 % or more, no flames, not on acrylic.</p>
        <v-btn
          v-if="!locked"
          size="large"
          @click="emit('send', { type: 'spill-rinsed', spill: spill.eventId, with: 'distilled water, then isopropanol' })"
          >Rinsed: the drying clock starts</v-btn
        >
      </template>
    </article>
  </section>
</template>

<style scoped src="./trouble.css"></style>

<style scoped>
.trouble {
  display: grid;
  gap: 14px;
}
</style>
