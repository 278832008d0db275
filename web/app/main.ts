// before all else
import './first.js';
import { createPinia } from 'pinia';
import { createApp, watchEffect } from 'vue';
import { reading, USUAL_READING } from '@core/base/units/reading.js';
import { setReading } from '../base/units/reader.js';
import App from './App.vue';
import { startLook, vuetify } from '../base/look/vuetify.js';
import { startOutbox } from '../base/outbox/deviceOutbox.js';
import { useSession } from '../workshop/people/sessionStore.js';
import { deviceLanguage, fetchWords, words } from '../base/words/words.js';
import { router } from './router.js';
import { installApp } from '../base/shell/installed.js';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '../base/look/tokens.css';
import '../base/look/figures.css';
import '../base/look/base.css';

startLook();
// the page that is opened comes at the same time as the answer who opens it
for (const { components } of router.resolve(window.location.pathname).matched) {
  const page: unknown = components?.default;
  if (typeof page === 'function') void (page as () => Promise<unknown>)().catch(() => undefined);
}
// until somebody signs in, the device's own language
await fetchWords(deviceLanguage());
setReading({ ...USUAL_READING, language: deviceLanguage() });
watchEffect(() => {
  vuetify.locale.current.value = reading().language;
});
const app = createApp(App).use(createPinia()).use(vuetify).use(router).use(words);
installApp();
const session = useSession();
startOutbox(() => session.account);
// the first page knows who reads it, and in which language
void router.isReady().then(() => app.mount('#app'));
