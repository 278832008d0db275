import type { CaseOutline } from './cases.js';

export interface CaseTemplate extends CaseOutline {
  id: string;
  version: number;
}
