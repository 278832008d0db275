import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { SetupInput, SignInInput } from '@core/accounts/schema.js';
import type { Role } from '@core/accounts/roles.js';
import { call, get, setToken, whenSignedOut } from '../http/api.js';
import { setServerNow } from '../units/now.js';

export interface Account {
  personId: string;
  personName: string;
  role: Role;
  workshopId: string;
  workshopName: string;
  timeZone: string;
}

type SessionAnswer =
  { signedIn: true; account: Account; token: string; today: string; now: string } | { signedIn: false; setupNeeded: boolean };

/** Who is signed in. `expired` is set when a session ends under somebody's hands: the page stays, with what was typed. */
export const useSession = defineStore('session', () => {
  const account = ref<Account | null>(null);
  const setupNeeded = ref(false);
  const expired = ref(false);
  const today = ref('');
  const loaded = ref(false);

  function take(answer: SessionAnswer): void {
    loaded.value = true;
    if (answer.signedIn) {
      account.value = answer.account;
      today.value = answer.today;
      expired.value = false;
      setToken(answer.token);
      setServerNow(answer.now);
    } else {
      account.value = null;
      setupNeeded.value = answer.setupNeeded;
      setToken(null);
    }
  }

  whenSignedOut(() => {
    if (account.value) expired.value = true;
  });

  return {
    account,
    setupNeeded,
    expired,
    today,
    loaded,
    timeZone: computed(() => account.value?.timeZone ?? 'UTC'),
    load: async () => take(await get<SessionAnswer>('/session')),
    signIn: async (input: SignInInput) => take(await call<SessionAnswer>('POST', '/session', { body: input })),
    setUp: async (input: SetupInput) => take(await call<SessionAnswer>('POST', '/setup', { body: input })),
    signOut: async () => {
      await call('DELETE', '/session');
      take({ signedIn: false, setupNeeded: false });
    },
  };
});
