import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { licencePage, licencesOf } from './licences.js';

const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as Parameters<typeof licencesOf>[0];

/** Licences under which a package may be shipped with, or loaded by, a program under MIT. */
const FINE =
  /^(MIT|MIT-0|ISC|0BSD|BSD-[23]-Clause|Apache-2\.0|OFL-1\.1|MPL-2\.0|LGPL-3\.0-or-later|CC0-1\.0|Unlicense|BlueOak-1\.0\.0|EUPL-1\.1\+)$/;

describe('the licences of dependencies', () => {
  it('stand in docs as the lock file has them (./lavacrum licences writes them anew)', () => {
    expect(readFileSync('docs/licences.md', 'utf8')).toBe(licencePage(licencesOf(lock)));
  });

  it('are all known, and none asks more of what is shipped than its name and text', () => {
    const shipped = licencesOf(lock).filter(({ isTool }) => !isTool);
    expect(shipped.length).toBeGreaterThan(100);
    const unknown = shipped.filter(
      ({ licence }) =>
        !licence
          .replace(/[()]/g, '')
          .split(/ (?:AND|OR) /)
          .every((each) => FINE.test(each)),
    );
    expect(unknown).toEqual([]);
  });

  it('list a version once, as shipped where anything that is shipped needs it', () => {
    const packages = {
      '': { version: '1.0.0' },
      'node_modules/a': { version: '1.0.0', license: 'MIT', dev: true },
      'node_modules/b/node_modules/a': { version: '1.0.0', license: 'MIT' },
      'node_modules/@c/d': { version: '2.0.0' },
    };
    expect(licencesOf({ packages })).toEqual([
      { name: '@c/d', version: '2.0.0', licence: 'not stated', isTool: false },
      { name: 'a', version: '1.0.0', licence: 'MIT', isTool: false },
    ]);
  });
});
