import { say } from '../../base/words/say.js';
import { tubeName, shortName } from '../../machine/catalogue/names.js';
import type { LoopFile } from '../../machine/loop-file/loopFile.js';

/** "graphics, low" for a port; "reservoir → pump, first end" for a joint. */
export function nameOpening(loop: LoopFile, opening: string): string {
  const part = loop.components.find(({ id, ports }) => opening.startsWith(`${id}.`) && Object.hasOwn(ports, opening.slice(id.length + 1)));
  if (part) {
    const [name, port] = [shortName(part), opening.slice(part.id.length + 1)];
    return name.includes(port) ? name : `${name}, ${port}`;
  }
  const tube = loop.tubes.find(({ id }) => opening === `${id}.from` || opening === `${id}.to`);
  if (!tube) return opening;
  return say('{tubeName}, {endsWith} end', { tubeName: tubeName(loop, tube), endsWith: opening.endsWith('.from') ? 'first' : 'far' });
}
