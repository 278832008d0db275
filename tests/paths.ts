import { InputProblem, readInput } from '../core/base/checking/input.js';

/** Fields for which an input is refused; none: it is taken. */
export function pathsOf(schema: Parameters<typeof readInput>[0], input: unknown): string[] {
  try {
    readInput(schema, input);
    return [];
  } catch (error) {
    if (error instanceof InputProblem) return error.fields.map(({ path }) => path);
    throw error;
  }
}
