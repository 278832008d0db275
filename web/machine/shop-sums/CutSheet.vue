<script setup lang="ts">
import { digitsIn, formatIn, formatTube } from '@core/base/units/display.js';
import { unitName } from '@core/base/units/shown.js';
import { findTubeMaterial } from '@core/machine/materials/tubes.js';
import type { TubeKindCuts } from '@core/machine/shop-sums/tubeCuts.js';

/** How the pieces of each kind of tube come out of stock lengths, with a place to tick each. */
defineProps<{ kinds: readonly TubeKindCuts[] }>();
</script>

<template>
  <div>
    <section v-for="kind in kinds" :key="`${kind.material}${kind.boreMm}${kind.outerMm}`" class="mt-6">
      <h2>{{ findTubeMaterial(kind.material)?.label ?? kind.material }} {{ formatTube(kind) }}</h2>
      <p v-for="piece in kind.tooLong" :key="piece.id" class="danger">
        {{ piece.name }}: {{ formatIn('mm', piece.cutMm) }} is longer than the {{ formatIn('mm', kind.stockMm) }} stock.
      </p>
      <ol class="stocks">
        <li v-for="(stock, index) in kind.list.stocks" :key="index" class="stock">
          <span class="figures">{{ index + 1 }}</span>
          <span class="barrel" :aria-label="`${stock.map((mm) => digitsIn('mm', mm)).join(', ')} ${unitName('mm')}`" role="img">
            <i v-for="(piece, at) in stock" :key="at" :style="{ width: `${(100 * piece) / kind.stockMm}%` }">{{ digitsIn('mm', piece) }}</i>
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
            <td>{{ digitsIn('mm', piece.laidMm) }}</td>
            <td>
              <b>{{ digitsIn('mm', piece.cutMm) }}</b>
            </td>
            <td><span class="tick" aria-hidden="true" /></td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
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
</style>
