<script setup lang="ts">
import { sayWord } from '@core/base/words/say.js';
import { digitsIn, formatIn } from '@core/base/units/display.js';
import { computed, markRaw, provide, ref, shallowRef, watch } from 'vue';
import { ConnectionMode, VueFlow, useVueFlow, type Connection, type NodeDragEvent } from '@vue-flow/core';
import '@vue-flow/core/dist/style.css';
import { TUBE_KINDS, tubeKindOf, type CataloguePart, type TubeKind } from '@core/machine/catalogue/parts.js';
import { shortName } from '@core/machine/catalogue/names.js';
import { usualKind } from '@core/machine/catalogue/edit.js';
import type { Place } from '@core/machine/catalogue/places.js';
import { portPosition, type LoopFile, type Point } from '@core/machine/loop-file/loopFile.js';
import { WATER, type Liquid } from '@core/machine/liquids/fluids.js';
import { caseOf } from '@core/machine/drawing/cases.js';
import {
  addTube,
  bendTube,
  broughtIn,
  DRAWING,
  outsideCase,
  movePart,
  placePart,
  placeUnit,
  refuseTube,
  removeFromDrawing,
  snap,
} from '@core/machine/drawing/edit.js';
import type { CatalogueUnit } from '@core/machine/catalogue/units.js';
import { loopVolume } from '@core/machine/loop-file/volume.js';
import type { FigureKind, LoadQuestion } from '../compute/twinEngine.js';
import { useTwin, useTwinAnswer } from '../compute/useTwin.js';
import { heatAskedBy, setupOf, type HeatSetup, type RadiatorFans } from '@core/physics/heat/setup.js';
import PartPicker from './PartPicker.vue';
import { BENDS } from './bends.js';
import LoopProfile from '../profile/LoopProfile.vue';
import CasePanel from './CasePanel.vue';
import DrawingFindings from './DrawingFindings.vue';
import PartNode from './PartNode.vue';
import TubeEdge from './TubeEdge.vue';
import { depthBetween, extentOf, sceneEdges, sceneNodes } from './scene.js';
import SelectionPanel from './SelectionPanel.vue';

/**
 * The loop drawn in the case's front view, as a workspace of its own: parts are dragged, tubes are drawn from port to port; under it the
 * profile that follows from it, beside it whatever is chosen in numbers. The twin computes from it.
 */
const props = withDefaults(
  defineProps<{
    loop: LoopFile;
    colour: string | null;
    liquid?: Liquid;
    /** what stands in it, part by part; null: full */
    filled?: ReadonlyMap<string, number> | null;
    /** what is said of air and load under Heat, and the fans that the machine has; null: nothing yet */
    heat?: HeatSetup | null;
    groups?: readonly RadiatorFans[];
  }>(),
  { liquid: () => WATER, filled: null, heat: null, groups: () => [] },
);
const emit = defineEmits<{ change: [loop: LoopFile] }>();
const selected = defineModel<string | null>('selected', { required: true });

const outline = computed(() => caseOf(props.loop));
const kindKey = ref(usualKind(props.loop).key);
const kind = computed(() => TUBE_KINDS.find(({ key }) => key === kindKey.value) as TubeKind);
const said = ref<string | null>(null);
/** what is written beside parts and tubes */
const written = ref<FigureKind | 'nothing'>('nothing');
const speed = ref(props.loop.components.find(({ kind: what }) => what === 'pump')?.speed ?? 1);
const fans = ref(props.heat?.fanSpeed ?? 0.5);
const WRITTEN = [
  { value: 'nothing', title: 'no figures' },
  { value: 'flow', title: 'flow' },
  { value: 'pressure', title: 'pressure lost' },
  { value: 'temperature', title: 'coolant leaving, with the air and loads said under Heat' },
];
const nodes = shallowRef<object[]>([]);
const edges = shallowRef<object[]>([]);
watch(
  [() => props.loop, selected, outline],
  () => {
    nodes.value = sceneNodes(props.loop, outline.value, selected.value);
    edges.value = sceneEdges(props.loop, selected.value);
  },
  { immediate: true },
);
const { fitView } = useVueFlow('drawing');
const types = { node: { part: markRaw(PartNode) }, edge: { tube: markRaw(TubeEdge) } };

const change = (loop: LoopFile): void => {
  said.value = null;
  if (loop !== props.loop) emit('change', loop);
};

function dropped({ node }: NodeDragEvent): void {
  const component = props.loop.components.find(({ id }) => id === node.id);
  if (!component) return;
  const { left, top } = extentOf(component);
  const by: Point = [snap(node.position.x - left), -snap(node.position.y - top), 0];
  selected.value = node.id;
  if (by[0] === 0 && by[1] === 0) nodes.value = sceneNodes(props.loop, outline.value, selected.value);
  else change(movePart(props.loop, node.id, by));
}

function connect({ source, sourceHandle, target, targetHandle }: Connection): void {
  if (!sourceHandle || !targetHandle) return;
  const [from, to] = [[source, sourceHandle] as const, [target, targetHandle] as const];
  const refusal = refuseTube(props.loop, from, to);
  if (refusal) {
    said.value = refusal;
    return;
  }
  const next = addTube(props.loop, from, to, kind.value);
  change(next);
  selected.value = next.tubes.at(-1)?.id ?? null;
}

function tubePath(id: string): Point[] {
  return [...(props.loop.tubes.find((tube) => tube.id === id)?.path ?? [])];
}
const twin = useTwin(
  () => (written.value === 'nothing' ? null : props.loop),
  () => props.liquid,
);
const figures = useTwinAnswer(
  twin,
  () => (written.value === 'nothing' ? null : { kind: written.value, speed: speed.value, fans: fans.value }),
  ({ kind: what, speed: share, fans: fanShare }) =>
    // a worker is handed a copy
    twin.engine.figures(what, share, JSON.parse(JSON.stringify({ ...heatAskedBy(props.heat ?? setupOf(props.loop, null), props.loop, props.groups), blockFactors: {} })) as LoadQuestion, fanShare), // prettier-ignore
);
provide(BENDS, {
  figures: computed(() => (written.value === 'nothing' ? null : figures.value)),
  chosen: computed(() => selected.value),
  colour: computed(() => props.colour),
  move(id, bend, { x, y }) {
    const path = tubePath(id);
    const z = path[bend]?.[2] ?? 0;
    path[bend] = [snap(x), snap(-y), z];
    change(bendTube(props.loop, id, path));
  },
  add(id, segment, { x, y }) {
    const tube = props.loop.tubes.find((each) => each.id === id);
    if (!tube) return;
    const path = tubePath(id);
    const line = [portPosition(props.loop, tube.from), ...path, portPosition(props.loop, tube.to)];
    const z = depthBetween(line[segment] as Point, line[segment + 1] as Point);
    path.splice(segment, 0, [snap(x), snap(-y), z]);
    selected.value = id;
    change(bendTube(props.loop, id, path));
  },
});

const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
function onKey(event: KeyboardEvent): void {
  if (event.target instanceof HTMLInputElement || selected.value === null) return;
  const nudge = NUDGES[event.key];
  if (nudge && props.loop.components.some(({ id }) => id === selected.value)) {
    event.preventDefault();
    const step = event.shiftKey ? DRAWING.coarseMm : DRAWING.nudgeMm;
    change(movePart(props.loop, selected.value, [nudge[0] * step, nudge[1] * step, 0]));
  }
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault();
    remove(selected.value);
  }
  if (event.key === 'Escape') selected.value = null;
}
function remove(id: string): void {
  change(removeFromDrawing(props.loop, id));
  selected.value = null;
}
function add(part: CataloguePart, place: Place): void {
  const { loop, id } = placePart(props.loop, part, place);
  change(loop);
  selected.value = id;
}
function addUnit(unit: CatalogueUnit, place: Place): void {
  const { loop, id } = placeUnit(props.loop, unit, place);
  change(loop);
  selected.value = id;
}
/** Parts in order, for reaching them without a mouse. */
const reach = computed(() => [...props.loop.components.map(({ id }) => id), ...props.loop.tubes.map(({ id }) => id)]);
function step(by: number): void {
  const at = selected.value === null ? -1 : reach.value.indexOf(selected.value);
  selected.value = reach.value[(at + by + reach.value.length) % Math.max(1, reach.value.length)] ?? null;
}
/** parts off the sheet, such as after the case was made smaller */
const lost = computed(() => outsideCase(props.loop));
function bringIn(id: string): void {
  change(broughtIn(props.loop, id));
  selected.value = id;
}
const volume = computed(() => loopVolume(props.loop));
const chosenTube = computed(() => props.loop.tubes.find(({ id }) => id === selected.value) ?? null);
watch(chosenTube, (tube) => {
  const known = tube && tubeKindOf(tube);
  if (known) kindKey.value = known.key;
});
</script>

<template>
  <div class="bench">
    <div
      class="drawing"
      tabindex="0"
      role="application"
      aria-label="Front view of the case. Tab to the panel beside it to edit by numbers; arrow keys move the chosen part."
      @keydown="onKey"
    >
      <VueFlow
        id="drawing"
        :nodes="nodes as never"
        :edges="edges as never"
        :node-types="types.node as never"
        :edge-types="types.edge as never"
        :connection-mode="ConnectionMode.Loose"
        :snap-to-grid="true"
        :snap-grid="[DRAWING.snapMm, DRAWING.snapMm]"
        :min-zoom="0.3"
        :max-zoom="4"
        :delete-key-code="null"
        :disable-keyboard-a11y="true"
        :zoom-on-double-click="false"
        fit-view-on-init
        @node-drag-stop="dropped"
        @node-click="selected = $event.node.id === '#case' ? null : $event.node.id"
        @edge-click="selected = $event.edge.id"
        @pane-click="selected = null"
        @connect="connect"
      >
        <template #node-room="{ data }">
          <div class="room">
            <span>{{ data.label }}, {{ digitsIn('mm', data.depthMm) }} × {{ formatIn('mm', data.heightMm) }}; front to the right</span>
          </div>
        </template>
      </VueFlow>
      <div class="over">
        <button type="button" @click="step(-1)">‹ part</button>
        <button type="button" @click="step(1)">part ›</button>
        <button type="button" @click="fitView({ padding: 0.06 })">whole case</button>
      </div>
    </div>
    <div class="strip">
      <LoopProfile
        v-if="loop.components.length > 0"
        :loop="loop"
        :colour="colour"
        :height="84"
        bare
        :selected="selected"
        :filled="filled"
        @select="selected = selected === $event ? null : $event"
      />
      <p class="figures" aria-label="Loop volume">
        <b>{{ digitsIn('mL', volume.volumeMl) }}</b> ± {{ formatIn('mL', volume.sdMl) }}
      </p>
    </div>
    <aside>
      <v-select v-model="written" :items="WRITTEN" label="Written in the drawing" density="comfortable" hide-details />
      <label v-if="written !== 'nothing'" class="speed mt-2">
        <span
          >Pump <b class="figures">{{ Math.round(speed * 100) }} %</b> <span class="quiet estimate">computed</span></span
        >
        <input v-model.number="speed" type="range" min="0.1" max="1" step="0.01" aria-label="Pump speed" />
      </label>
      <label v-if="written === 'temperature'" class="speed mt-1">
        <span
          >Fans <b class="figures">{{ Math.round(fans * 100) }} %</b></span
        >
        <input v-model.number="fans" type="range" min="0.1" max="1" step="0.01" aria-label="Fan speed" />
      </label>
      <p v-if="said" role="alert" class="said">{{ said }}</p>
      <div v-if="lost.length > 0" class="said" role="status">
        <p>{{ lost.length === 1 ? 'One part lies outside the case:' : `${lost.length} parts lie outside the case:` }}</p>
        <p v-for="part in lost" :key="part.id">
          {{ shortName(part) }} <button type="button" class="link" @click="bringIn(part.id)">bring it in</button>
        </p>
      </div>
      <SelectionPanel v-if="selected" :key="selected" :loop="loop" :selected="selected" @change="change" @remove="remove" />
      <template v-else>
        <p class="quiet">
          Drag a part, or choose it and use the arrow keys (<kbd>Shift</kbd> for {{ formatIn('mm', 20) }}). Drag from port to port to draw a
          tube; press a tube twice to bend it there.
        </p>
        <DrawingFindings :loop="loop" @choose="selected = $event" />
        <CasePanel class="mt-3" :loop="loop" @change="change" />
        <v-select
          v-model="kindKey"
          class="mt-3"
          :items="TUBE_KINDS.map(({ key, label }) => ({ value: key, title: sayWord(label) }))"
          label="New tubes are"
          density="comfortable"
          hide-details
        />
        <PartPicker class="mt-4" :after="null" free :loop="loop" @add="add" @add-unit="addUnit" />
      </template>
    </aside>
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template: minmax(0, 1fr) 96px / minmax(0, 1fr) 384px;
  /* what the head and the edge leave of the screen */
  height: calc(100dvh - 56px - var(--edge-height));
  min-height: 480px;
}
.drawing {
  position: relative;
  min-height: 0;
  background: var(--sheet);
}
.strip {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  grid-row: 2;
  background: var(--sheet);
  border-top: 1.5px solid var(--line);
  overflow: hidden;
}
.strip p {
  margin: 0;
  padding-inline: 14px;
}
.strip b {
  font-size: 1.3rem;
}
aside {
  grid-row: 1 / 3;
  grid-column: 2;
  overflow-y: auto;
  padding: 12px 20px 24px;
}
.link {
  text-decoration: underline;
  min-height: 44px;
}
.room {
  width: 100%;
  height: 100%;
  border: 2px dashed var(--line);
  border-right: 7px solid var(--line);
}
.room span {
  position: absolute;
  left: 0;
  top: calc(100% + 4px);
  white-space: nowrap;
  font-size: 13px;
  color: var(--ink-soft);
}
.over {
  position: absolute;
  right: 10px;
  bottom: 10px;
  display: flex;
  gap: 6px;
  z-index: 5;
}
.over button {
  background: var(--slab);
  color: var(--on-slab);
  padding: 8px 12px;
  border-radius: 3px;
  min-height: 40px;
}
.speed {
  display: block;
}
.speed input {
  width: 100%;
  accent-color: var(--ink);
}
aside > * + * {
  margin-top: 12px;
}
.said {
  padding: 8px 12px;
  border-left: 5px solid var(--ink);
  margin-bottom: 10px;
}
:deep(.vue-flow__node.chosen .part) {
  border-color: var(--ring);
  border-width: 3.5px;
}
:deep(.vue-flow__node) {
  cursor: grab;
}
@media (max-width: 1000px) {
  .bench {
    grid-template: 60dvh 96px auto / minmax(0, 1fr);
    height: auto;
  }
  aside {
    grid-row: 3;
    grid-column: 1;
  }
}
</style>
