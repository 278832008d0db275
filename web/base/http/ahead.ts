// What the page that is opened will ask first is asked while the rest of the program is still being read: the browser waits for both at
// once.

/** on the device: somebody is signed in here. A stranger is not asked for what he may not see. */
const SIGNED_IN = 'lavacrum-signed-in';
/** ms after which an answer that no page took is too old to be shown */
const KEPT_MS = 5000;

const asked = new Map<string, Promise<Response | null>>();

function ask(path: string): void {
  const answer = fetch(`/api${path}`, { headers: { accept: 'application/json' }, credentials: 'same-origin' }).catch(() => null);
  asked.set(path, answer);
  setTimeout(() => asked.delete(path), KEPT_MS);
}

/** The answer to a question that was asked ahead, once; null: it was not, or nothing came. */
export async function answeredAhead(path: string): Promise<Response | null> {
  const answer = asked.get(path);
  if (!answer) return null;
  asked.delete(path);
  return answer;
}

/** What was asked before something was changed is no answer any more. */
export const forgetAhead = (): void => asked.clear();

/** For the next time this device opens a page. */
export function rememberSignedIn(is: boolean): void {
  if (is) localStorage.setItem(SIGNED_IN, 'yes');
  else localStorage.removeItem(SIGNED_IN);
}

/** Asks who is signed in and, where somebody was, what the page that is opened begins with. */
export function askAhead(questions: readonly string[]): void {
  ask('/session');
  if (localStorage.getItem(SIGNED_IN) === null) return;
  for (const path of questions) ask(path);
}
