/** Work that one of the servers does for all. */
export type DutyName = 'backup';
/** How such a piece of work went last. */
export interface Duty {
  readonly doneAt: Date | null;
  readonly failedAt: Date | null;
}
/** What one server tells the others of such work, and what was told last. */
export interface Duties {
  of(name: DutyName): Duty | undefined;
  note(name: DutyName, outcome: 'done' | 'failed', at: Date): Promise<void>;
}

/** Where there is one server alone: what it tells itself. */
export class OwnDuties implements Duties {
  protected readonly told = new Map<DutyName, Duty>();

  of(name: DutyName): Duty | undefined {
    return this.told.get(name);
  }

  async note(name: DutyName, outcome: 'done' | 'failed', at: Date): Promise<void> {
    const before = this.told.get(name) ?? { doneAt: null, failedAt: null };
    this.told.set(name, outcome === 'done' ? { ...before, doneAt: at } : { ...before, failedAt: at });
  }
}
