import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';

const WEB = path.join('dist', 'web');
const ASSETS = path.join(WEB, 'assets');

const packed = (file: string): number => gzipSync(readFileSync(file), { level: 9 }).length;
const chunkOf = (name: string): string => {
  const found = readdirSync(ASSETS).find((each) => each.startsWith(`${name}-`) && each.endsWith('.js'));
  if (!found) throw new Error(`${name} is not among the built files`);
  return found;
};

/** Scripts and styles that stand on screen before anything is pressed, in bytes as they travel: the frame and one page. */
export function firstLoad(page: string): number {
  if (!existsSync(WEB)) throw new Error('the web application is not built');
  const html = readFileSync(path.join(WEB, 'index.html'), 'utf8');
  const waiting = [...html.matchAll(/assets\/([^"]+\.(?:js|css))/gu)].map(([, file]) => file as string);
  waiting.push(chunkOf(page));
  const own = readdirSync(ASSETS).find((each) => each.startsWith(`${page}-`) && each.endsWith('.css'));
  if (own) waiting.push(own);
  const taken = new Set<string>();
  for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
    if (taken.has(file)) continue;
    taken.add(file);
    if (!file.endsWith('.js')) continue;
    for (const [, next] of readFileSync(path.join(ASSETS, file), 'utf8').matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/gu))
      waiting.push(next as string);
  }
  return [...taken].reduce((sum, file) => sum + packed(path.join(ASSETS, file)), 0);
}

/** What a chart brings on the screen that shows one. */
export const chartLoad = (): number => packed(path.join(ASSETS, chunkOf('DecayChart')));
