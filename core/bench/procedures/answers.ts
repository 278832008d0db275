import type { ProcedureTemplate } from '../runs/template.js';

/** One version of the workshop's procedure. */
export interface ProcedureVersion {
  number: number;
  template: ProcedureTemplate;
  note: string;
  by: string;
  at: string;
}

/** The procedure of one kind of work: as it comes, and the workshop's versions, the newest first. */
export interface ProceduresAnswer {
  standard: ProcedureTemplate;
  versions: ProcedureVersion[];
}
