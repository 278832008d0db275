import type { Router } from 'express';
import { readInput } from '../../../core/base/checking/input.js';
import { holeWords } from '../../../core/edge/words/holes.js';
import { holesAskedSchema, templateOf, type HolesAsked } from '../../../core/machine/fit/holesSchema.js';
import { runScoped, type App } from '../../base/http/context.js';
import { holePdf } from './holePdf.js';

/** A sheet to drill by, true to size. Nothing of it is kept: what is asked for stands in the address, `of` as JSON. */
export function fitRoutes(router: Router, app: App): void {
  router.get('/hole-template.pdf', async (request, response) => {
    const pdf = await runScoped(app, request, () => {
      const asked = readInput<HolesAsked>(holesAskedSchema, parsed(request.query.of));
      return holePdf(templateOf(asked), asked.paper, holeWords(asked.title));
    });
    response.attachment('holes.pdf').type('application/pdf').send(pdf);
  });
}

/** null for what is no JSON: the schema says what would be right */
function parsed(text: unknown): unknown {
  try {
    return JSON.parse(String(text));
  } catch {
    return null;
  }
}
