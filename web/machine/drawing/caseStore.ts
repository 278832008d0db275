import type { CaseTemplate } from '@core/machine/drawing/answers.js';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { CaseOutline } from '@core/machine/drawing/cases.js';
import { call, get } from '../../base/http/api.js';

/** The workshop's own cases. */
export const useCases = defineStore('cases', () => {
  const templates = ref<CaseTemplate[]>([]);
  const sorted = (all: CaseTemplate[]): CaseTemplate[] => [...all].sort((a, b) => a.label.localeCompare(b.label));
  return {
    templates,
    load: async () => {
      templates.value = (await get<{ templates: CaseTemplate[] }>('/case-templates')).templates;
    },
    add: async (body: CaseOutline, idempotencyKey: string) => {
      const made = await call<CaseTemplate>('POST', '/case-templates', { body, idempotencyKey });
      templates.value = sorted([...templates.value, made]);
      return made;
    },
    edit: async ({ id, label, depthMm, heightMm, widthMm, mounts, version }: CaseTemplate) => {
      const made = await call<CaseTemplate>('PUT', `/case-templates/${id}`, {
        body: { label, depthMm, heightMm, widthMm, mounts, version },
      });
      templates.value = sorted(templates.value.map((each) => (each.id === id ? made : each)));
      return made;
    },
    remove: async (id: string) => {
      await call('DELETE', `/case-templates/${id}`, {});
      templates.value = templates.value.filter((each) => each.id !== id);
    },
  };
});
