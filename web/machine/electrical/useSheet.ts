import { say } from '@core/base/words/say.js';
import { shortName } from '@core/machine/catalogue/names.js';
import { BOARD, freshConnectorId, SUPPLY, type Connector, type ElectricalSheet, type PartOfLoop } from '@core/machine/electrical/sheet.js';
import { usualSheet } from '@core/machine/electrical/usual.js';
import type { ConnectorsAnswer } from '@core/workshop/machines/answers.js';
import { computed, ref, shallowRef, watch } from 'vue';
import { call } from '../../base/http/api.js';
import type { Page } from '../../base/http/usePage.js';
import { useSubmit } from '../../base/http/useSubmit.js';
import { useNotices } from '../../base/shell/notices.js';

/** The sheet as it is edited: nothing of it is kept until it is written down whole. */
export function useSheet(page: Page<ConnectorsAnswer>) {
  const notices = useNotices();
  const submit = useSubmit();
  const sheet = shallowRef<ElectricalSheet | null>(null);
  /** the sheet as it is kept; null: there is none */
  const kept = ref('null');
  /** id of the connector whose details stand open */
  const touched = ref<string | null>(null);

  watch(page.data, (answer) => {
    if (!answer) return;
    sheet.value = answer.sheet;
    kept.value = JSON.stringify(answer.sheet);
  });
  const isChanged = computed(() => JSON.stringify(sheet.value) !== kept.value);

  const begin = (): void => void (sheet.value = usualSheet(page.data.value?.loops ?? []));
  function change(next: Connector): void {
    if (sheet.value)
      sheet.value = { ...sheet.value, connectors: sheet.value.connectors.map((each) => (each.id === next.id ? next : each)) };
  }
  function add(from: string): void {
    const now = sheet.value;
    if (!now) return;
    const id = freshConnectorId(now);
    const cable = from === SUPPLY ? 'unknown' : 'own';
    const made: Connector = { id, kind: 'other', name: say('New connector'), from, openWhy: null, cable, of: null, fans: null };
    sheet.value = { ...now, connectors: [...now.connectors, made] };
    touched.value = id;
  }
  /** What hung on a hub that is gone hangs on what fed the hub. */
  function remove(gone: Connector): void {
    const before = sheet.value;
    if (!before) return;
    const rest = before.connectors.filter(({ id }) => id !== gone.id);
    sheet.value = { ...before, connectors: rest.map((each) => (each.from === gone.id ? { ...each, from: gone.from } : each)) };
    notices.say(say('{name} is off the sheet.', { name: gone.name }), async () => void (sheet.value = before));
  }
  async function keep(): Promise<void> {
    const { value: answer } = page.data;
    if (!answer || !sheet.value) return;
    const saved = await submit.run(() =>
      call<ConnectorsAnswer>('PUT', `/systems/${answer.systemId}/connectors`, { body: { sheet: sheet.value, version: answer.version } }),
    );
    if (!saved) return;
    touched.value = null;
    page.take(saved);
    notices.say(say('The connectors are written down.'));
  }

  /** Somebody, or a run, wrote it down meanwhile: theirs is shown, and undo brings one's own back to be compared. */
  function readTheirs(): void {
    const mine = sheet.value;
    const theirs = submit.stale.value?.theirs as ConnectorsAnswer | undefined;
    if (!theirs) return;
    submit.clear();
    page.take(theirs);
    notices.say(say('The sheet as somebody else wrote it down.'), async () => void (sheet.value = mine));
  }

  const hubs = computed(() => sheet.value?.connectors.filter(({ kind }) => kind === 'hub') ?? []);
  const sources = computed(() => [
    { value: SUPPLY, title: say('the supply') },
    { value: BOARD, title: say('the board') },
    ...hubs.value.map(({ id, name }) => ({ value: id, title: name })),
  ]);
  const partsOf = (kind: 'pump' | 'radiator'): { of: PartOfLoop; title: string }[] => {
    const loops = page.data.value?.loops ?? [];
    return loops.flatMap(({ id: loopId, name, file }) =>
      file.components
        .filter((part) => part.kind === kind)
        .map((part) => ({
          of: { loopId, part: part.id },
          title: loops.length > 1 ? say('{part}, {loop}', { part: shortName(part), loop: name }) : shortName(part),
        })),
    );
  };
  const pumps = computed(() => partsOf('pump'));
  const radiators = computed(() => partsOf('radiator'));
  return { sheet, isChanged, touched, begin, change, add, remove, keep, readTheirs, submit, hubs, sources, pumps, radiators };
}
