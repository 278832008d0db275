import type { OwnerInput, SystemInput } from '@core/workshop/machines/schema.js';
import { asOwnReading } from '@core/workshop/people/ownersReading.js';
import type { OwnerForm } from './OwnerFields.vue';
import type { SystemForm } from './SystemFields.vue';

const orNull = (text: string): string | null => (text.trim() === '' ? null : text.trim());

export const emptyOwner = (): OwnerForm => ({
  name: '',
  email: '',
  phone: '',
  channel: 'phone',
  language: null,
  units: null,
  note: '',
  policy: null,
});
export const emptySystem = (): SystemForm => ({
  name: '',
  tag: '',
  caseText: '',
  builtBy: '',
  hoursPerDay: null,
  coolantC: null,
  dustPlace: 'usual',
  policy: null,
  note: '',
});

export const ownerInput = (form: OwnerForm): OwnerInput => ({
  name: form.name.trim(),
  email: orNull(form.email),
  phone: orNull(form.phone),
  channel: form.channel,
  note: form.note,
  reading: asOwnReading(form),
  policy: form.policy,
});

export const systemInput = (form: SystemForm, ownerId: string): SystemInput => ({
  ownerId,
  name: form.name.trim(),
  tag: form.tag.trim(),
  caseText: form.caseText.trim(),
  builtBy: form.builtBy.trim(),
  hoursPerDay: form.hoursPerDay,
  coolantC: form.coolantC,
  dustPlace: form.dustPlace,
  policy: form.policy,
  note: form.note,
});
