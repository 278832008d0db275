import { say } from '../../base/words/say.js';
import { shortName, tubeName } from '../../machine/catalogue/names.js';
import { partOfPlace, sealPlaces } from '../../machine/seals/places.js';
import { tubeLengthMm, tubesByHand, type LoopComponent, type LoopFile } from '../../machine/loop-file/loopFile.js';
import { lengthsFor, type FanStacks } from '../../machine/shop-sums/fanScrews.js';
import { usualAir } from '../../physics/heat/steady.js';
import type { CheckItem } from '../runs/procedure.js';

/** What is put together before the first tube, made from the drawing: part by part, each by name. */

interface Given {
  readonly loop: LoopFile;
  readonly fanStacks: FanStacks | undefined;
}

const isOnCard = ({ place }: LoopComponent): boolean => place === 'card';

/** Screws through fans decide whether a radiator survives: each radiator has its own sum, or none goes in. */
function screwsInto(radiator: LoopComponent, stacks: FanStacks | undefined): string {
  const name = shortName(radiator);
  const fits = lengthsFor(stacks, radiator.id);
  if (fits === null) return say('Measured before the first screw goes in, on the sheet of parts and cuts: {name}', { name });
  return fits.length === 0
    ? say('No stock length fits: spacer or washers until one does, then measured again: {name}', { name })
    : say('Screws of {lengths} mm, held against the stack, by hand, crosswise: {name}', { name, lengths: fits.join(say(' or ')) });
}

function airWay(radiator: LoopComponent): string {
  const name = shortName(radiator);
  if (radiator.place === undefined) return say('Which way its fans blow is agreed and marked on the frame: {name}', { name });
  return usualAir(radiator, 1).from === 'case'
    ? say('Fans blow the air of the case out: {name}', { name })
    : say('Fans draw the air of the room in: {name}', { name });
}

function ofRadiator(radiator: LoopComponent, stacks: FanStacks | undefined): CheckItem[] {
  const { id } = radiator;
  const group = say('Radiators and fans');
  return [
    { id: `fans-way:${id}`, text: airWay(radiator), together: say('Every fan blows its way'), place: id, group },
    // one by one: a screw too long goes through a tube of it
    { id: `fan-screws:${id}`, text: screwsInto(radiator, stacks), place: id, group, beforePower: true },
  ];
}

function ofBlock(block: LoopComponent): CheckItem[] {
  const name = shortName(block);
  const group = say('Blocks');
  const look = (what: string, text: string, together: string, more: Partial<CheckItem> = {}): CheckItem => ({
    id: `${what}:${block.id}`,
    text,
    together,
    place: block.id,
    group,
    ...more,
  });
  return [
    ...(isOnCard(block)
      ? [
          {
            id: `fits-card:${block.id}`,
            text: say('Number and revision read off this very card, and on the block’s list: {name}', { name }),
            place: block.id,
            group,
          },
        ]
      : [
          {
            id: `fits-board:${block.id}`,
            text: say('Socket and mount read off this very board, and in the block’s bag: {name}', { name }),
            place: block.id,
            group,
          },
        ]),
    look('film', say('Film off the cold plate: {name}', { name }), say('Film off every cold plate')),
    look('old-paste', say('Old paste off, both faces clean and dry: {name}', { name }), say('Old paste off everywhere'), {
      mayNotApply: true,
    }),
    ...(isOnCard(block)
      ? [
          look('pads', say('Pads by the block’s map, each thickness measured: {name}', { name }), say('Pads by their maps'), {
            mayNotApply: true,
          }),
        ]
      : []),
    look('paste', say('Paste on, as much as its surface asks for: {name}', { name }), say('Paste on under every block')),
    look('springs', say('Screws crosswise, a turn each, springs even: {name}', { name }), say('Every block pressed evenly')),
  ];
}

export function assemblyChecks({ loop, fanStacks }: Given): CheckItem[] {
  const of = (kind: string): LoopComponent[] => loop.components.filter((part) => part.kind === kind);
  const tops = new Set(sealPlaces(loop).flatMap(({ id, kind }) => (kind === 'top' ? [partOfPlace(id)] : [])));
  return [
    ...loop.components.map((part): CheckItem => ({
      id: `stoppers:${part.id}`,
      text: say('Stoppers and caps of the journey out of every port: {name}', { name: shortName(part) }),
      together: say('Stoppers of the journey out of every port'),
      place: part.id,
      group: say('Out of the box'),
    })),
    ...of('radiator').flatMap((part) => ofRadiator(part, fanStacks)),
    ...of('pump')
      .filter(({ id }) => tops.has(id))
      .map((part): CheckItem => ({
        id: `top-ring:${part.id}`,
        text: say('Ring in its groove, not twisted, top screwed down crosswise: {name}', { name: shortName(part) }),
        place: part.id,
        group: say('Pumps'),
      })),
    ...of('block').flatMap(ofBlock),
  ];
}

/** how many of the runs are named that give way least */
const NAMED = 2;

/** The shortest runs of a loop: they give way least, and are made while there is still room for hands. */
export function tightestRuns(loop: LoopFile): string {
  const runs = tubesByHand(loop)
    .map((tube) => ({ name: tubeName(loop, tube), mm: tubeLengthMm(loop, tube) }))
    .sort((a, b) => a.mm - b.mm);
  return runs.length === 0
    ? say('none')
    : runs
        .slice(0, NAMED)
        .map(({ name, mm }) => say('{name} ({mm} mm)', { name, mm: Math.round(mm) }))
        .join(', ');
}
