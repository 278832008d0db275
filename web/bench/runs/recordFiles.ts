import type { RecordAnswer } from '@core/edge/records/answers.js';
import { downloadJson, downloadTable, fileName } from '../../base/files/download.js';

const nameOf = ({ record }: RecordAnswer): string => fileName(`record-${record.system.name}-${record.signedOffAt.slice(0, 10)}`, 'record');

/** The log of a record as rows, corrections last. Instants are UTC, so that any table program sorts them. */
export function logRows({
  record,
  corrections,
}: RecordAnswer): { number: string; at: string; by: string; entry: string; taken_back: string }[] {
  return [
    ...record.log.map(({ seq, at, by, text, takenBack }) => ({
      number: String(seq),
      at,
      by,
      entry: text,
      taken_back: takenBack ? 'yes' : '',
    })),
    ...corrections.map(({ at, by, body }) => ({
      number: 'correction',
      at,
      by,
      entry: body.type === 'correction' ? body.text : '',
      taken_back: '',
    })),
  ];
}

export const downloadRecord = (answer: RecordAnswer): void => downloadJson(answer, nameOf(answer));

export const downloadLog = (answer: RecordAnswer): Promise<void> => downloadTable(logRows(answer), `${nameOf(answer)}-log`);
