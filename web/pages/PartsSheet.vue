<script setup lang="ts">
import { insideRevision } from '@core/machine/loop-file/revisionKinds.js';
import { say } from '@core/base/words/say.js';
import { unitName } from '@core/base/units/shown.js';
import { computed, ref, watch } from 'vue';
import { orderCoolant } from '@core/machine/liquids/order.js';
import { CUTTING, tubeCuts } from '@core/machine/shop-sums/tubeCuts.js';
import FillForecast from '../machine/filling/FillForecast.vue';
import { fillVolume } from '@core/physics/filling/fillPlan.js';
import { countFittings } from '@core/machine/loop-file/fittings.js';
import { partName } from '@core/machine/loop-file/loopFile.js';
import { findTubeMaterial } from '@core/machine/materials/tubes.js';
import FanStackRows from '../machine/shop-sums/FanStackRows.vue';
import { useSession } from '../workshop/people/sessionStore.js';
import { digitsIn, formatIn, formatMl, formatTube } from '@core/base/units/display.js';
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

      <section v-for="kind in cuts" :key="`${kind.material}${kind.boreMm}${kind.outerMm}`" class="mt-6">
        <h2>{{ findTubeMaterial(kind.material)?.label ?? kind.material }} {{ formatTube(kind) }}</h2>
        <p v-for="piece in kind.tooLong" :key="piece.id" class="danger">
          {{ piece.name }}: {{ formatIn('mm', piece.cutMm) }} is longer than the {{ formatIn('mm', kind.stockMm) }} stock.
        </p>
        <ol class="stocks">
          <li v-for="(stock, index) in kind.list.stocks" :key="index" class="stock">
            <span class="figures">{{ index + 1 }}</span>
            <span class="barrel" :aria-label="`${stock.map((mm) => digitsIn('mm', mm)).join(', ')} ${unitName('mm')}`" role="img">
              <i v-for="(piece, at) in stock" :key="at" :style="{ width: `${(100 * piece) / kind.stockMm}%` }">{{ piece }}</i>
            </span>
            <span class="figures quiet">{{ formatIn('mm', kind.stockMm - stock.reduce((sum, piece) => sum + piece, 0)) }} left</span>
          </li>
        </ol>
        <table class="figures">
          <thead>
            <tr>
              <th>run</th>
              <th>laid, {{ unitName('mm') }}</th>
              <th>cut, {{ unitName('mm') }}</th>
              <th aria-label="done">✓</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="piece in kind.pieces" :key="piece.id">
              <td>{{ piece.name }}</td>
              <td>{{ Math.round(piece.laidMm) }}</td>
              <td>
                <b>{{ piece.cutMm }}</b>
              </td>
              <td><span class="tick" aria-hidden="true" /></td>
            </tr>
          </tbody>
        </table>
      </section>

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
.stocks {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
.stock {
  display: grid;
  grid-template-columns: 24px 1fr 96px;
  gap: 10px;
  align-items: center;
  min-height: 34px;
}
.barrel {
  display: flex;
  height: 24px;
  border: 1.5px solid var(--ink);
  background: var(--well);
}
.barrel i {
  font-style: normal;
  font-size: 0.82rem;
  text-align: center;
  background: var(--glass);
  border-right: 1.5px solid var(--ink);
  overflow: hidden;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--ink-soft);
}
td,
th {
  padding: 5px 8px 5px 0;
  border-bottom: 1px solid var(--line-soft);
}
.tick {
  display: inline-block;
  width: 16px;
  height: 16px;
  border: 1.5px solid var(--ink);
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
