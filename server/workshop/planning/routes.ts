import type { WorkshopBoard } from '../../../core/workshop/planning/workshopPlan.js';
import {
  absenceSchema,
  boardSchema,
  confirmSchema,
  kitsSchema,
  shiftsSchema,
  skillsSchema,
  standInSchema,
  type AbsenceInput,
  type BoardInput,
  type ConfirmInput,
  type KitsInput,
  type ShiftsInput,
  type SkillsInput,
  type StandInInput,
} from '../../../core/workshop/planning/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { addAbsence, clearSlot, confirmSlot, endAbsence, readBoard, saveSlots, setKits, setShifts, setSkills, standIn } from './board.js';

export function planRoutes(routes: Routes): void {
  routes.get<WorkshopBoard>('/plan', readBoard);
  routes.put<WorkshopBoard>('/plan/slots', (ask) => saveSlots(ask, bodyAs<BoardInput>(ask.request, boardSchema)));
  routes.put<WorkshopBoard & { told: boolean }>('/jobs/:id/slot', (ask) =>
    confirmSlot(ask, bodyAs<ConfirmInput>(ask.request, confirmSchema)),
  );
  routes.delete<WorkshopBoard>('/jobs/:id/slot', clearSlot);
  routes.put<WorkshopBoard>('/jobs/:id/slot/hands', (ask) => standIn(ask, bodyAs<StandInInput>(ask.request, standInSchema)));
  routes.put<WorkshopBoard>('/people/:id/shifts', (ask) => {
    return setShifts(ask, bodyAs<ShiftsInput>(ask.request, shiftsSchema));
  });
  routes.put<WorkshopBoard>('/people/:id/skills', (ask) => {
    return setSkills(ask, bodyAs<SkillsInput>(ask.request, skillsSchema));
  });
  routes.put<WorkshopBoard>('/kits', (ask) => {
    return setKits(ask, bodyAs<KitsInput>(ask.request, kitsSchema));
  });
  routes.post<WorkshopBoard>('/absences', (ask) => addAbsence(ask, bodyAs<AbsenceInput>(ask.request, absenceSchema)));
  routes.delete<WorkshopBoard>('/absences/:id', endAbsence);
}
