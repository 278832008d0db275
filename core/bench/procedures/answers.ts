import type { ProcedureTemplate } from '../runs/template.js';

/** One version of the workshop's procedure. */
export interface ProcedureVersion {
  number: number;
  template: ProcedureTemplate;
  note: string;
  by: string;
  at: string;
}

/** Something that was missing in the middle of a job. */
export interface LearnedForKit {
  id: string;
  name: string;
  on: string;
}

/** The procedure of one kind of work: as it comes, and the workshop's versions, the newest first. */
export interface ProceduresAnswer {
  standard: ProcedureTemplate;
  versions: ProcedureVersion[];
  /** what the kit of this kind asks for since it was missing once */
  learned: LearnedForKit[];
}
