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
// light or dark as the device is; the colours are those of the inside
const dark = window.matchMedia('(prefers-color-scheme: dark)');
const look = (): void => void (document.documentElement.dataset.look = dark.matches ? 'night' : 'day');
dark.addEventListener('change', look);
look();
createApp(DoorApp).use(words).mount('#door');
