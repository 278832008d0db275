import { linesPath } from '../workshop/machine-list/linesPath.js';

interface Address {
  readonly pathname: string;
  readonly search: string;
}

/** First questions of a page by its address; pages that are not named ask for themselves. */
export function firstQuestions({ pathname, search }: Address): string[] {
  if (['/', '/today'].includes(pathname)) return ['/today', '/benches', '/owners-now'];
  if (pathname === '/systems') return [linesPath({ q: new URLSearchParams(search).get('q')?.trim() }), '/benches'];
  // a machine is what its job begins with, whatever comes of it
  const [about] = /^\/(systems|jobs|runs|loops)\/[0-9a-f-]{36}(?=$|\/jobs\/new$)/.exec(pathname) ?? [];
  if (about === undefined) return [];
  // its page stands once what it comes in for next is there as well
  return [about, ...(about === pathname && about.startsWith('/systems/') ? [`${about}/next`] : []), '/coolants', '/benches'];
}
