import { execFileSync } from 'node:child_process';
import { expect, test } from '@playwright/test';

// the files of deploy/two-servers on one machine: a front, two servers, a standby, an outside broker. It needs nginx and a broker, which
// `./lavacrum reliability` installs
test('two servers, a standby and an outside broker go on while one thing after the other is killed @thorough', () => {
  expect(execFileSync('deploy/two-servers/try.sh', { encoding: 'utf8' })).toContain('all of it held');
});
