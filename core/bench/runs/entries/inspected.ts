import { say, sayWord } from '../../../base/words/say.js';
import Joi from 'joi';
import { note } from '../../../base/checking/fields.js';
import {
  DEPOSITS,
  FINISHES,
  gradeItem,
  GRADE_WORDS,
  SEALS,
  SIDES,
  SURFACES,
  TOUCHES,
  WALLS,
  type ItemFindings,
} from '../../inspection/grade.js';
import { refusal, type EntryDefinition } from '../entry.js';
import { item, oneOf, step } from './fields.js';

export interface InspectedEntry {
  readonly type: 'inspected';
  readonly step: string;
  readonly item: string;
  readonly findings: ItemFindings;
}

const findings = Joi.object({
  deposit: oneOf(DEPOSITS).required(),
  surface: oneOf(SURFACES).required(),
  seal: oneOf(SEALS).allow(null).required(),
  worn: Joi.boolean().required(),
  touch: oneOf(TOUCHES).allow(null).required(),
  wall: oneOf(WALLS).allow(null).required(),
  text: note().required(),
  side: oneOf(SIDES).allow(null),
  finish: oneOf(FINISHES).allow(null),
});

export const inspected: EntryDefinition<InspectedEntry> = {
  schema: { step, item: item.required(), findings: findings.required() },
  belongs: 'own-step',
  apply: ({ service: { sheet } }, entry) => {
    const before = sheet.get(entry.item);
    sheet.set(entry.item, { first: before?.first ?? entry.findings, last: entry.findings, looks: (before?.looks ?? 0) + 1 });
  },
  refuse: (entry, { procedure: { service } }) => {
    if (!service) return refusal('unknown-item', { why: 'not-a-service' });
    return service.items.some(({ id }) => id === entry.item) ? null : refusal('unknown-item', { why: 'unknown-item', name: entry.item });
  },
  reads: (entry, { procedure: { service }, nameOf }) => {
    const graded = gradeItem(service?.items.find(({ id }) => id === entry.item)?.kind ?? 'other', entry.findings);
    return say('Looked at {nameOf}: {grade}, {rule}{text}', {
      nameOf: nameOf(entry.item),
      grade: sayWord(GRADE_WORDS[graded.grade]),
      rule: graded.rule,
      text: entry.findings.text ? ` (${entry.findings.text})` : '',
    });
  },
};
