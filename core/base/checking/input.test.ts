import Joi from 'joi';
import { describe, expect, it } from 'vitest';
import { readInput, formatPath, InputProblem } from './input.js';
import { day, instant } from './fields.js';

const schema = Joi.object({
  volume: Joi.number().min(0).required(),
  parts: Joi.array().items(Joi.object({ ports: Joi.object().required() })),
});

function problemOf(input: unknown): InputProblem {
  try {
    readInput(schema, input);
  } catch (error) {
    if (error instanceof InputProblem) return error;
    throw error;
  }
  throw new Error('was accepted');
}

describe('checking input at the edge', () => {
  it('hands back what it was given when nothing is wrong', () => {
    const input = { volume: 12, parts: [{ ports: {} }] };
    expect(readInput(schema, input)).toEqual(input);
  });

  it('names the place of a problem from the root of the document', () => {
    const problem = problemOf({ volume: 1, parts: [{ ports: {} }, {}] });
    expect(problem.path).toBe('parts[1].ports');
    expect(problem.message).toContain('required');
  });

  it('says what was given beside the rule it broke', () => {
    expect(problemOf({ volume: -3 }).message).toBe('volume must be greater than or equal to 0 (got -3)');
  });

  it('does not convert: a number in quotes is not a number', () => {
    expect(problemOf({ volume: '12' }).message).toContain('must be a number (got "12")');
  });

  it('reports every problem at once', () => {
    expect(problemOf({ volume: -1, parts: 3 }).fields.map(({ path }) => path)).toEqual(['volume', 'parts']);
  });

  it('refuses unknown fields by name', () => {
    expect(problemOf({ volume: 1, volumme: 2 }).message).toBe('volumme is not a known field; remove it or check its spelling');
  });

  it.each([[undefined], [null], [3], ['text'], [[]]])('refuses %j in place of a document', (input) => {
    expect(problemOf(input).path).toBe('');
    expect(problemOf(input).message).toMatch(/^the document/);
  });

  it('cuts a refused value short, so that megabytes do not come back', () => {
    expect(problemOf({ volume: 'x'.repeat(100_000) }).message.length).toBeLessThan(120);
  });

  it('never accepts NaN or Infinity', () => {
    expect(problemOf({ volume: Number.NaN }).path).toBe('volume');
    expect(problemOf({ volume: Number.POSITIVE_INFINITY }).path).toBe('volume');
  });
});

describe('paths', () => {
  it('writes list positions in brackets and names with dots', () => {
    expect(formatPath(['loop', 'components', 2, 'ports'])).toBe('loop.components[2].ports');
    expect(formatPath([])).toBe('');
    expect(formatPath([0, 'id'])).toBe('[0].id');
  });
});

describe('calendar days and instants', () => {
  it.each(['2026-02-28', '2024-02-29', '1999-12-31'])('takes the day %s', (value) => {
    expect(readInput(day(), value)).toBe(value);
  });

  it.each(['2026-02-30', '2025-02-29', '2026-13-01', '26-01-01', 'today', '2026-1-1'])('refuses the day %s', (value) => {
    expect(() => readInput(day(), value)).toThrow(InputProblem);
  });

  it.each(['2026-03-09T14:05:00Z', '2026-03-09T14:05:00.250+02:00'])('takes the instant %s', (value) => {
    expect(readInput(instant(), value)).toBe(value);
  });

  it.each(['2026-03-09T14:05:00', '2026-03-09', 'yesterday', '2026-99-09T14:05:00Z'])('refuses the instant %s', (value) => {
    expect(() => readInput(instant(), value)).toThrow(InputProblem);
  });
});
