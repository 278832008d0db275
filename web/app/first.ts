import { askAhead } from '../base/http/ahead.js';

askAhead(window.location);
