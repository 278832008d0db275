import type { Account, SessionAnswer } from '@core/workshop/people/answers.js';
import { may, type Right } from '@core/workshop/people/rights.js';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { SetupInput, SignInInput } from '@core/workshop/people/schema.js';
import { call, get, setToken, whenSignedOut, whenTokenIsOld } from '../../base/http/api.js';
import { rememberSignedIn } from '../../base/http/ahead.js';
import { deviceOutbox } from '../../base/outbox/deviceOutbox.js';
import { forgetAnswers, rememberAnswer, rememberedAnswer } from '../../base/outbox/deviceStore.js';
import { fetchWords } from '../../base/words/words.js';
import { setReading } from '../../base/units/reader.js';
import { setTimeZone } from '../../base/units/dates.js';
import { setServerNow } from '../../base/units/now.js';

/** Who is signed in. `expired` is set when a session ends under somebody's hands: the page stays, with what was typed. */
export const useSession = defineStore('session', () => {
  const account = ref<Account | null>(null);
  const setupNeeded = ref(false);
  const expired = ref(false);
  const today = ref('');
  const loaded = ref(false);

  async function take(answer: SessionAnswer): Promise<void> {
    // nothing is said before the words are there
    if (answer.signedIn) await fetchWords(answer.account.reading?.language ?? 'en').catch(() => undefined);
    loaded.value = true;
    rememberSignedIn(answer.signedIn);
    if (answer.signedIn) {
      account.value = answer.account;
      setTimeZone(answer.account.timeZone);
      setReading(answer.account.reading);
      today.value = answer.today;
      expired.value = false;
      setToken(answer.token);
      setServerNow(answer.now);
      // what waits goes as soon as somebody is there to deliver it
      void deviceOutbox.deliver();
    } else {
      account.value = null;
      setupNeeded.value = answer.setupNeeded;
      setToken(null);
    }
  }

  whenSignedOut(() => {
    if (account.value) expired.value = true;
  });

  whenTokenIsOld(async () => take(await get<SessionAnswer>('/session')));

  return {
    /** whether who is signed in may change such things; until it is known who that is nothing is hidden, the server decides */
    may: (right: Right): boolean => account.value === null || may(account.value.role, right),
    account,
    setupNeeded,
    expired,
    today,
    loaded,
    load: async () => {
      try {
        await take(await get<SessionAnswer>('/session'));
        if (account.value) void rememberAnswer('account', account.value).catch(() => undefined);
      } catch (error) {
        // away from the network the bench goes on under the last name; what is entered waits for the server's word
        const known = await rememberedAnswer<Account>('account').catch(() => null);
        if (!known) throw error;
        account.value = known;
        await fetchWords(known.reading?.language ?? 'en').catch(() => undefined);
        setTimeZone(known.timeZone);
        setReading(known.reading);
      }
    },
    signIn: async (input: SignInInput) => take(await call<SessionAnswer>('POST', '/session', { body: input })),
    setUp: async (input: SetupInput) => take(await call<SessionAnswer>('POST', '/setup', { body: input })),
    signOut: async () => {
      await call('DELETE', '/session');
      await forgetAnswers().catch(() => undefined);
      await take({ signedIn: false, setupNeeded: false });
    },
  };
});
