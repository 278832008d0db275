import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';

/** The command as a script calls it. */
function calc(args: string[], input: string): { status: number | null; stdout: string; stderr: string } {
  return spawnSync('./lavacrum', ['calc', ...args], { input, encoding: 'utf8' });
}

describe('./lavacrum calc', () => {
  it('reads a document and writes a document, and nothing else', () => {
    const result = calc(['hold'], '{"volume_ml":700,"limit_mbar_l_s":0.001,"resolution_kpa":0.1}');
    expect(result.status).toBe(0);
    expect(result.stderr).toBe('');
    expect((JSON.parse(result.stdout) as { minutes: number }).minutes).toBeCloseTo(32, 0);
  });

  it.each([
    ['hold', '{"volume_ml":-1}', 'invalid-input', 'volume_ml'],
    ['hold', '{"volume_ml":', 'broken-json', ''],
    ['hold', '', 'broken-json', ''],
    ['hold', 'null', 'invalid-input', ''],
    ['nothing', '{}', 'unknown-command', ''],
    ['constructor', '{}', 'unknown-command', ''],
  ])('refuses %s with %s', (name, input, code, path) => {
    const result = calc([name], input);
    expect(result.status).toBe(2);
    expect(result.stdout).toBe('');
    const { error } = JSON.parse(result.stderr) as { error: { code: string; message: string; path: string } };
    expect(error).toMatchObject({ code, path });
    expect(error.message).not.toBe('');
  });

  it('lists its names alone', () => {
    const result = calc([], '');
    expect(result.status).toBe(0);
    expect(
      result.stdout
        .trim()
        .split('\n')
        .map((line) => line.split(' ')[0]),
    ).toEqual([
      'volume',
      'flow',
      'drain',
      'air',
      'fill',
      'rise',
      'loss',
      'screws',
      'cut',
      'hold',
      'decay',
      'rinse',
      'dose',
      'saturate',
      'compare',
      'trend',
      'diagnose',
      'life',
      'mates',
      'colour',
      'plan',
    ]);
  });
});
