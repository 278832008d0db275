<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import { formatIn } from '@core/base/units/display.js';
import { computed, onMounted } from 'vue';
import { keptFrom, likeOf, ownKey } from '@core/machine/catalogue/ownParts.js';
import { shortName, tubeName } from '@core/machine/catalogue/names.js';
import { TUBE_KINDS, tubeKindOf } from '@core/machine/catalogue/parts.js';
import { partName, tubeLengthMm, type Closure, type LoopFile, type Point, type PortRef } from '@core/machine/loop-file/loopFile.js';
import { tubeVolumeMl } from '@core/machine/loop-file/volume.js';
import { bodiesAt, FITTING_BODIES, pieceMm, standsMm, withBodies, type BodyKey } from '@core/machine/fit/bodies.js';
import { changePart } from '@core/machine/catalogue/edit.js';
import { bendTube, changeTube, movePart, movePort, turnRound } from '@core/machine/drawing/edit.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import NumberField from '../../base/units/NumberField.vue';
import ExchangePart from './ExchangePart.vue';
import { useOwnParts } from './ownPartStore.js';
import PartFacts from './PartFacts.vue';
import PartFit from './PartFit.vue';
import PortFit from './PortFit.vue';
import PointFields from './PointFields.vue';
import { extentOf } from './scene.js';

/** The chosen part or tube in numbers. */
const props = defineProps<{ loop: LoopFile; selected: string }>();
const emit = defineEmits<{ change: [loop: LoopFile]; remove: [id: string] }>();

const part = computed(() => props.loop.components.find(({ id }) => id === props.selected) ?? null);
const tube = computed(() => props.loop.tubes.find(({ id }) => id === props.selected) ?? null);
/** left, bottom and nearest edge of a part */
const corner = computed((): Point => {
  if (!part.value) return [0, 0, 0];
  const { left, top, height } = extentOf(part.value);
  const depths = part.value.box ? [part.value.box.min[2]] : Object.values(part.value.ports).map(([, , z]) => z);
  return [left, -(top + height), Math.min(...depths)];
});
/** "in" or "out" for a flow port, null for another */
const roleOf = (port: string): string | null => (part.value?.flow?.[0] === port ? 'in' : part.value?.flow?.[1] === port ? 'out' : null);
function place(axis: 0 | 1 | 2, mm: number): void {
  if (!part.value) return;
  const by = [0, 0, 0] as [number, number, number];
  by[axis] = mm - corner.value[axis];
  emit('change', movePart(props.loop, part.value.id, by));
}
function setPort(port: string, axis: 0 | 1 | 2, mm: number): void {
  if (!part.value) return;
  const at = [...(part.value.ports[port] as Point)] as [number, number, number];
  at[axis] = mm;
  emit('change', movePort(props.loop, part.value.id, port, at));
}
function setClosure(port: string, closure: Closure | 'none'): void {
  if (!part.value) return;
  const { [port]: _before, ...others } = part.value.closures ?? {};
  emit('change', changePart(props.loop, part.value.id, { closures: closure === 'none' ? others : { ...others, [port]: closure } }));
}
const isHidden = (port: string): boolean => (part.value?.out_of_reach ?? []).includes(port);
function setReach(port: string, isReached: boolean): void {
  if (!part.value) return;
  const others = (part.value.out_of_reach ?? []).filter((each) => each !== port);
  emit('change', changePart(props.loop, part.value.id, { out_of_reach: isReached ? others : [...others, port] }));
}
function setBend(index: number, axis: 0 | 1 | 2, mm: number): void {
  if (!tube.value) return;
  const path = (tube.value.path ?? []).map((point) => [...point] as [number, number, number]);
  (path[index] as [number, number, number])[axis] = mm;
  emit('change', bendTube(props.loop, tube.value.id, path));
}
function dropBend(index: number): void {
  if (tube.value) emit('change', bendTube(props.loop, tube.value.id, (tube.value.path ?? []).filter((_, at) => at !== index))); // prettier-ignore
}
function setKind(key: string): void {
  const kind = TUBE_KINDS.find((each) => each.key === key);
  if (kind && tube.value) emit('change', changeTube(props.loop, tube.value.id, { bore_mm: kind.boreMm, outer_mm: kind.outerMm, material: kind.material })); // prettier-ignore
}
const TURNS = [
  { axis: 0, words: say('turned front to back') },
  { axis: 1, words: say('turned upside down') },
  { axis: 2, words: say('turned to the other side') },
] as const;
const own = useOwnParts();
const submit = useSubmit();
const notices = useNotices();
onMounted(() => void own.load().catch(() => undefined));
const kept = computed(() => own.find(part.value?.catalogue ?? ''));
const like = computed(() => (part.value ? likeOf(part.value, own.parts) : null));
/** With its shape as drawn, its volume and what its sheet says; one that is kept already is changed. */
async function keep(): Promise<void> {
  const input = part.value && keptFrom(part.value, like.value);
  if (!input || !part.value) return;
  const saved = await submit.run((key) => (kept.value ? own.edit(kept.value, input) : own.add(input, key)));
  if (!saved) return;
  emit('change', changePart(props.loop, part.value.id, { catalogue: ownKey(saved.id) }));
  notices.say(say('{label} is one of the workshop’s parts, with this shape where it sits.', { label: saved.label }));
}
const lengthMm = computed(() => (tube.value ? tubeLengthMm(props.loop, tube.value) : 0));
const ENDS = ['from', 'to'] as const;
const BODIES = (Object.keys(FITTING_BODIES) as BodyKey[]).map((value) => ({ value, title: sayWord(FITTING_BODIES[value].label) }));
/** a port as the drawing names it */
const placeOf = ([id, port]: PortRef): string => {
  const at = props.loop.components.find((each) => each.id === id);
  return `${at ? shortName(at) : id}, ${port}`;
};
const CLOSURES = [
  { value: 'none', title: 'open, or a tube' },
  { value: 'plug', title: 'plug' },
  { value: 'cap', title: 'cap' },
  { value: 'valve', title: 'valve' },
];
</script>

<template>
  <section v-if="part" class="panel">
    <h2>{{ partName(part) }}</h2>
    <p class="quiet">Left edge, height of its bottom, depth from the blind side.</p>
    <PointFields :at="corner" @set="place" />
    <div class="row turn" role="group" aria-label="Turn it round">
      <button
        v-for="{ axis, words } in TURNS"
        :key="axis"
        type="button"
        class="link"
        @click="emit('change', turnRound(loop, part.id, axis))"
      >
        {{ words }}
      </button>
    </div>
    <div class="two">
      <NumberField
        :model-value="part.volume_ml"
        label="Volume"
        unit="mL"
        @update:model-value="$event !== null && $event >= 0 && emit('change', changePart(loop, part.id, { volume_ml: $event }))"
      />
      <NumberField
        :model-value="part.volume_sd_ml ?? null"
        label="± one sd"
        unit="mL"
        @update:model-value="emit('change', changePart(loop, part.id, { volume_sd_ml: $event ?? undefined }))"
      />
    </div>
    <div v-for="(at, port) in part.ports" :key="port" class="port">
      <p>
        <b>{{ port }}</b>
        <span v-if="roleOf(String(port)) && roleOf(String(port)) !== port" class="quiet"> {{ roleOf(String(port)) }}</span>
      </p>
      <PointFields :at="at" @set="(axis, mm) => setPort(String(port), axis, mm)" />
      <v-select
        :model-value="part.closures?.[port] ?? 'none'"
        :items="CLOSURES"
        :label="`${port} carries`"
        density="compact"
        hide-details
        @update:model-value="setClosure(String(port), $event as Closure | 'none')"
      />
      <label v-if="part.closures?.[port]" class="hands"
        ><input
          type="checkbox"
          :checked="!isHidden(String(port))"
          @change="setReach(String(port), ($event.target as HTMLInputElement).checked)"
        />
        hands get at it when it is built</label
      >
      <PortFit :loop="loop" :part="part" :port="String(port)" @change="emit('change', $event)" />
    </div>
    <PartFit :loop="loop" :part="part" @change="emit('change', $event)" />
    <PartFacts :loop="loop" :part="part" @change="emit('change', $event)" />
    <v-btn v-if="like" class="mt-3" variant="outlined" :loading="submit.busy.value" @click="keep">{{
      kept ? 'Our part is now as drawn here' : 'Keep it as a part of our own'
    }}</v-btn>
    <p v-if="submit.problem.value" role="alert" class="danger">{{ submit.problem.value }}</p>
    <ExchangePart :loop="loop" :part="part" @change="emit('change', $event)" />
    <v-btn class="mt-4" variant="outlined" @click="emit('remove', part.id)">Take it out</v-btn>
  </section>
  <section v-else-if="tube" class="panel">
    <h2>{{ tubeName(loop, tube) }}</h2>
    <p class="figures">
      <b>{{ formatIn('mm', lengthMm) }}</b> {{ tube.length_mm === undefined ? 'along the drawing' : 'as entered' }},
      {{ formatIn('mL', tubeVolumeMl(tube.bore_mm, lengthMm), 1) }}
    </p>
    <v-select
      class="mt-2"
      :model-value="tubeKindOf(tube)?.key ?? null"
      :items="TUBE_KINDS.map(({ key, label }) => ({ value: key, title: sayWord(label) }))"
      label="Tube"
      density="comfortable"
      hide-details
      @update:model-value="setKind"
    />
    <NumberField
      class="mt-3"
      :model-value="tube.length_mm ?? null"
      label="Measured length, if any"
      unit="mm"
      @update:model-value="($event === null || $event > 0) && emit('change', changeTube(loop, tube.id, { length_mm: $event ?? undefined }))"
    />
    <v-select
      v-for="end in ENDS"
      :key="end"
      class="mt-2"
      :model-value="bodiesAt(tube, end)"
      :items="BODIES"
      :label="`Between ${placeOf(tube[end])} and the tube`"
      density="compact"
      multiple
      hide-details
      @update:model-value="emit('change', withBodies(loop, tube.id, end, $event))"
    />
    <p v-if="tube.length_mm === undefined && standsMm(tube) !== 0" class="quiet figures">
      {{ formatIn('mm', pieceMm(loop, tube)) }} of tube between what is screwed in.
    </p>
    <div v-for="(bend, index) in tube.path ?? []" :key="index" class="port">
      <p class="spread">
        <b>bend {{ index + 1 }}</b> <button type="button" class="quiet" @click="dropBend(index)">straighten</button>
      </p>
      <PointFields :at="bend" @set="(axis, mm) => setBend(index, axis, mm)" />
    </div>
    <p v-if="!tube.path?.length" class="quiet mt-2">Straight from port to port. Press it twice in the drawing to bend it.</p>
    <v-btn class="mt-4" variant="outlined" @click="emit('remove', tube.id)">Take it out</v-btn>
  </section>
</template>

<style scoped>
.turn {
  gap: 4px 16px;
}
.link {
  text-decoration: underline;
  min-height: 44px;
}
.hands {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.hands input {
  width: 22px;
  height: 22px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.port {
  margin-top: 12px;
  padding-top: 8px;
  border-top: 1px solid var(--line-soft);
}
.panel :deep(.v-input__details) {
  display: none;
}
</style>
