import { usualLoop } from '../../machine/catalogue/testLoops.js';
import { describe, expect, it } from 'vitest';
import { asksForCause, gradeItem, type ItemFindings } from './grade.js';
import { inspectItems, isRigid } from './items.js';

const sound: ItemFindings = { deposit: 'none', surface: 'sound', seal: null, worn: false, touch: null, wall: null, text: '' };
const seen = (change: Partial<ItemFindings>): ItemFindings => ({ ...sound, ...change });

describe('grading a part', () => {
  it('uses sound parts again, with the O-ring renewed where it is flat', () => {
    expect(gradeItem('block', sound)).toMatchObject({ grade: 'reuse', renewSeal: false });
    expect(gradeItem('block', seen({ seal: 'flattened' }))).toMatchObject({ grade: 'reuse', renewSeal: true });
  });

  it('replaces whatever is corroded, cracked or worn, whatever part it is', () => {
    for (const kind of ['radiator', 'block', 'plug', 'pump'] as const) {
      expect(gradeItem(kind, seen({ surface: 'pitted' })).grade).toBe('replace');
      expect(gradeItem(kind, seen({ worn: true })).grade).toBe('replace');
    }
  });

  it('tells deposit from plating loss: one is cleaned off, the other decides reuse', () => {
    expect(gradeItem('block', seen({ deposit: 'layer' })).grade).toBe('clean-again');
    expect(gradeItem('block', seen({ deposit: 'layer', touch: 'smooth' })).grade).toBe('reuse');
    expect(gradeItem('block', seen({ deposit: 'film', touch: 'gritty' })).grade).toBe('clean-again');
    expect(gradeItem('plug', seen({ surface: 'plating-loss' })).grade).toBe('replace');
    expect(gradeItem('block', seen({ surface: 'plating-loss' })).grade).toBe('watch');
  });

  it('replaces soft tube that turned, and cleans rigid tube', () => {
    expect(gradeItem('run', seen({ wall: 'coloured' })).grade).toBe('replace');
    expect(gradeItem('rigid-run', seen({ wall: 'coloured' })).grade).toBe('reuse');
  });

  it('always says by which rule', () => {
    expect(gradeItem('pump', seen({ worn: true })).rule).toContain('impeller');
  });
});

describe('the inspection sheet', () => {
  it('lists every part, plug and run of the loop once', () => {
    const loop = usualLoop();
    const items = inspectItems(loop);
    expect(new Set(items.map(({ id }) => id)).size).toBe(items.length);
    for (const { id } of [...loop.components, ...loop.tubes]) expect(items.some((item) => item.id === id)).toBe(true);
    expect(items.filter(({ kind }) => kind === 'plug').every(({ id }) => id.startsWith('plug:'))).toBe(true);
  });

  it('asks for a cause once something grew, fell out or was eaten', () => {
    expect(asksForCause([sound, seen({ deposit: 'film' })])).toBe(false);
    expect(asksForCause([seen({ deposit: 'layer' })])).toBe(true);
    expect(asksForCause([seen({ surface: 'plating-loss' })])).toBe(true);
  });

  it('takes a wall nobody knows for soft', () => {
    expect(['glass', 'acrylic', 'petg', 'metal'].every(isRigid)).toBe(true);
    expect(['pvc', 'epdm', 'something else'].some(isRigid)).toBe(false);
  });
});
