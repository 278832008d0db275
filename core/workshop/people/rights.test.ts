import { describe, expect, it } from 'vitest';
import { may, rightOf, RIGHTS } from './rights.js';

describe('who may change what', () => {
  it('is everything for a lead, no owner for a technician, no run for the desk', () => {
    expect(RIGHTS.every((right) => may('lead', right))).toBe(true);
    expect(may('technician', 'bench')).toBe(true);
    expect(may('technician', 'desk')).toBe(false);
    expect(may('front-desk', 'desk')).toBe(true);
    expect(may('front-desk', 'bench')).toBe(false);
    for (const role of ['technician', 'front-desk'] as const) expect(may(role, 'lead')).toBe(false);
  });

  it('asks for nothing where somebody only reads, and knows every route that changes something', () => {
    expect(rightOf('get', '/systems')).toBeNull();
    expect(rightOf('post', '/runs')).toBe('bench');
    expect(rightOf('PUT', '/waste/:id/hand-over')).toBe('lead');
    expect(() => rightOf('post', '/nowhere')).toThrow(/is nobody’s/);
  });
});
