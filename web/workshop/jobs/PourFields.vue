<script setup lang="ts">
import { capital, say } from '@core/base/words/say.js';
import { formatMl } from '@core/base/units/display.js';
import { daysBetween } from '@core/base/units/calendar.js';
import { reasonWords } from '@core/edge/words/dates.js';
import { formatMoney } from '@core/workshop/prices/money.js';
import { SOON_DAYS } from '@core/workshop/due-dates/defaults.js';
import { METAL_WORDS } from '@core/machine/materials/metals.js';
import { pourOf, type PourChoice, type PourOption } from '@core/workshop/jobs/pourChoice.js';
import { computed, ref } from 'vue';
import { useDates } from '../../base/units/dates.js';

/** What will be poured: may it meet what is inside, how often to rinse between, when it comes out again, what a year of it costs. */
const chosen = defineModel<string | null>({ required: true });
const props = defineProps<{
  choice: PourChoice;
  /** what the loop is filled with */
  nowId: string | null;
  today: string;
  currency: string;
  /** the job rinses by itself */
  rinses: boolean;
}>();
const emit = defineEmits<{ flush: [] }>();
const dates = useDates();
const isOpen = ref(false);
const pick = computed(() => chosen.value ?? props.nowId);
const own = computed(() => pourOf(props.choice, pick.value));
const mustRinse = computed(() => own.value !== null && own.value.verdict !== 'fine' && !props.rinses);
const longest = computed(() => Math.max(1, ...props.choice.options.map(({ firstDueOn }) => daysBetween(props.today, firstDueOn))));
const share = (option: PourOption): string => `${(100 * daysBetween(props.today, option.firstDueOn)) / longest.value}%`;
const VERDICTS = { fine: 'may meet what is inside', 'rinse-between': 'rinse between', never: 'never together' };
const rinseWords = ({ verdict, rinses }: PourOption): string =>
  verdict === 'fine'
    ? ''
    : rinses === null
      ? say('more rinses than anybody goes on for, or nobody knows what stays: strip it')
      : say('{rinses, plural, one {# rinse} other {# rinses}} between', { rinses });
const yearWords = ({ yearMinor, firstDueOn }: PourOption): string =>
  daysBetween(props.today, firstDueOn) < SOON_DAYS
    ? say('for days, not for years')
    : yearMinor === null
      ? say('no price')
      : say('{money} a year', { money: formatMoney(yearMinor, props.currency) });
const metalWords = ({ unsuited }: PourOption): string =>
  unsuited.map(({ metal, part }) => say('{metal} ({part})', { metal: say(METAL_WORDS[metal]), part })).join(', ');
function take(option: PourOption): void {
  chosen.value = option.productId === props.nowId ? null : option.productId;
  isOpen.value = false;
}
</script>

<template>
  <section class="pour" aria-label="What will be poured">
    <h3>What will be poured</h3>
    <p v-if="own">
      <i class="swatch" :style="{ background: own.colour }" aria-hidden="true" />
      <strong>{{ own.name }}</strong>, first due {{ dates.day(own.firstDueOn) }}, {{ yearWords(own) }}
      <button type="button" class="link" :aria-expanded="isOpen" @click="isOpen = !isOpen">{{ isOpen ? 'close' : 'another' }}</button>
    </p>
    <p v-else>
      Not said yet. <button type="button" class="link" @click="isOpen = !isOpen">{{ isOpen ? 'close' : 'choose' }}</button>
    </p>
    <p v-if="own && own.verdict !== 'fine'" :class="{ danger: mustRinse }" role="status">
      {{ capital(say(VERDICTS[own.verdict])) }}: {{ own.reason }}. {{ capital(rinseWords(own))
      }}<template v-if="choice.leftMl !== null">, since about {{ formatMl(choice.leftMl) }} stay each time</template>.
      <button v-if="mustRinse" type="button" class="link" @click="emit('flush')">Make it a flush</button>
    </p>
    <p v-if="own && own.unsuited.length > 0" class="danger" role="status">Its sheet does not name {{ metalWords(own) }}.</p>
    <ul v-if="isOpen" class="plain-list">
      <li v-for="option in choice.options" :key="option.productId">
        <button type="button" class="option" :aria-pressed="option.productId === pick" @click="take(option)">
          <i class="swatch" :style="{ background: option.colour }" aria-hidden="true" />
          <span class="name">{{ option.name }}</span>
          <span class="mix"
            >{{ say(VERDICTS[option.verdict]) }}<small v-if="rinseWords(option)" class="quiet">, {{ rinseWords(option) }}</small
            ><small v-if="option.unsuited.length > 0" class="danger">, not for {{ metalWords(option) }}</small></span
          >
          <span class="due" :title="capital(reasonWords(option.dueReason))"
            ><b :style="{ width: share(option) }" /><span class="figures"
              >{{ dates.day(option.firstDueOn) }}<template v-if="option.estimated"> (estimate)</template></span
            ></span
          >
          <span class="figures year">{{ yearWords(option) }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h3 {
  margin: 0 0 4px;
  font-size: 1rem;
}
.pour p {
  margin: 0 0 6px;
}
.swatch {
  display: inline-block;
  width: 14px;
  height: 14px;
  border: 1px solid var(--ink);
  vertical-align: -2px;
}
.link {
  text-decoration: underline;
  min-height: 44px;
  padding-inline: 6px;
}
.option {
  display: grid;
  grid-template-columns: 16px 1.1fr 1.3fr 1.1fr 7.5rem;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 48px;
  padding: 4px 6px;
  text-align: left;
  border-top: 1px solid var(--line-soft);
}
.option[aria-pressed='true'] {
  background: var(--sheet);
  box-shadow: inset 4px 0 0 var(--ink);
}
.year {
  text-align: right;
}
.due b {
  display: block;
  height: 6px;
  background: var(--ink-soft);
  margin-bottom: 2px;
}
@media (max-width: 620px) {
  .option {
    grid-template-columns: 16px 1fr 1fr;
  }
}
</style>
