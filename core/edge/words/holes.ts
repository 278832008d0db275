import { say } from '../../base/words/say.js';
import { BAR_MM, type HoleWords } from '../../machine/fit/holes.js';

export const holeWords = (title: string): HoleWords => ({
  title,
  bar: say('{mm} mm: measure it on the print', { mm: BAR_MM }),
  caution: say('Print at 100 %. Drill an empty case only, centre-punched, with safety glasses; chips out before anything goes in.'),
});
