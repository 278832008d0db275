import {
  absenceSchema,
  boardSchema,
  confirmSchema,
  shiftsSchema,
  type AbsenceInput,
  type BoardInput,
  type ConfirmInput,
  type ShiftsInput,
} from '../../core/planning/schema.js';
import { bodyAs, needLead } from '../http/context.js';
import type { Routes } from '../http/routes.js';
import { addAbsence, clearSlot, confirmSlot, endAbsence, readBoard, saveSlots, setShifts } from './board.js';

export function planRoutes(routes: Routes): void {
  routes.get('/plan', readBoard);
  routes.put('/plan/slots', (ask) => saveSlots(ask, bodyAs<BoardInput>(ask.request, boardSchema)));
  routes.put('/jobs/:id/slot', (ask) => confirmSlot(ask, bodyAs<ConfirmInput>(ask.request, confirmSchema)));
  routes.delete('/jobs/:id/slot', clearSlot);
  routes.put('/people/:id/shifts', (ask) => {
    needLead(ask);
    return setShifts(ask, bodyAs<ShiftsInput>(ask.request, shiftsSchema));
  });
  routes.post('/absences', (ask) => addAbsence(ask, bodyAs<AbsenceInput>(ask.request, absenceSchema)));
  routes.delete('/absences/:id', endAbsence);
}
