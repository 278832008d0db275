<script setup lang="ts">
import { computed } from 'vue';
import type { ServiceReport } from '@core/edge/records/serviceReport.js';
import { GRADE_WORDS, type Grade } from '@core/bench/inspection/grade.js';
import { formatMl, formatMlWithSd, grouped } from '@core/base/units/display.js';

/** What a service found, did and left: the part of the record that the owner is told. */
const props = defineProps<{ report: ServiceReport }>();
/** what nothing came out of, such as a top-up, has no drain to tell of and handed nothing in */
const cameOut = computed(() => props.report.volumes.outMl + props.report.volumes.lostMl + Math.max(0, props.report.volumes.unseenMl) > 0);

/** The three that hold most, as the twin has it. */
const places = (where: readonly { readonly name: string; readonly ml: number }[]): string =>
  where
    .slice(0, 3)
    .map(({ name, ml }) => `${name} (${formatMl(ml)})`)
    .join(', ');
</script>

<template>
  <section class="report">
    <p v-if="report.comparison" class="compare">
      <strong>Same load, before and after: {{ report.comparison }}.</strong>
      <template v-if="report.split"> Cleaning alone: {{ report.split.dusting }}; what was done after it: {{ report.split.rest }}.</template>
      <template v-else-if="report.split === null"> All that was done counts as one: nothing was read in between.</template>
    </p>
    <div v-if="report.looseEnds.length" class="loose">
      <strong>Not claimed clean:</strong> {{ report.looseEnds.join('; ') }}. An early look and a shorter interval follow.
    </div>
    <div v-for="fix in report.temporary" :key="fix.what" class="loose">
      <strong>Temporary:</strong> {{ fix.what }}, until {{ fix.awaits }}, by {{ fix.until }} at the latest. Until then:
      {{ fix.limits.join(', ') }}.
    </div>
    <dl class="figures">
      <dt v-if="cameOut">Came out</dt>
      <dd v-if="cameOut">
        {{ formatMl(report.volumes.outMl)
        }}<template v-if="report.volumes.lostMl > 0">, {{ formatMl(report.volumes.lostMl) }} lost</template
        ><template v-if="report.volumes.unseenMl >= 5"
          >, {{ formatMl(report.volumes.unseenMl) }} in parts and towels when it was taken apart</template
        >
      </dd>
      <dt v-if="report.volumes.inMl > 0">Went in</dt>
      <dd v-if="report.volumes.inMl > 0">{{ formatMl(report.volumes.inMl) }}</dd>
      <template v-if="report.volumes.drain"
        ><dt>At the drain</dt>
        <dd>
          {{ formatMl(report.volumes.drain.cameMl) }} came<template v-if="report.volumes.drain.shouldMl !== null"
            >, <span class="estimate">{{ formatMl(report.volumes.drain.shouldMl) }}</span> should have</template
          ><template v-if="report.volumes.drain.leftMl !== null"
            >; left inside: {{ formatMlWithSd(Math.max(0, report.volumes.drain.leftMl), report.volumes.drain.leftSdMl) }}</template
          ><template v-if="report.volumes.drain.where.length"
            >, most of it in <span class="estimate">{{ places(report.volumes.drain.where) }}</span></template
          >
        </dd></template
      >
      <template v-if="cameOut"
        ><dt>The book, drained</dt>
        <dd>{{ report.volumes.balance }}</dd></template
      >
      <template v-if="report.volumes.insideMl !== null"
        ><dt>Inside now</dt>
        <dd class="estimate">
          {{ formatMl(Math.max(0, report.volumes.insideMl))
          }}<template v-if="report.volumes.insideMl >= 1"
            >, {{ grouped(100 * report.volumes.oldShare, 1) }} % of it the old liquid</template
          >
        </dd></template
      >
      <template v-if="report.cause"
        ><dt>Suspected</dt>
        <dd>{{ report.cause }}</dd></template
      >
    </dl>
    <div v-if="report.sheet.length">
      <h3>Inspection sheet</h3>
      <ul class="plain-list sheet-rows">
        <li v-for="row in report.sheet" :key="row.name">
          <strong>{{ row.name }}</strong><span>{{ GRADE_WORDS[row.grade as Grade] }}</span
          ><span class="quiet">{{ row.words }} {{ row.text }}</span>
        </li>
      </ul>
    </div>
    <div v-if="report.done.length">
      <h3>Done</h3>
      <ul>
        <li v-for="each in report.done" :key="each">{{ each }}</li>
      </ul>
    </div>
    <div v-if="report.notReconnected.length">
      <h3>Not reconnected</h3>
      <ul>
        <li v-for="each in report.notReconnected" :key="each">{{ each }}</li>
      </ul>
    </div>
    <ul v-if="report.photos.length" class="plain-list photos">
      <li v-for="photo in report.photos" :key="photo.photoId">
        <img :src="`/api/photos/${photo.photoId}`" :alt="photo.caption || 'Photograph'" /><span class="quiet">{{ photo.caption }}</span>
      </li>
    </ul>
    <p v-if="cameOut" class="quiet">
      Used coolant and rinse water went into labelled containers for the collection point. Local rules and the safety data sheet come first.
    </p>
  </section>
</template>

<style scoped>
.report {
  display: grid;
  gap: 14px;
}
p {
  margin: 0;
}
.compare {
  font-size: 1.2rem;
}
.loose {
  border-left: 5px solid var(--ink);
  padding: 4px 0 4px 12px;
}
dl {
  display: grid;
  grid-template-columns: 120px 1fr;
  gap: 4px 16px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.sheet-rows li {
  display: grid;
  grid-template-columns: 1.2fr 110px 2fr;
  gap: 16px;
  border-top: 1px solid var(--line-soft);
  padding: 4px 0;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
}
.photos img {
  display: block;
  width: 180px;
  height: 130px;
  object-fit: cover;
}
</style>
