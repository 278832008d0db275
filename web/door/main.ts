import german from 'virtual:own-words';
import { createApp } from 'vue';
import { bringWords } from '@core/base/words/say.js';
import { USUAL_READING } from '@core/base/units/reading.js';
import { setReading } from '../base/units/reader.js';
import { deviceLanguage, words } from '../base/words/words.js';
import DoorApp from './DoorApp.vue';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '../base/look/tokens.css';
import './door.css';

bringWords('de', german);
// until the link says how its owner reads, as the device does
setReading({ ...USUAL_READING, language: deviceLanguage() });
createApp(DoorApp).use(words).mount('#door');
