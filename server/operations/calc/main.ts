import { readFileSync } from 'node:fs';
import { CALC_COMMANDS } from '../../../core/edge/calc/commands.js';
import { InputProblem } from '../../../core/base/checking/input.js';

/** Exit codes of the contract: 0 answered, 2 the input was refused. */
const REFUSED = 2;

interface Outcome {
  readonly code: number;
  readonly stdout: string;
  readonly stderr: string;
}

const refused = (code: string, message: string, path: string): Outcome => ({
  code: REFUSED,
  stdout: '',
  stderr: `${JSON.stringify({ error: { code, message, path } })}\n`,
});

function listCommands(): Outcome {
  const width = Math.max(...Object.keys(CALC_COMMANDS).map((name) => name.length)) + 2;
  const lines = Object.entries(CALC_COMMANDS).map(([name, { summary }]) => `${name.padEnd(width)}${summary}`);
  return { code: 0, stdout: `${lines.join('\n')}\n`, stderr: '' };
}

function calculate(name: string, readInput: () => string): Outcome {
  const command = Object.hasOwn(CALC_COMMANDS, name) ? CALC_COMMANDS[name] : undefined;
  if (!command)
    return refused('unknown-command', `there is no calculation "${name}"; known are ${Object.keys(CALC_COMMANDS).join(', ')}`, '');
  let input: unknown;
  try {
    input = JSON.parse(readInput());
  } catch (error) {
    return refused('broken-json', `standard input must be one JSON document: ${error instanceof Error ? error.message : 'it is not'}`, '');
  }
  try {
    return { code: 0, stdout: `${JSON.stringify(command.run(input))}\n`, stderr: '' };
  } catch (error) {
    if (error instanceof InputProblem) return refused(error.code, error.message, error.path);
    return refused('internal', `the calculation failed on this input: ${error instanceof Error ? error.message : 'unknown error'}`, '');
  }
}

const [name] = process.argv.slice(2);
const outcome = name === undefined ? listCommands() : calculate(name, () => readFileSync(0, 'utf8'));
process.stderr.write(outcome.stderr);
process.stdout.write(outcome.stdout);
process.exitCode = outcome.code;
