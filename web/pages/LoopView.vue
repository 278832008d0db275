<script setup lang="ts">
import { wasFilled } from '@core/physics/live-book/insideNow.js';
import { listed, say } from '@core/base/words/say.js';
import { formatMl } from '@core/base/units/display.js';
import type { LoopAnswer } from '@core/workshop/machines/answers.js';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router';
import { mdiRedo, mdiUndo } from '@mdi/js';
import { emptyLoop } from '@core/machine/catalogue/starters.js';
import { isOutline } from '@core/machine/loop-file/outline.js';
import { insideRevision, type RevisionKind } from '@core/machine/loop-file/revisionKinds.js';
import { partName, type LoopFile } from '@core/machine/loop-file/loopFile.js';
import { loopVolume } from '@core/machine/loop-file/volume.js';
import { setupOf } from '@core/physics/heat/setup.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { call, get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useSubmit } from '../base/http/useSubmit.js';
import { useLearned } from '../machine/learning/learnedStore.js';
import { useNotices } from '../base/shell/notices.js';
import StaleNotice from '../base/shell/StaleNotice.vue';
import { useDates } from '../base/units/dates.js';
import { filledOf } from '../machine/profile/filledOf.js';
import { downloadLoop, readDroppedLoop } from '../machine/loop/loopTransfer.js';
import LoopParts from '../machine/loop/LoopParts.vue';
import LoopTabs from '../machine/loop/LoopTabs.vue';
import { isComputed, tabOf, type LoopTab } from '../machine/loop/loopTabs.js';
import KeepLayout from '../machine/layouts/KeepLayout.vue';
import SaveRevisionDialog from '../machine/loop/SaveRevisionDialog.vue';
import { useSession } from '../workshop/people/sessionStore.js';
import { useLoopDraft, type Draft } from '../machine/loop/useLoopDraft.js';

const props = defineProps<{ id?: string; systemId?: string }>();

const router = useRouter();
const route = useRoute();
const coolants = useCoolants();
const session = useSession();
const notices = useNotices();
const dates = useDates();
const submit = useSubmit();
const learned = useLearned();
/** what the page begins with: a saved loop, or null for a new one */
interface Begun {
  readonly saved: LoopAnswer | null;
}
const {
  data: begun,
  problem: trouble,
  missing,
  take: begin,
} = usePage<Begun>(
  async (signal) => {
    // learned volumes matter once a part is added: the page does not wait for them
    void learned.load().catch(() => undefined);
    await coolants.load();
    return { saved: props.id ? await get<LoopAnswer>(`/loops/${props.id}`, signal) : null };
  },
  () => props.id ?? 'new',
);
const problem = computed(() => (missing.value ? say('There is no such loop in this workshop.') : trouble.value));
const saved = computed(() => begun.value?.saved ?? null);
/** nothing can be typed before the saved loop is there to be changed */
const ready = computed(() => begun.value !== null);
const importProblem = ref<string | null>(null);
const selected = ref<string | null>(null);
const saving = ref(false);
const dropping = ref(false);
const picker = ref<HTMLInputElement | null>(null);
/** what is looked at stands in the address: a new loop has none of its own yet */
const tab = computed<LoopTab>({
  get: () => (props.id || route.query.show === 'drawing' ? tabOf(route.query.show) : 'parts'),
  set: (show) => void router.replace({ query: show === 'parts' ? {} : { show } }),
});
const DrawingSheet = defineAsyncComponent(() => import('../machine/drawing/DrawingSheet.vue'));
const LoopComputed = defineAsyncComponent(() => import('../machine/loop/LoopComputed.vue'));
const editor = useLoopDraft(() => `lavacrum.loop.${props.id ?? `new-${props.systemId}`}`);
const draft = editor.draft;

const systemId = computed(() => saved.value?.systemId ?? props.systemId ?? '');
/** what is inside the loop as it was saved; what is being changed holds nothing yet */
const inside = computed(() => (editor.dirty.value ? null : (saved.value?.inside ?? null)));
const current = computed(() => insideRevision(saved.value?.revisions ?? []));
// what was only stated is laid out for the first time: that says what is inside
const isFilled = computed(() => saved.value !== null && !isOutline(saved.value.file) && wasFilled(saved.value.inside));
/** a run goes on in it, and it was never filled before: its build */
const isBuilding = computed(() => saved.value?.isBuilding === true);
const bookAt = (number: number): string => `/systems/${systemId.value}/jobs/new?kind=loop-change&loop=${props.id}&wanted=${number}`;
async function drawOn(number: number): Promise<void> {
  setFile(await get<LoopFile>(`/loops/${props.id}/revisions/${number}/file`));
  notices.say(say('Wanted revision {number} is drawn here; what is inside stays as it is.', { number }), editor.undo);
}
const product = computed(() => coolants.find(draft.value.coolantProductId));
watch(
  begun,
  (now) => {
    if (!now) return;
    const { saved: loop } = now;
    if (loop)
      editor.begin(
        // what was only stated is not edited: its parts are laid out anew
        { name: loop.name, coolantProductId: loop.coolantProductId, file: isOutline(loop.file) ? emptyLoop(loop.name) : loop.file },
        loop.version,
      );
    else editor.begin({ name: say('Main loop'), coolantProductId: null, file: emptyLoop('Main loop') }, 0);
  },
  { flush: 'sync' },
);
/** nothing can be computed of what was only stated, or has no parts yet */
const onlyLaidOut = computed(() => saved.value === null || draft.value.file.components.length === 0);
/** what is said of its air and load, for the parts that are drawn now */
const heat = computed(() => (saved.value ? setupOf(draft.value.file, saved.value.heatSetup) : null));
const shown = computed<LoopTab>(() => (onlyLaidOut.value && isComputed(tab.value) ? 'parts' : tab.value));
const stand = (answer: LoopAnswer): void => begin({ saved: answer });

const change = (next: Partial<Draft>): void => editor.change(next);
const setFile = (file: LoopFile): void => change({ file });

async function importFile(file: File | undefined): Promise<void> {
  dropping.value = false;
  if (!file) return;
  const read = await readDroppedLoop(file);
  importProblem.value = 'problem' in read ? read.problem : null;
  if ('problem' in read) return;
  change({ file: read.loop, ...(read.loop.name ? { name: read.loop.name.slice(0, 120) } : {}) });
  notices.say(
    say('{name} laid out: {length} parts, {length2} tubes.', {
      name: file.name,
      length: read.loop.components.length,
      length2: read.loop.tubes.length,
    }),
    editor.undo,
  );
}

const withName = (): LoopFile => ({ ...draft.value.file, name: draft.value.name });

/** what the last save was to be: a wish saved over a newer revision stays one */
const asked = ref<RevisionKind>('planned');
async function save(kind: RevisionKind = 'planned', reason = '', version = saved.value?.version ?? 0): Promise<void> {
  asked.value = kind;
  const { name, coolantProductId } = draft.value;
  const answer = await submit.run((idempotencyKey) =>
    props.id
      ? call<LoopAnswer>('POST', `/loops/${props.id}/revisions`, {
          body: { kind, reason, name, coolantProductId, version, file: withName() },
          idempotencyKey,
        })
      : call<LoopAnswer>('POST', '/loops', {
          body: { systemId: props.systemId, name, coolantProductId, file: withName() },
          idempotencyKey,
        }),
  );
  if (!answer) return;
  saving.value = false;
  stand(answer);
  const number = answer.revisions[0]?.number ?? 0;
  notices.say(
    kind === 'wanted'
      ? say('Kept as wanted, revision {number}: what is inside stays as it is until a job makes it so.', { number })
      : say('Saved as revision {number}.', { number }),
  );
  if (kind === 'wanted') await router.push(isBuilding.value ? `/runs/${answer.activeRunId}` : bookAt(number));
  if (!props.id) await router.replace(`/loops/${answer.id}`);
}

async function parted(answer: LoopAnswer, names: readonly string[]): Promise<void> {
  stand(answer);
  notices.say(say('{length} loops now: {join}.', { length: names.length, join: listed(names) }));
  await router.push(`/systems/${answer.systemId}`);
}

const compare = (from: { name?: string; coolantProductId?: string | null; file?: LoopFile } | null) => ({
  name: from?.name,
  coolant: coolants.find(from?.coolantProductId ?? null)?.name,
  parts: from?.file?.components.map(partName).join(', '),
  volume: from?.file ? formatMl(loopVolume(from.file).volumeMl) : '',
});
const stale = computed(() =>
  submit.stale.value
    ? { yours: compare(submit.stale.value.yours as Draft), theirs: compare(submit.stale.value.theirs as LoopAnswer) }
    : null,
);

function takeTheirs(): void {
  const theirs = submit.stale.value?.theirs as LoopAnswer;
  editor.forget();
  submit.clear();
  stand(theirs);
}

onBeforeRouteLeave(() => {
  if (editor.dirty.value) notices.say(say('Your changes to the loop are not saved; they wait on this device.'));
});
</script>

<template>
  <main
    class="page"
    :class="{ dropping, workspace: shown === 'drawing' }"
    @dragover.prevent="dropping = true"
    @dragleave.self="dropping = false"
    @drop.prevent="importFile($event.dataTransfer?.files[0])"
    @keydown="editor.onKey"
  >
    <div v-if="problem" class="stack">
      <h1>{{ problem }}</h1>
      <p><router-link to="/systems">All machines</router-link></p>
    </div>
    <template v-else-if="ready">
      <header class="head">
        <div class="naming">
          <p class="quiet">
            <router-link v-if="systemId" :to="`/systems/${systemId}`">{{ saved?.systemName ?? 'the machine' }}</router-link><template
              v-if="saved"
              >, revision {{ current?.number }} of {{ dates.day(current?.at ?? '') }}</template
            >
          </p>
          <input
            class="loop-name"
            :value="draft.name"
            aria-label="Name of the loop"
            maxlength="120"
            @change="change({ name: ($event.target as HTMLInputElement).value.trim() || draft.name })"
          />
        </div>
        <LoopTabs v-model="tab" :only-laid-out="onlyLaidOut" />
        <div class="row tools no-print">
          <v-btn :icon="mdiUndo" variant="text" :disabled="!editor.canUndo.value" aria-label="Undo" @click="editor.undo" />
          <v-btn :icon="mdiRedo" variant="text" :disabled="!editor.canRedo.value" aria-label="Redo" @click="editor.redo" />
          <v-btn
            :disabled="draft.file.components.length === 0 || (Boolean(saved) && !editor.dirty.value)"
            :loading="submit.busy.value"
            @click="saved ? (saving = true) : save()"
            >{{ saved ? 'Save revision' : 'Save the loop' }}</v-btn
          >
        </div>
      </header>

      <p v-if="editor.restored.value" class="notice" role="status">
        Unsaved changes from this device were put back. <button type="button" @click="editor.forget()">Drop them</button>
      </p>
      <p v-if="saved?.activeRunId" class="notice">
        <template v-if="isBuilding">It is being built: save another drawing as wanted, and the build goes on with that.</template>
        <template v-else>This loop stands on a bench: its run keeps the revision it began with.</template>
        <router-link :to="`/runs/${saved.activeRunId}`">To the bench</router-link>
      </p>
      <p v-if="importProblem" role="alert" class="danger">{{ importProblem }} Nothing was changed.</p>
      <StaleNotice
        v-if="stale"
        v-bind="stale"
        :labels="{ name: 'Name', coolant: 'Coolant', parts: 'Parts in flow order', volume: 'Volume' }"
        @take-theirs="takeTheirs"
        @keep-mine="
          save(asked === 'wanted' ? asked : 'change', 'saved over a newer revision', (submit.stale.value?.theirs as LoopAnswer).version)
        "
      />
      <p v-else-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>

      <DrawingSheet
        v-if="shown === 'drawing'"
        v-model:selected="selected"
        :loop="draft.file"
        :liquid="coolants.liquidOf(draft.coolantProductId)"
        :colour="product?.colour ?? null"
        :filled="filledOf(inside)"
        :heat="heat"
        :groups="saved?.fans"
        @change="setFile"
      />
      <LoopComputed
        v-else-if="saved && isComputed(shown)"
        :saved="saved"
        :file="draft.file"
        :coolant-id="draft.coolantProductId"
        :dirty="editor.dirty.value"
        :inside="inside"
        :show="shown"
      />
      <template v-else>
        <div class="row file no-print">
          <v-select
            class="coolant"
            :model-value="draft.coolantProductId"
            :items="coolants.products"
            item-title="name"
            item-value="id"
            label="Coolant"
            clearable
            hide-details
            @update:model-value="change({ coolantProductId: $event ?? null })"
          />
          <v-btn variant="outlined" @click="picker?.click()">Import</v-btn>
          <v-btn variant="outlined" :disabled="draft.file.components.length === 0" @click="downloadLoop(withName(), draft.name)"
            >Export</v-btn
          >
          <KeepLayout v-if="draft.file.components.length > 1 && session.may('machines')" :loop="draft.file" :proposed="draft.name" />
          <router-link v-if="id" :to="`/loops/${id}/parts`"
            >Parts and cuts to print<span v-if="editor.dirty.value" class="quiet">, as last saved</span></router-link
          >
          <input
            ref="picker"
            class="visually-hidden"
            type="file"
            accept=".json,application/json"
            aria-label="Loop file to import"
            tabindex="-1"
            @change="
              importFile(($event.target as HTMLInputElement).files?.[0]);
              ($event.target as HTMLInputElement).value = '';
            "
          />
        </div>
        <LoopParts
          v-model:selected="selected"
          :name="draft.name"
          :file="draft.file"
          :coolant-id="draft.coolantProductId"
          :saved="saved"
          :dirty="editor.dirty.value"
          :inside="inside"
          :filled="isFilled"
          :at="submit.at"
          :book-at="bookAt"
          @change="setFile"
          @draw="tab = 'drawing'"
          @draw-on="drawOn"
          @parted="parted"
        />
      </template>
      <SaveRevisionDialog v-model="saving" :filled="isFilled" :building="isBuilding" :busy="submit.busy.value" @save="save" />
    </template>
  </main>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: minmax(150px, 1fr) auto auto;
  gap: 4px 18px;
  align-items: center;
  min-height: 56px;
  margin-bottom: 12px;
}
.naming p {
  margin: 0;
  font-size: 0.92rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.naming {
  min-width: 0;
}
.loop-name {
  font-size: 1.5rem;
  font-weight: 640;
  letter-spacing: -0.01em;
  width: 100%;
  line-height: 1.1;
  border-bottom: 2px solid transparent;
}
.loop-name:hover {
  border-color: var(--line);
}
.tools {
  flex-wrap: nowrap;
  gap: 4px;
}
.file {
  gap: 10px 14px;
  margin-bottom: 14px;
}
.coolant {
  max-width: 260px;
}
.notice {
  margin-bottom: 14px;
  padding: 8px 14px;
  background: var(--sheet);
  border-left: 4px solid var(--ink);
}
.notice button {
  text-decoration: underline;
}
.dropping {
  outline: 3px dashed var(--ink);
  outline-offset: -12px;
}
/* the drawing takes the whole screen but for the head and the edge */
.workspace {
  max-width: none;
  padding: 0 0 var(--edge-height);
}
.workspace .head {
  padding-inline: 24px;
  margin-bottom: 0;
}
@media (max-width: 1000px) {
  .head {
    grid-template-columns: 1fr auto;
  }
  .head > nav {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
