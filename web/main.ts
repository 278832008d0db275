import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { initialLook, rememberLook, vuetify } from './look/vuetify.js';
import { startPhotoPost } from './photos/photoOutbox.js';
import { router } from './router.js';
import { installApp } from './shell/installed.js';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import './look/tokens.css';
import './look/base.css';

rememberLook(initialLook());
createApp(App).use(createPinia()).use(vuetify).use(router).mount('#app');
installApp();
startPhotoPost();
