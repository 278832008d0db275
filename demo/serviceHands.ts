import type { ServiceFacts } from '../core/bench/runs/facts.js';
import type { BodyOf, RunEventBody, RunEventType } from '../core/bench/runs/entries/all.js';
import { expectedDrains } from '../core/bench/runs/contents.js';
import type { Procedure, ProcedureStep } from '../core/bench/runs/procedure.js';
import type { ItemFindings } from '../core/bench/inspection/grade.js';

type Of<T extends RunEventType> = Omit<BodyOf<T>, 'type' | 'step'>;

/** What one service comes upon. Everything that is not named is sound and goes by the plan. */
export interface ServiceScript {
  /** share of the planned volume that came out */
  readonly drainedShare?: number;
  readonly rinses?: number;
  /** findings by item, before cleaning */
  readonly findings?: Readonly<Record<string, Partial<ItemFindings>>>;
  readonly cause?: Of<'cause'>;
  readonly cleaner?: { readonly name: string; readonly minutes: number; readonly mostMinutes: number };
  readonly swaps?: readonly Of<'swapped'>[];
  readonly used?: readonly Of<'used'>[];
  readonly leak?: { readonly at: string; readonly text: string; readonly cause: string; readonly fix: string };
  readonly temporary?: Of<'temporary-fix'>;
  readonly wasteId?: string;
  /** K above the room before and after, of the usual load */
  readonly before?: number;
}

export const SOUND: ItemFindings = { deposit: 'none', surface: 'sound', seal: null, worn: false, touch: null, wall: null, text: '' };

type Say = (body: RunEventBody, afterS?: number) => void;

function inspect(facts: ServiceFacts, step: ProcedureStep, script: ServiceScript, say: Say): void {
  for (const { id } of facts.items) say({ type: 'inspected', step: step.id, item: id, findings: { ...SOUND, ...script.findings?.[id] } });
  if (script.cause) say({ type: 'cause', step: step.id, ...script.cause });
}

function clean(step: ProcedureStep, { cleaner, findings }: ServiceScript, say: Say): void {
  if (cleaner) {
    say({ type: 'soak', step: step.id, on: true, cleaner: cleaner.name, mostMinutes: cleaner.mostMinutes });
    say({ type: 'soak', step: step.id, on: false, cleaner: cleaner.name, mostMinutes: cleaner.mostMinutes }, 60 * cleaner.minutes);
  }
  for (const [id, seen] of Object.entries(findings ?? {}))
    if (seen.deposit !== undefined && seen.deposit !== 'none')
      say({ type: 'inspected', step: step.id, item: id, findings: { ...SOUND, ...seen, touch: 'smooth' } }, 600);
  say({ type: 'water', step: step.id, ph: 6.9, clarity: 'clear' });
}

/** What is renewed, and where the parts of a loop that is over lie. */
function swapParts(procedure: Procedure, step: ProcedureStep, script: ServiceScript, say: Say): void {
  for (const used of script.used ?? []) say({ type: 'used', step: step.id, ...used });
  for (const swap of script.swaps ?? []) say({ type: 'swapped', step: step.id, ...swap }, 400);
  if (step.does.includes('puts-away'))
    for (const { id: item } of procedure.facts?.parts ?? [])
      if (!(script.swaps ?? []).some((swap) => swap.item === item && swap.action === 'removed'))
        say({ type: 'swapped', step: step.id, item, action: 'removed', text: 'shelf 4, box with the machine’s name', heldMl: 0 }, 60);
}

/** What hands do in a step that only a service has. */
export function serviceHands(procedure: Procedure, step: ProcedureStep, script: ServiceScript, say: Say): void {
  const facts = procedure.service;
  if (!facts) return;
  const wasteId = script.wasteId ?? null;
  switch (step.kind) {
    case 'drain': {
      const share = script.drainedShare ?? 1;
      for (const ml of expectedDrains(facts))
        say({ type: 'drained', step: step.id, volumeMl: Math.max(1, Math.round(share * ml)), how: 'jug', wasteId }, 260);
      return;
    }
    case 'rinse':
      for (let n = 0; n < (script.rinses ?? 3); n += 1) {
        say({ type: 'rinse', step: step.id, liquid: 'distilled', volumeMl: 600 }, 300);
        say({ type: 'drained', step: step.id, volumeMl: 600, how: 'jug', wasteId }, 420);
      }
      return say({ type: 'water', step: step.id, ph: 6.7, clarity: 'clear' });
    case 'repair':
      if (script.leak) say({ type: 'leak', at: script.leak.at, when: 'warm', amount: 'seep', text: script.leak.text });
      return;
    case 'inspect':
      return inspect(facts, step, script, say);
    case 'clean':
      return clean(step, script, say);
    case 'swap':
      swapParts(procedure, step, script, say);
      return;
    default:
  }
}
