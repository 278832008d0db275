import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { startLook, vuetify } from '../base/look/vuetify.js';
import { startOutbox } from '../base/outbox/deviceOutbox.js';
import { useSession } from '../workshop/people/sessionStore.js';
import { router } from './router.js';
import { installApp } from '../base/shell/installed.js';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '../base/look/tokens.css';
import '../base/look/figures.css';
import '../base/look/base.css';

startLook();
createApp(App).use(createPinia()).use(vuetify).use(router).mount('#app');
installApp();
const session = useSession();
startOutbox(() => session.account);
