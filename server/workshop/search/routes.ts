import Joi from 'joi';
import { check } from '../../../core/base/checking/check.js';
import type { Routes } from '../../base/http/routes.js';
import { searchAll } from './finders.js';

const searchSchema = Joi.object({ q: Joi.string().trim().min(2).max(80).required() });

export function searchRoutes(routes: Routes): void {
  routes.get('/search', async ({ scope, request }) => {
    const { q } = check<{ q: string }>(searchSchema, request.query);
    return { hits: await searchAll(scope, q) };
  });
}
