import { say } from '@core/base/words/say.js';
import { registerSW } from 'virtual:pwa-register';
import { newerVersion } from './newerVersion.js';
import { useNotices } from './notices.js';

/** ms; a tablet at a bench is seldom opened anew, and only an opened page looks by itself */
const LOOK_EVERY_MS = 3_600_000;

/** The app works without the network once it was opened; a newer version is offered, never forced, and stays on offer. */
export function installApp(): void {
  if (!('serviceWorker' in navigator)) return;
  const renew = registerSW({
    onNeedRefresh: () => {
      newerVersion.value = () => void renew(true);
      useNotices().say(say('A newer version of Lavacrum is ready.'), newerVersion.value, say('Load it'));
    },
    onRegisteredSW: (_address, registration) => {
      if (registration) setInterval(() => void registration.update().catch(() => undefined), LOOK_EVERY_MS);
    },
  });
}
