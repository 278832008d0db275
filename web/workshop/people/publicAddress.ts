import { say } from '@core/base/words/say.js';
import { computed } from 'vue';
import { useSession } from './sessionStore.js';

/**
 * The address that codes, feeds and links carry: the workshop's own, or, where it set none, the one this device happens to use, which then
 * is said beside it.
 */
export function usePublicAddress() {
  const session = useSession();
  const own = computed(() => session.account?.contact.publicAddress ?? '');
  return {
    origin: computed(() => own.value || window.location.origin),
    /** null: it works everywhere; else what to say beside it */
    caveat: computed(() =>
      own.value
        ? null
        : say('Works on {includes} only: the workshop has set no public address.', {
            includes: ['localhost', '127.0.0.1', '[::1]'].includes(window.location.hostname) ? say('this machine') : say('this network'),
          }),
    ),
  };
}
