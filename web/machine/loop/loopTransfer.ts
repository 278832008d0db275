import { grouped } from '@core/base/units/display.js';
import { say } from '@core/base/words/say.js';
import { InputProblem } from '@core/base/checking/input.js';
import { readLoopFile } from '@core/machine/loop-file/loopFileSchema.js';
import type { LoopFile } from '@core/machine/loop-file/loopFile.js';
import { downloadJson, fileName } from '../../base/files/download.js';

/** MB; a loop file has kilobytes, and the server takes no more */
const MOST_BYTES = 2_000_000;

/** Reads a loop file that somebody picked or dropped. The words say where the fault lies in the file. */
export async function readDroppedLoop(file: File): Promise<{ loop: LoopFile } | { problem: string }> {
  if (file.size > MOST_BYTES)
    return { problem: say('{name} has {e6} MB; a loop file has a few kilobytes.', { name: file.name, e6: grouped(file.size / 1e6, 1) }) };
  let document: unknown;
  try {
    document = JSON.parse(await file.text());
  } catch (error) {
    return {
      problem: say('{name} is not JSON: {say}', {
        name: file.name,
        say: error instanceof Error ? error.message : say('it cannot be read'),
      }),
    };
  }
  try {
    return { loop: readLoopFile(document) };
  } catch (error) {
    if (!(error instanceof InputProblem)) throw error;
    return {
      problem: say('{name} is not a loop file. At {path}: {message}', {
        name: file.name,
        path: error.path || say('its root'),
        message: error.message,
      }),
    };
  }
}

/** Hands a loop to the person as a file. Fields the program does not know go out as they came in. */
export const downloadLoop = (loop: LoopFile, name: string): void => downloadJson(loop, fileName(name, 'loop'));
