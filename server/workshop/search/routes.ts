import type { Hit } from '../../../core/workshop/search/answers.js';
import Joi from 'joi';
import { readInput } from '../../../core/base/checking/input.js';
import type { Routes } from '../../base/http/routes.js';
import { searchAll } from './finders.js';

const searchSchema = Joi.object({ q: Joi.string().trim().min(2).max(80).required() });

export function searchRoutes(routes: Routes): void {
  routes.get<{ hits: Hit[] }>('/search', async (ask) => {
    const { q } = readInput<{ q: string }>(searchSchema, ask.request.query);
    return { hits: await searchAll(ask, q) };
  });
}
