<script setup lang="ts">
import type { Paper } from '@core/edge/papers/paper.js';
import type { PlainShape } from '@core/physics/profile/plainDrawing.js';
import { useId } from 'vue';

/** A paper as a page: the same account as its PDF, piece by piece in reading order. */
const props = defineProps<{
  paper: Paper;
  /** addresses of its pictures by their ids; one that is missing is left out */
  pictures: ReadonlyMap<string, string>;
}>();
const own = useId();
const PAINTS = { ink: 'var(--ink)', soft: 'var(--line)', glass: 'var(--glass)' } as const;
const paint = (of: PlainShape['fill'], colour: string | null): string =>
  of === undefined ? 'none' : of === 'liquid' ? (colour ?? 'var(--ink-soft)') : PAINTS[of as keyof typeof PAINTS];
const stroke = (of: PlainShape['stroke'], colour: string | null): string =>
  of === undefined ? 'none' : of === 'liquid' ? (colour ?? 'var(--ink-soft)') : PAINTS[of];
const shown = (photos: readonly { photoId: string; caption: string }[]) => photos.flatMap((photo) => (props.pictures.has(photo.photoId) ? [{ ...photo, src: props.pictures.get(photo.photoId) }] : [])); // prettier-ignore
</script>

<template>
  <article class="paper" :lang="paper.language">
    <header>
      <p class="small">{{ paper.from.name }} · {{ paper.from.where }}</p>
      <h2 class="title">{{ paper.title }}</h2>
      <p>{{ paper.about }}</p>
    </header>
    <template v-for="(block, index) in paper.blocks" :key="index">
      <h3 v-if="block.kind === 'heading'">{{ block.text }}</h3>
      <p v-else-if="block.kind === 'text'" :class="block.as">{{ block.text }}</p>
      <dl v-else-if="block.kind === 'rows'">
        <template v-for="each in block.rows" :key="each.label">
          <dt>{{ each.label }}</dt>
          <dd :class="{ estimate: each.estimate }">{{ each.estimate ? `≈ ${each.text}` : each.text }}</dd>
        </template>
      </dl>
      <ul v-else-if="block.kind === 'list'">
        <li v-for="(each, at) in block.items" :key="at">{{ each }}</li>
      </ul>
      <div v-else-if="block.kind === 'table'" class="scroll" tabindex="0" role="region" :aria-label="block.caption">
        <!-- on a telephone its lines are drawn as blocks, which takes what a table is from it: said here -->
        <table role="table">
          <caption>
            {{
              block.caption
            }}
          </caption>
          <thead role="rowgroup">
            <tr role="row">
              <th
                v-for="(each, at) in block.head"
                :key="at"
                scope="col"
                role="columnheader"
                :class="{ figure: block.figures?.includes(at) }"
              >
                {{ each }}
              </th>
            </tr>
          </thead>
          <tbody role="rowgroup">
            <tr v-for="(cells, line) in block.rows" :key="line" role="row">
              <td
                v-for="(each, at) in cells"
                :key="at"
                role="cell"
                :data-head="block.head[at]"
                :class="{ figure: block.figures?.includes(at) }"
              >
                <span>{{ each }}</span>
              </td>
            </tr>
          </tbody>
          <tfoot v-if="block.foot" role="rowgroup">
            <tr role="row">
              <td v-for="(each, at) in block.foot" :key="at" role="cell" :class="{ figure: block.figures?.includes(at) }">
                <span>{{ each }}</span>
              </td>
            </tr>
          </tfoot>
        </table>
      </div>
      <div v-else-if="block.kind === 'drawing'" class="scroll">
        <svg :viewBox="`0 0 ${block.drawing.width} ${block.drawing.height}`" role="img" :aria-label="block.alt">
          <template v-for="(shape, at) in block.drawing.shapes" :key="at">
            <clipPath v-if="shape.clip" :id="`${own}-${index}-${at}`"><path :d="shape.clip" /></clipPath>
            <path
              :d="shape.d"
              :fill="paint(shape.fill, block.drawing.colour)"
              :stroke="stroke(shape.stroke, block.drawing.colour)"
              :stroke-width="shape.strokeWidth ?? 1"
              :stroke-dasharray="shape.dashed ? '4 4' : undefined"
              stroke-linejoin="round"
              :clip-path="shape.clip ? `url(#${own}-${index}-${at})` : undefined"
            />
          </template>
          <text
            v-for="(each, at) in block.drawing.texts"
            :key="`t${at}`"
            :x="each.x"
            :y="each.y"
            :font-size="each.size"
            :text-anchor="each.anchor"
            fill="currentColor"
          >
            {{ each.text }}
          </text>
        </svg>
      </div>
      <div v-else-if="block.kind === 'pictures'" class="pictures">
        <figure v-for="photo in shown(block.pictures)" :key="photo.photoId">
          <img :src="photo.src" :alt="photo.caption" />
          <figcaption>{{ photo.caption }}</figcaption>
        </figure>
      </div>
      <p v-else-if="block.kind === 'sign'" class="sign">
        <span v-for="place in block.places" :key="place">{{ place }}</span>
      </p>
    </template>
  </article>
</template>

<style scoped>
.paper {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  max-width: 46rem;
  container-type: inline-size;
}
p,
h2,
h3,
dl,
dd,
ul,
figure {
  margin: 0;
}
.title {
  font-size: 1.7rem;
  line-height: 1.15;
}
header {
  border-bottom: 3px solid var(--ink);
  padding-bottom: 10px;
}
h3 {
  font-size: 1.15rem;
  padding-top: 12px;
}
.small,
figcaption,
caption,
thead th {
  color: var(--ink-soft);
  font-size: 0.88rem;
  font-weight: 420;
}
.strong {
  font-weight: 640;
}
.notice {
  border-left: 4px solid var(--danger);
  padding-left: 10px;
  font-weight: 640;
}
dl {
  display: grid;
  grid-template-columns: minmax(6.5rem, auto) 1fr;
  gap: 4px 16px;
}
dt {
  color: var(--ink-soft);
}
dd {
  overflow-wrap: anywhere;
}
.estimate {
  font-style: italic;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-variant-numeric: tabular-nums;
}
caption {
  text-align: left;
  padding-bottom: 2px;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 5px 14px 5px 0;
  border-top: 1px solid var(--line-soft);
  white-space: normal;
}
.figure {
  text-align: right;
  white-space: nowrap;
}
tfoot td {
  border-top: 2px solid var(--ink);
  font-weight: 640;
}
/* names in it stay readable on a telephone: it is looked along */
svg {
  width: 100%;
  min-width: 620px;
  display: block;
}
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
img {
  width: 100%;
  display: block;
}
.sign {
  display: grid;
  grid-auto-flow: column;
  gap: 24px;
  padding-top: 46px;
}
.sign span {
  border-top: 1px solid var(--ink);
  color: var(--ink-soft);
  font-size: 0.88rem;
}
@container (max-width: 30rem) {
  .pictures {
    grid-template-columns: 1fr;
  }
  table,
  tbody,
  tfoot,
  tr,
  caption {
    display: block;
  }
  thead {
    position: absolute;
    clip-path: inset(50%);
    width: 1px;
    height: 1px;
    overflow: hidden;
  }
  tr {
    border-top: 1px solid var(--line-soft);
    padding: 7px 0;
  }
  tfoot tr {
    border-top: 2px solid var(--ink);
  }
  td,
  tfoot td {
    display: flex;
    gap: 16px;
    border: 0;
    padding: 1px 0;
  }
  td:first-child {
    font-weight: 640;
  }
  td:not(:first-child) > span {
    flex: 1;
    white-space: normal;
  }
  td[data-head]:not(:first-child)::before {
    content: attr(data-head);
    color: var(--ink-soft);
    flex: 0 0 6.5rem;
  }
  td:not(:has(> span:not(:empty))) {
    display: none;
  }
}
</style>
