import { askAhead } from '../base/http/ahead.js';
import { firstQuestions } from './firstQuestions.js';

// Runs before the rest of the program: nothing else is imported here, nor by what is imported here.
askAhead(firstQuestions(window.location));
