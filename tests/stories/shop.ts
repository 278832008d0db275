import type { RunAnswer } from '../../core/bench/benches/answers.js';
import { changePart } from '../../core/machine/catalogue/edit.js';
import type { LoopFile } from '../../core/machine/loop-file/loopFile.js';
import { DEFAULT_SCHOOLS, type Schools } from '../../core/physics/leak-testing/schools.js';
import type { BookedKind } from '../../core/workshop/job-kinds/kinds.js';
import type { BookableLoop } from '../../core/workshop/jobs/answers.js';
import type { LoopAnswer, SystemPage } from '../../core/workshop/machines/answers.js';
import { booked, lotOf, type Lot } from '../integration/led.js';
import { TestBench, type Answer, type Visitor } from '../integration/bench.js';
import { StoryHands, type Story } from './hands.js';

export interface Own {
  readonly systemId: string;
  readonly loopId: string;
}

/** The same loop with a part of another make in one place. */
export const otherMake = (loop: LoopFile, id: string, volumeMl: number): LoopFile =>
  changePart(loop, id, { catalogue: `other-${id}`, volume_ml: volumeMl });

/** A workshop of its own, and what it does with one machine after the other. */
export class Shop {
  private constructor(
    readonly bench: TestBench,
    readonly desk: Visitor,
    readonly lot: Lot,
  ) {}

  static async open(name: string): Promise<Shop> {
    const bench = await TestBench.open();
    const desk = await bench.workshop(name);
    return new Shop(bench, desk, await lotOf(desk, 'S1'));
  }

  close = (): Promise<void> => this.bench.close();

  /** A machine with a loop that nobody has filled. */
  async planned(name: string, file: LoopFile): Promise<Own> {
    const systemId = await this.desk.system(name);
    const loop = await this.desk.post<LoopAnswer>('/loops', { systemId, name: 'Main loop', coolantProductId: this.lot.productId, file });
    return { systemId, loopId: this.taken(loop).id };
  }

  /** A machine that was built and filled here, by the workshop's own way. */
  async built(name: string, file: LoopFile): Promise<Own> {
    const own = await this.planned(name, file);
    await (await this.build(own)).sign();
    return own;
  }

  async build(own: Own, schools: Partial<Schools> = {}, story: Story = {}): Promise<StoryHands> {
    const { body } = await this.desk.post<RunAnswer>('/runs', { loopId: own.loopId, benchId: null, schools: schoolsOf(schools) });
    return new StoryHands(this.bench, this.desk, body, this.lot, story);
  }

  /** Booked, agreed to, on its bench. */
  async job(
    own: Own,
    kind: BookedKind,
    more: object = {},
    schools: Partial<Schools> = {},
    story: Story = {},
    openedJoints: readonly string[] = [],
  ): Promise<StoryHands> {
    const job = await booked(this.desk, own, kind as never, more);
    if (!job.id) throw new Error(`${kind}: ${JSON.stringify(job)}`);
    await this.desk.post(`/jobs/${job.id}/consent`, { how: 'phone', words: 'go on', version: job.version });
    const started = await this.desk.post<RunAnswer>(`/jobs/${job.id}/start`, { benchId: null, schools: schoolsOf(schools), openedJoints });
    return new StoryHands(this.bench, this.desk, this.taken(started), this.lot, story);
  }

  loop = async ({ loopId }: Own): Promise<LoopAnswer> => (await this.desk.get<LoopAnswer>(`/loops/${loopId}`)).body;
  page = async ({ systemId }: Own): Promise<SystemPage> => (await this.desk.get<SystemPage>(`/systems/${systemId}`)).body;
  history = async ({ loopId }: Own): Promise<BookableLoop> => (await this.desk.get<BookableLoop>(`/loops/${loopId}/history`)).body;

  /** Draws the loop as it shall become. @returns the number of that drawing */
  async wants(own: Own, file: LoopFile, reason: string): Promise<number> {
    const { name, coolantProductId, version } = await this.loop(own);
    const said = await this.desk.post<LoopAnswer>(`/loops/${own.loopId}/revisions`, {
      kind: 'wanted',
      reason,
      name,
      coolantProductId,
      version,
      file,
    });
    return this.taken(said).revisions[0]?.number ?? 0;
  }

  private taken<T>(answer: Answer<T>): T {
    if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
    return answer.body;
  }
}

const schoolsOf = (more: Partial<Schools>): Schools => ({ ...DEFAULT_SCHOOLS, leak: 'wet-only', wet: 'ten-minutes', ...more });
