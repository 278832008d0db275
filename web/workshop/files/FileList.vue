<script setup lang="ts">
import { grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { computed, onMounted, ref, watch } from 'vue';
import { FILE_KIND_WORDS, FILE_KINDS, FILE_TYPES, MOST_FILE_BYTES, type FileKind, type FileOwner, type FileType, type KeptFile } from '@core/workshop/files/kinds.js'; // prettier-ignore
import { call, get } from '../../base/http/api.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';
import { useDates } from '../../base/units/dates.js';

/** Papers of a machine, a coolant or a part: what it is, who put it here, and the file itself. */
const props = defineProps<{ owner: FileOwner; ownerId: string; usual?: FileKind; heading?: string }>();
const dates = useDates();
const notices = useNotices();
const submit = useSubmit();
const files = ref<KeptFile[]>([]);
const kind = ref<FileKind>(props.usual ?? 'sheet');
const unreadable = ref<string | null>(null);
const address = computed(() => `/${props.owner}/${props.ownerId}/files`);
const load = async (): Promise<void> => {
  files.value = (await get<{ files: KeptFile[] }>(address.value).catch(() => ({ files: files.value }))).files;
};
onMounted(load);
watch(address, load);

const sizeWords = (bytes: number): string => (bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${grouped(bytes / 1e6, 1)} MB`);

/** a browser that knows no type for a table or a text goes by its name */
const BY_NAME: Readonly<Record<string, FileType>> = { csv: 'text/csv', txt: 'text/plain', pdf: 'application/pdf' };
const typeOf = (file: File): FileType | null => {
  const type = Object.hasOwn(FILE_TYPES, file.type) ? (file.type as FileType) : BY_NAME[file.name.split('.').at(-1)?.toLowerCase() ?? ''];
  return type ?? null;
};
const base64 = async (file: File): Promise<string> => {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return btoa(text);
};

async function keep(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  if (!file) return;
  const type = typeOf(file);
  unreadable.value =
    type === null
      ? say('{name} is none of {values}.', { name: file.name, values: Object.values(FILE_TYPES).join(', ') })
      : file.size > MOST_FILE_BYTES
        ? say('{name} has {sizeWords}; a file may have 5 MB.', { name: file.name, sizeWords: sizeWords(file.size) })
        : file.size === 0
          ? say('{name} is empty.', { name: file.name })
          : null;
  if (type !== null && unreadable.value === null) {
    const id = crypto.randomUUID();
    const content = `data:${type};base64,${await base64(file)}`;
    const saved = await submit.run((idempotencyKey) =>
      call<{ files: KeptFile[] }>('POST', address.value, {
        body: { id, name: file.name, kind: kind.value, note: '', content },
        idempotencyKey,
      }),
    );
    if (saved) files.value = saved.files;
  }
  field.value = '';
}
async function putAway(file: KeptFile): Promise<void> {
  if ((await submit.run(() => call('DELETE', `/files/${file.id}`))) === null) return;
  files.value = files.value.filter(({ id }) => id !== file.id);
  notices.say(say('{name} is put away.', { name: file.name }), async () => {
    await call('POST', `/files/${file.id}/back`, { body: {} });
    await load();
  });
}
</script>

<template>
  <section class="papers" aria-label="Files">
    <h3>{{ heading ?? 'Files' }}</h3>
    <p v-if="files.length === 0" class="quiet">No sheet, no invoice yet: what is kept here is at hand when the phone rings.</p>
    <ul v-else class="plain-list">
      <li v-for="file in files" :key="file.id">
        <a :href="`/api/files/${file.id}`" :download="file.name">{{ file.name }}</a>
        <span class="quiet">{{ FILE_KIND_WORDS[file.kind] }}, {{ sizeWords(file.bytes) }}, {{ file.by }}, {{ dates.day(file.at) }}</span>
        <button type="button" class="quiet" :aria-label="`Put ${file.name} away`" @click="putAway(file)">put away</button>
      </li>
    </ul>
    <div class="add no-print">
      <v-select
        v-model="kind"
        :items="FILE_KINDS.map((value) => ({ value, title: FILE_KIND_WORDS[value] }))"
        label="It is"
        density="compact"
        hide-details
      />
      <label class="pick" :class="{ busy: submit.busy.value }"
        ><input type="file" :accept="Object.keys(FILE_TYPES).join(',') + ',.csv,.txt'" :disabled="submit.busy.value" @change="keep" />{{
          submit.busy.value ? 'Keeping it …' : 'Add a file'
        }}</label
      >
    </div>
    <p v-if="unreadable || submit.problem.value" role="alert" class="danger">{{ unreadable ?? submit.problem.value }}</p>
  </section>
</template>

<style scoped>
.papers {
  display: grid;
  gap: 8px;
}
h3,
p {
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line-soft);
}
li a {
  grid-column: 1 / -1;
  overflow-wrap: anywhere;
}
li button {
  min-height: 32px;
  text-decoration: underline;
}
.add {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  align-items: center;
}
.pick {
  position: relative;
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 16px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  cursor: pointer;
}
.pick input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.pick:focus-within {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
.busy {
  color: var(--ink-soft);
}
</style>
