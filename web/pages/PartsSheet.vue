<script setup lang="ts">
import { insideRevision } from '@core/machine/loop-file/revisionKinds.js';
import { say } from '@core/base/words/say.js';
import { computed, ref, watch } from 'vue';
import { orderCoolant } from '@core/machine/liquids/order.js';
import { CUTTING, tubeCuts } from '@core/machine/shop-sums/tubeCuts.js';
import FillForecast from '../machine/filling/FillForecast.vue';
import { fillVolume } from '@core/physics/filling/fillPlan.js';
import { countFittings } from '@core/machine/loop-file/fittings.js';
import { partName } from '@core/machine/loop-file/loopFile.js';
import { findTubeMaterial } from '@core/machine/materials/tubes.js';
import CutSheet from '../machine/shop-sums/CutSheet.vue';
import FanStackRows from '../machine/shop-sums/FanStackRows.vue';
import { useSession } from '../workshop/people/sessionStore.js';
import { formatMl } from '@core/base/units/display.js';
import { useCoolants } from '../workshop/coolants/coolantStore.js';
import { useLoopPage } from '../machine/loop/useLoopPage.js';
import NumberField from '../base/units/NumberField.vue';
import { fittingWords } from '@core/edge/words/fittings.js';

/** What to lay out and cut for one loop, on one page to print. */
const props = defineProps<{ id: string }>();
const coolants = useCoolants();
const session = useSession();
const { loop, problem } = useLoopPage(() => props.id);
watch(loop, (found) => {
  if (found) document.title = say('{name}: parts and cuts · Lavacrum', { name: found.name });
});
const allowance = ref<number | null>(CUTTING.allowanceMm);

const cuts = computed(() =>
  loop.value
    ? tubeCuts(loop.value.file, (material) => findTubeMaterial(material)?.soft ?? true, allowance.value ?? CUTTING.allowanceMm)
    : [],
);
const current = computed(() => insideRevision(loop.value?.revisions ?? []));
const fittings = computed(() => (loop.value ? countFittings(loop.value.file) : []));
const product = computed(() => coolants.find(loop.value?.coolantProductId ?? null));
const order = computed(() => (loop.value && product.value ? orderCoolant(fillVolume(loop.value.file), product.value) : null));
const print = (): void => window.print();
</script>

<template>
  <main class="page">
    <h1 v-if="problem">{{ problem }}</h1>
    <template v-else-if="loop">
      <header class="head">
        <div>
          <p class="quiet no-print">
            <router-link :to="`/loops/${id}`">{{ loop.name }}</router-link>
          </p>
          <h1>Parts and cuts</h1>
          <p>{{ loop.systemName }}, {{ loop.name }}, revision {{ current?.number }}</p>
        </div>
        <v-btn class="no-print" size="large" @click="print">Print</v-btn>
      </header>

      <CutSheet :kinds="cuts" />

      <div class="columns mt-6">
        <section>
          <h2>Fittings and plugs</h2>
          <ul class="plain-list">
            <li v-for="each in fittings" :key="each.kind">
              <b class="figures">{{ each.count }}</b> {{ fittingWords(each.kind, each.count) }}
            </li>
          </ul>
        </section>
        <section>
          <h2>Parts</h2>
          <ul class="plain-list">
            <li v-for="part in loop.file.components" :key="part.id">{{ partName(part) }}</li>
          </ul>
        </section>
        <section>
          <h2>Coolant</h2>
          <p v-if="order && product">
            <b class="figures">{{ order.bottles }} × {{ formatMl(product.bottleMl) }}</b> {{ product.name
            }}<template v-if="order.concentrateMl !== null"
              >: {{ formatMl(order.concentrateMl) }} with {{ formatMl(order.waterMl ?? 0) }} distilled water</template
            >
          </p>
          <p v-else class="quiet">No coolant chosen for this loop yet.</p>
          <h2 class="mt-4">{{ loop.inside.standing ? 'To fill from here' : 'First fill' }}</h2>
          <FillForecast
            :loop="loop.file"
            :liquid="coolants.liquidOf(loop.coolantProductId)"
            :colour="product?.colour ?? null"
            :inside="loop.inside"
          />
        </section>
      </div>
      <FanStackRows :loop-id="id" :loop="loop.file" :kept="loop.fanStacks" :can-write="session.may('machines')" />
      <section class="no-print settings mt-6">
        <NumberField v-model="allowance" label="Cut longer by" unit="mm" />
      </section>
    </template>
  </main>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: start;
}
.columns {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 32px;
}
.settings {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 14px;
}
@media (max-width: 900px) {
  .columns,
  .settings {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
