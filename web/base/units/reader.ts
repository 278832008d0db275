import { shallowRef } from 'vue';
import { readBy, USUAL_READING, type Reading } from '@core/base/units/reading.js';

/** Who looks at this screen reads numbers, dates and words so. What is drawn follows at once when it changes. */
const own = shallowRef<Reading>(USUAL_READING);
readBy(() => own.value);

export function setReading(way: Reading | undefined): void {
  own.value = { ...USUAL_READING, ...way };
  if (typeof document !== 'undefined') document.documentElement.lang = own.value.language;
}
