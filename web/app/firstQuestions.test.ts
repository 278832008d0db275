import { describe, expect, it } from 'vitest';
import { linesPath } from '../workshop/machine-list/linesPath.js';
import { firstQuestions } from './firstQuestions.js';

const ID = 'addfce42-0838-438d-9efb-16a860b6a759';

describe('what a page begins with', () => {
  it.each([
    ['/today', '', ['/today', '/benches', '/owners-now']],
    ['/', '', ['/today', '/benches', '/owners-now']],
    [`/systems/${ID}`, '', [`/systems/${ID}`, `/systems/${ID}/next`, '/coolants', '/benches']],
    [`/runs/${ID}`, '', [`/runs/${ID}`, '/coolants', '/benches']],
    [`/systems/${ID}/jobs/new`, '?answers=x', [`/systems/${ID}`, '/coolants', '/benches']],
    [`/loops/${ID}`, '?show=drain', [`/loops/${ID}`, '/coolants', '/benches']],
    [`/loops/${ID}/parts`, '', []],
    ['/systems/new', '', []],
    [`/systems/${ID}/papers`, '', []],
    ['/sign-in', '?next=/today', []],
  ])('%s%s', (pathname, search, questions) => {
    expect(firstQuestions({ pathname, search })).toEqual(questions);
  });

  it('is the list as its page asks for it, searched or not', () => {
    expect(firstQuestions({ pathname: '/systems', search: '' })).toContain(linesPath({ q: '', attention: null }));
    expect(firstQuestions({ pathname: '/systems', search: '?q=Glass+cube%202' })).toContain(linesPath({ q: 'Glass cube 2' }));
  });
});
