import type { WorkshopBoard } from '@core/workshop/planning/workshopPlan.js';
import { wordsOf } from '../../base/http/api.js';

export interface BoardEvents {
  (event: 'changed', board: WorkshopBoard): void;
  (event: 'problem', words: string | null): void;
}

/** A change of what the plan depends on: the board as it then is, or why it was not taken. */
export const changeBoard =
  (emit: BoardEvents) =>
  async (work: () => Promise<WorkshopBoard>): Promise<void> => {
    try {
      emit('changed', await work());
      emit('problem', null);
    } catch (error) {
      emit('problem', wordsOf(error));
    }
  };
