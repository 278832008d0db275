import { describe, expect, it } from 'vitest';
import { usualLoop } from './testLoops.js';
import { readLoopFile } from '../loop-file/loopFileSchema.js';
import { demandPart } from './ownPartSchema.js';
import { keptFrom, likeOf, ownKey, pickable, type OwnPart } from './ownParts.js';
import { CATALOGUE, makeComponent, type CataloguePart } from './parts.js';
import { addPart } from './edit.js';
import { emptyLoop } from './starters.js';
import { shortName } from './names.js';

const own = (part: Partial<OwnPart> = {}): OwnPart => ({
  id: 'p1',
  version: 1,
  label: 'Deep roof radiator',
  like: 'radiator-360-45',
  volumeMl: 330,
  volumeSdMl: 12,
  facts: { pressure_rating_kpa: 120 },
  geometry: null,
  ...part,
});

describe('a part that a workshop keeps', () => {
  it('is laid out like the general one it resembles, with its own name, volume and sheet', () => {
    const loop = addPart(emptyLoop('x'), pickable(own()) as CataloguePart, 'roof', null);
    const [made] = loop.components;
    expect(made).toMatchObject({ volume_ml: 330, volume_sd_ml: 12, pressure_rating_kpa: 120, kind: 'radiator', catalogue: ownKey('p1') });
    expect(made && shortName(made)).toBe('Deep roof radiator');
    expect(() => readLoopFile(loop)).not.toThrow();
  });

  it('has the shape it was drawn with where it was drawn, and the general one elsewhere', () => {
    const drawn = makeComponent(CATALOGUE.find(({ key }) => key === 'radiator-360-45') as CataloguePart, 'roof', 'r');
    const ports = { ...drawn.ports, a: [1, 2, 3] as const };
    const kept = keptFrom({ ...drawn, ports }, 'radiator-360-45');
    const part = pickable(own({ ...kept, id: 'p2' })) as CataloguePart;
    expect(makeComponent(part, 'roof', 'x').ports.a).toEqual([1, 2, 3]);
    expect(makeComponent(part, 'front', 'x').ports.a).not.toEqual([1, 2, 3]);
  });

  it('may be kept from every part of the catalogue, and is then what the server takes', () => {
    for (const part of CATALOGUE)
      for (const place of part.places) {
        const kept = keptFrom(makeComponent(part, place, 'it'), part.key);
        expect(() => demandPart(kept as OwnPart), `${part.key} ${place}`).not.toThrow();
      }
  });

  it('is none where nothing general is like it', () => {
    const [part] = usualLoop().components;
    expect(keptFrom(part as never, null)).toBeNull();
    expect(likeOf({ ...(part as object), catalogue: 'from elsewhere' } as never, [])).toBeNull();
    expect(likeOf({ ...(part as object), catalogue: ownKey('p1') } as never, [own()])).toBe('radiator-360-45');
    expect(pickable(own({ like: 'flywheel' }))).toBeNull();
  });
});
