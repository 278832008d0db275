import {
  absenceSchema,
  boardSchema,
  confirmSchema,
  kitsSchema,
  shiftsSchema,
  skillsSchema,
  type AbsenceInput,
  type BoardInput,
  type ConfirmInput,
  type KitsInput,
  type ShiftsInput,
  type SkillsInput,
} from '../../../core/workshop/planning/schema.js';
import { bodyAs, needLead } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { addAbsence, clearSlot, confirmSlot, endAbsence, readBoard, saveSlots, setKits, setShifts, setSkills } from './board.js';

export function planRoutes(routes: Routes): void {
  routes.get('/plan', readBoard);
  routes.put('/plan/slots', (ask) => saveSlots(ask, bodyAs<BoardInput>(ask.request, boardSchema)));
  routes.put('/jobs/:id/slot', (ask) => confirmSlot(ask, bodyAs<ConfirmInput>(ask.request, confirmSchema)));
  routes.delete('/jobs/:id/slot', clearSlot);
  routes.put('/people/:id/shifts', (ask) => {
    needLead(ask);
    return setShifts(ask, bodyAs<ShiftsInput>(ask.request, shiftsSchema));
  });
  routes.put('/people/:id/skills', (ask) => {
    needLead(ask);
    return setSkills(ask, bodyAs<SkillsInput>(ask.request, skillsSchema));
  });
  routes.put('/kits', (ask) => {
    needLead(ask);
    return setKits(ask, bodyAs<KitsInput>(ask.request, kitsSchema));
  });
  routes.post('/absences', (ask) => addAbsence(ask, bodyAs<AbsenceInput>(ask.request, absenceSchema)));
  routes.delete('/absences/:id', endAbsence);
}
