import type { ImportAnswer, PastImport, UndoneImport } from '../../../core/workshop/importing/answers.js';
import { importSchema, type ImportInput } from '../../../core/workshop/importing/schema.js';
import { bodyAs } from '../../base/http/context.js';
import type { Routes } from '../../base/http/routes.js';
import { importHistory } from './history.js';
import { importMachines } from './machines.js';
import { pastImports, undoImport } from './undo.js';

export function importRoutes(routes: Routes): void {
  routes.get<{ imports: PastImport[] }>('/imports', async (ask) => ({ imports: await pastImports(ask) }));
  routes.post<ImportAnswer>('/imports', (ask) => {
    const input = bodyAs<ImportInput>(ask.request, importSchema);
    return input.kind === 'machines' ? importMachines(ask, input) : importHistory(ask, input);
  });
  routes.post<UndoneImport>('/imports/:id/undo', undoImport);
}
