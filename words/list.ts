import { everyMessage } from './everyMessage.js';
const all = everyMessage('.');
for (const [m, p] of all) console.log(JSON.stringify([m, p]));
