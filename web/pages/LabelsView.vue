<script setup lang="ts">
import { say, sayWord } from '@core/base/words/say.js';
import type { StoreAnswer, WasteAnswer } from '@core/workshop/store/answers.js';
import QRCode from 'qrcode';
import { computed, onScopeDispose, ref, watch, watchEffect } from 'vue';
import { get } from '../base/http/api.js';
import { usePage } from '../base/http/usePage.js';
import { useDates } from '../base/units/dates.js';
import { usePublicAddress } from '../workshop/people/publicAddress.js';
import {
  itemLabel,
  keptLabel,
  LABEL_GROUPS,
  lotLabel,
  sampleLabel,
  wasteLabel,
  type Label,
  type LabelGroup,
} from '../workshop/labels/labels.js';
import { LABEL_SIZES, LABEL_SIZE_KEYS, rememberedSize, rememberSize, SHEET_MM, type LabelSize } from '../workshop/labels/sizes.js';

/** Labels for containers, lots, samples, shelf and parts, with the figures that the books know, on the stock that lies in the printer. */
const dates = useDates();
const address = usePublicAddress();
const { data: labels, problem } = usePage(async (signal) => {
  const [store, waste] = await Promise.all([get<StoreAnswer>('/store', signal), get<WasteAnswer>('/waste', signal)]);
  return [
    ...waste.containers.filter(({ state }) => state === 'open').map((each) => wasteLabel(each, store.today, dates.day)),
    ...store.lots.map((each) => lotLabel(each, dates.day)),
    ...store.lots.flatMap((each) => sampleLabel(each, dates.day) ?? []),
    ...store.items.map(itemLabel),
    ...store.kept.map((each) => keptLabel(each, dates.day)),
  ];
});
const size = ref<LabelSize>(rememberedSize());
watch(size, rememberSize);
const stock = computed(() => LABEL_SIZES[size.value]);
const chosen = ref<ReadonlySet<string>>(new Set());
/** labels of a sheet that are gone already: the first is printed behind them */
const skip = ref(0);
const groups = computed(() =>
  (Object.keys(LABEL_GROUPS) as LabelGroup[])
    .map((group) => ({ group, title: say(LABEL_GROUPS[group]), labels: (labels.value ?? []).filter((each) => each.group === group) }))
    .filter((each) => each.labels.length > 0),
);
const printed = computed(() => (labels.value ?? []).filter(({ id }) => chosen.value.has(id)));
function toggle(ids: readonly string[]): void {
  const next = new Set(chosen.value);
  const all = ids.every((id) => next.has(id));
  for (const id of ids) {
    if (all) next.delete(id);
    else next.add(id);
  }
  chosen.value = next;
}
const codes = ref<ReadonlyMap<string, string>>(new Map());
watchEffect(async () => {
  const made = await Promise.all(
    printed.value.map(async ({ id, path }) => {
      const svg = await QRCode.toString(`${address.origin.value}${path}`, { type: 'svg', margin: 0, color: { light: '#ffffff00' } });
      return [id, `data:image/svg+xml;utf8,${encodeURIComponent(svg)}`] as const;
    }),
  );
  codes.value = new Map(made);
});
const print = (): void => window.print();

// the page of the printer is the label itself, or a sheet of them
const page = new CSSStyleSheet();
document.adoptedStyleSheets = [...document.adoptedStyleSheets, page];
onScopeDispose(() => (document.adoptedStyleSheets = document.adoptedStyleSheets.filter((each) => each !== page)));
watchEffect(() => {
  const { widthMm, heightMm, sheet } = stock.value;
  page.replaceSync(`@page { size: ${sheet ? `${SHEET_MM.width}mm ${SHEET_MM.height}mm` : `${widthMm}mm ${heightMm}mm`}; margin: 0; }`);
});
const sheetStyle = computed(() => {
  const { widthMm, heightMm, sheet } = stock.value;
  const columns = sheet?.columns ?? 1;
  const edge = sheet ? { x: (SHEET_MM.width - columns * widthMm) / 2, y: (SHEET_MM.height - sheet.rows * heightMm) / 2 } : { x: 0, y: 0 };
  return {
    gridTemplateColumns: `repeat(${columns}, ${widthMm}mm)`,
    gridAutoRows: `${heightMm}mm`,
    '--edge-x': `${edge.x}mm`,
    '--edge-y': `${edge.y}mm`,
  };
});
const lines = ({ lines: all }: Label): readonly string[] => all.slice(0, stock.value.heightMm < 34 ? 2 : 4);
</script>

<template>
  <main class="page">
    <header class="spread no-print">
      <h1>Labels</h1>
      <div class="row">
        <v-btn size="large" :disabled="printed.length === 0" @click="print">Print {{ printed.length || '' }}</v-btn>
        <v-btn variant="text" size="large" to="/store">Back to the store</v-btn>
      </div>
    </header>
    <p v-if="problem" role="alert" class="danger">{{ problem }}</p>
    <div v-if="labels" class="columns">
      <section class="no-print stack choose" aria-label="Which labels">
        <v-select
          v-model="size"
          :items="LABEL_SIZE_KEYS.map((value) => ({ value, title: sayWord(LABEL_SIZES[value].title) }))"
          label="Labels in the printer"
        />
        <v-select
          v-if="stock.sheet"
          v-model="skip"
          :items="
            Array.from({ length: stock.sheet.columns * stock.sheet.rows }, (_, index) => ({
              value: index,
              title: index === 0 ? say('a full sheet') : say('{index} used already', { index }),
            }))
          "
          label="The sheet"
        />
        <p v-if="labels.length === 0" class="quiet">
          Nothing stands in the store yet: a container, a lot or a counted thing gets its label here.
        </p>
        <fieldset v-for="group in groups" :key="group.group">
          <legend>
            <b>{{ group.title }}</b>
            <button type="button" class="link" :aria-label="`all: ${group.title}`" @click="toggle(group.labels.map(({ id }) => id))">
              all
            </button>
          </legend>
          <label v-for="each in group.labels" :key="each.id">
            <input type="checkbox" :checked="chosen.has(each.id)" @change="toggle([each.id])" /> {{ each.head }}
            <span class="quiet">{{ each.lines[0] }}</span>
          </label>
        </fieldset>
      </section>
      <section aria-label="As they are printed">
        <p v-if="address.caveat.value" class="no-print quiet">Codes: {{ address.caveat.value }}</p>
        <p v-if="printed.length === 0" class="no-print quiet">Choose labels at the left: they stand here as they leave the printer.</p>
        <div class="sheet" :style="sheetStyle">
          <template v-if="stock.sheet && printed.length > 0"><span v-for="index in skip" :key="index" class="used" /></template>
          <article v-for="each in printed" :key="each.id" class="label" :class="{ low: stock.heightMm < 34 }">
            <div>
              <h2>{{ each.head }}</h2>
              <p v-for="text in lines(each)" :key="text">{{ text }}</p>
              <p v-if="each.warning" class="warning">{{ each.warning }}</p>
            </div>
            <span>
              <img v-if="codes.get(each.id)" :src="codes.get(each.id)" alt="" />
              <i v-if="each.colour" :style="{ background: each.colour }" />
            </span>
          </article>
        </div>
      </section>
    </div>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(260px, 1fr) minmax(0, auto);
  gap: 36px;
  align-items: start;
}
fieldset {
  border: 0;
  padding: 0;
}
fieldset label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 40px;
  border-top: 1px solid var(--line-soft);
}
fieldset input {
  width: 22px;
  height: 22px;
}
.link {
  text-decoration: underline;
  min-height: 32px;
  padding: 0 8px;
}
.sheet {
  display: grid;
  justify-content: start;
  max-width: 100%;
  overflow-x: auto;
}
.columns > * {
  min-width: 0;
}
.label,
.used {
  outline: 1px dashed var(--line);
}
.label {
  background: #fff;
  color: #111;
  padding: 2.5mm 3mm;
  display: grid;
  grid-template-columns: 1fr 17mm;
  gap: 2mm;
  overflow: hidden;
  line-height: 1.2;
  font-size: 9.5pt;
}
.label h2 {
  font-size: 13pt;
  line-height: 1.1;
  margin: 0 0 0.8mm;
  overflow-wrap: anywhere;
}
.label p {
  margin: 0;
}
.label .warning {
  font-weight: 700;
}
.label img {
  width: 17mm;
  height: 17mm;
  display: block;
}
.label i {
  display: block;
  height: 3mm;
  margin-top: 1.5mm;
  border: 0.4mm solid #111;
}
.low {
  font-size: 8pt;
  padding: 1.5mm 2mm;
}
.low h2 {
  font-size: 10.5pt;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .sheet {
    overflow-x: auto;
  }
  fieldset {
    columns: 2;
  }
}
@media (max-width: 600px) {
  fieldset {
    columns: 1;
  }
  fieldset label {
    flex-wrap: wrap;
    gap: 0 10px;
    padding: 6px 0;
  }
}
@media print {
  .sheet {
    overflow: visible;
  }
  .page,
  .columns {
    display: block;
    padding: 0;
    margin: 0;
  }
  .sheet {
    padding: var(--edge-y) var(--edge-x);
  }
  .label,
  .used {
    outline: none;
    break-inside: avoid;
  }
}
</style>
