import type { LoopFile } from '../loop-file/loopFile.js';
import type { FindingCode, LoopFinding } from './finding.js';
import { loopFindings } from './loopFindings.js';

/** Findings that hands settle before a loop is closed, beside those that must not be built at all. */
const SETTLED_BY_HANDS: readonly FindingCode[] = ['kink', 'no-drain'];

/** What stands at the bench: nobody builds on before it is settled, or, where trouble only comes later, before somebody said why. */
export const findingsAtBench = (loop: LoopFile): LoopFinding[] =>
  loopFindings(loop).filter(({ weight, code }) => weight === 'stop' || SETTLED_BY_HANDS.includes(code));

/** What a finding is told apart by: code and place. */
export const findingKey = ({ code, part }: Pick<LoopFinding, 'code' | 'part'>): string => `finding:${code}:${part ?? 'loop'}`;
