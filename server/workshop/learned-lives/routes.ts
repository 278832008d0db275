import type { LivesAnswer } from '../../../core/workshop/learned-lives/answers.js';
import { lifeRiskSchema, lotToldSchema, type LifeRiskEdit, type LotTold } from '../../../core/workshop/learned-lives/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { learnAnew, readLives, setLifeRisk, setLotTold, writeLotLetters } from './lives.js';

/** How long coolants and parts last in this workshop. */
export function learnedLivesRoutes(routes: Routes): void {
  routes.get<LivesAnswer>('/learned-lives', readLives);
  routes.post<LivesAnswer>('/learned-lives', learnAnew);
  routes.put<LivesAnswer>('/learned-lives/risk', (ask) => setLifeRisk(ask, bodyAs<LifeRiskEdit>(ask.request, lifeRiskSchema)));
  routes.put<LivesAnswer>('/early-lots/:id/told', (ask) => setLotTold(ask, bodyAs<LotTold>(ask.request, lotToldSchema)));
  routes.post<{ lives: LivesAnswer; written: number }>('/early-lots/:id/letters', writeLotLetters);
}
