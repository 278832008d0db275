import { say } from '@core/base/words/say.js';
import { registerSW } from 'virtual:pwa-register';
import { useNotices } from './notices.js';

/** The app works without the network once it was opened; a newer version is offered, never forced. */
export function installApp(): void {
  if (!('serviceWorker' in navigator)) return;
  const renew = registerSW({
    onNeedRefresh: () => useNotices().say(say('A newer version of Lavacrum is ready.'), () => void renew(true), say('Load it')),
  });
}
