<script setup lang="ts">
import { computed } from 'vue';
import { circuitFiles } from '@core/machine/loop-file/circuits.js';
import { orderCoolant } from '@core/machine/liquids/order.js';
import { fillVolume } from '@core/physics/filling/fillPlan.js';
import { countFittings } from '@core/machine/loop-file/fittings.js';
import { loopFindings } from '@core/machine/build-checks/loopFindings.js';
import { partName, type LoopFile } from '@core/machine/loop-file/loopFile.js';
import { loopVolume } from '@core/machine/loop-file/volume.js';
import { digitsIn, formatIn, formatMl } from '@core/base/units/display.js';
import type { CoolantProduct } from '@core/machine/liquids/classes.js';
import { WATER, type Liquid } from '@core/machine/liquids/fluids.js';
import type { DrainPolicy } from '@core/physics/draining/defaults.js';
import type { InsideNow } from '@core/physics/live-book/insideNow.js';
import FillForecast from '../filling/FillForecast.vue';
import LivingWith from './LivingWith.vue';
import RingAges from './RingAges.vue';
import VapourWords from './VapourWords.vue';
import InsideWords from '../profile/InsideWords.vue';
import { fittingWords } from '@core/edge/words/fittings.js';

/** What the loop computes: volume, order, fittings, fill, and what to look at before it is built. */
const props = withDefaults(
  defineProps<{
    loop: LoopFile;
    liquid?: Liquid;
    /** of the loop as it was saved; null: it is being changed */
    inside?: InsideNow | null;
    /** of a loop that was saved; null: it is new */
    loopId?: string | null;
    /** °C, mean of its coolant; null: nobody knows */
    coolantC?: number | null;
    /** how far the workshop goes to drain; null: the loop is new */
    drainPolicy?: DrainPolicy | null;
    product: (Pick<CoolantProduct, 'form' | 'targetFraction' | 'bottleMl'> & { readonly name: string; readonly colour: string }) | null;
  }>(),
  { liquid: () => WATER, inside: null, loopId: null, coolantC: null, drainPolicy: null },
);
const volume = computed(() => loopVolume(props.loop));
/** each is filled for itself */
const circuits = computed(() => circuitFiles(props.loop));
const fill = computed(() => fillVolume(props.loop));
const order = computed(() => (props.product ? orderCoolant(fill.value, props.product) : null));
const fittings = computed(() => countFittings(props.loop));
/** parts with a volume from the loop's own fills, the one that moved most first */
const learned = computed(() =>
  props.loop.components
    .flatMap((part) => (part.learned ? [{ name: partName(part), priorMl: part.learned.prior_ml, nowMl: part.volume_ml }] : []))
    .sort((a, b) => Math.abs(b.nowMl - b.priorMl) - Math.abs(a.nowMl - a.priorMl)),
);
const fills = computed(() => Math.max(0, ...props.loop.components.map(({ learned: from }) => from?.fills ?? 0)));
const findings = computed(() => loopFindings(props.loop));
</script>

<template>
  <div class="stack figures-column">
    <section>
      <p class="big-number" aria-label="Loop volume">
        {{ digitsIn('mL', volume.volumeMl) }} <small>± {{ formatIn('mL', volume.sdMl) }}</small>
      </p>
      <p class="quiet">
        whole loop, one standard deviation. Filled to the reservoir's mark, with no air left, it takes
        <strong class="figures">{{ formatMl(fill.volumeMl) }}</strong>.
      </p>
      <p v-if="learned.length" class="quiet">
        {{ learned.length }} parts carry what {{ fills === 1 ? 'the first fill' : `${fills} fills` }} of this loop told of them; most of it
        {{ learned[0]?.name }}: was {{ digitsIn('mL', learned[0]?.priorMl ?? 0) }}, is {{ formatIn('mL', learned[0]?.nowMl ?? 0) }}.
      </p>
    </section>
    <section>
      <h2>{{ inside?.standing ? 'To fill from here' : 'First fill' }}</h2>
      <p v-if="inside && inside.by !== 'never-filled'" class="quiet"><InsideWords :inside="inside" /></p>
      <template v-for="({ name, file }, index) in circuits" :key="index">
        <h3 v-if="circuits.length > 1" class="mt-3">{{ name }}</h3>
        <FillForecast
          class="mt-2"
          :loop="file"
          :liquid="liquid"
          :colour="product?.colour ?? null"
          :inside="circuits.length > 1 ? null : inside"
        />
      </template>
    </section>
    <section>
      <h2>To order</h2>
      <template v-if="order && product">
        <p class="mt-1">
          <strong class="figures">{{ order.bottles }} × {{ formatMl(product.bottleMl) }}</strong> of {{ product.name
          }}<template v-if="order.concentrateMl !== null">
            concentrate: <strong class="figures">{{ formatMl(order.concentrateMl) }}</strong> with
            <strong class="figures">{{ formatMl(order.waterMl ?? 0) }}</strong> distilled water</template
          >.
        </p>
        <p class="quiet">
          Covers 95 of 100 loops of this plan with spill and sample: {{ formatMl(order.orderMl) }}. {{ formatMl(order.leftOverMl) }} left
          over.
        </p>
      </template>
      <p v-else class="quiet mt-1">Choose the coolant above; bottles, concentrate and water follow.</p>
      <ul class="plain-list counts mt-2">
        <li v-for="each in fittings" :key="each.kind">
          <b class="figures">{{ each.count }}</b> {{ fittingWords(each.kind, each.count) }}
        </li>
      </ul>
    </section>
    <VapourWords :loop="loop" :inside="inside" :coolant-c="coolantC" />
    <LivingWith v-if="loop.tubes.length > 0" :loop="loop" :liquid="liquid" :inside="inside" :policy="drainPolicy" />
    <RingAges v-if="loopId" :loop-id="loopId" />
    <section v-if="findings.length">
      <h2>Look at before building</h2>
      <ul class="findings">
        <li v-for="(finding, index) in findings" :key="index" :class="finding.weight">
          <b v-if="finding.weight === 'stop'">Stop: </b>{{ finding.text }} <span class="quiet">{{ finding.todo }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.figures-column {
  gap: 24px;
}
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.counts b {
  font-weight: 640;
}
.findings {
  padding-left: 18px;
  margin: 6px 0 0;
  display: grid;
  gap: 6px;
}
p {
  margin: 0;
}
</style>
