import { afterEach, beforeEach } from 'vitest';
import { setToken, whenSignedOut, whenTokenIsOld } from '../../web/base/http/api.js';
import { unmountAll } from './mountScreen.js';

// The files of the screens share what is loaded: each test leaves the page and the session as a new one would be.
beforeEach(() => {
  setToken(null);
  whenTokenIsOld(async () => undefined);
  whenSignedOut(() => undefined);
});

afterEach(unmountAll);
