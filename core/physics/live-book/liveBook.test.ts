import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readLoopFile } from '../../machine/loop-file/loopFileSchema.js';
import { STANDING } from '../../machine/loop-file/orientation.js';
import { loopVolume } from '../../machine/loop-file/volume.js';
import { pourSdMl } from '../measuring/errors.js';
import { LiquidTwin } from './liquidTwin.js';
import { contentsAt, LiveBook } from './liveBook.js';
import { BOOK_ENGINE, dryContents, filledContents, laterContents, type LoopContents } from './loopContents.js';
import { readContents } from './stored.js';

const loop = readLoopFile(JSON.parse(readFileSync('examples/two-radiators.json', 'utf8')));
const twin = new LiquidTwin(loop, { densityKgM3: 998.2, viscosityMPaS: 1.0016 });
const { volumeMl, sdMl } = loopVolume(loop);
const { fillMarkMl } = twin.drive;
const bookOn = (contents: LoopContents): LiveBook => new LiveBook(twin, contents, sdMl);
const level = (contents: LoopContents): number => contents.standing?.reservoirMl ?? Number.NaN;

describe('the live book', () => {
  it('counts what is poured, with the jug’s error, and knows the level once a hand stopped at the mark', () => {
    const contents = dryContents(twin);
    bookOn(contents).pour(330);
    expect(contents).toMatchObject({ insideMl: 330, isLevelRead: false });
    expect(contents.insideSdMl).toBeCloseTo(pourSdMl(330), 9);
    bookOn(contents).pour(10, { toMark: true });
    expect(contents.isLevelRead).toBe(true);
    expect(Math.abs(level(contents) - fillMarkMl)).toBeLessThan(6);
    expect(contents.insideMl).toBe(340);
  });

  it('trusts its own level less where a hand says that it is not at the mark and the book has it there', () => {
    const told = dryContents(twin);
    bookOn(told).pour(345, { toMark: false });
    const silent = dryContents(twin);
    bookOn(silent).pour(345);
    expect(told.standing?.reservoirSdMl).toBeGreaterThan(2 * (silent.standing?.reservoirSdMl ?? 0));
  });

  it('carries a running pump on to any instant without being changed by the look', () => {
    const contents = dryContents(twin);
    bookOn(contents).pour(340, { toMark: true });
    bookOn(contents).pumpOn(0, 1);
    const before = structuredClone(contents);
    const after = contentsAt(twin, contents, sdMl, 1500);
    expect(contents).toEqual(before);
    expect(level(after)).toBeLessThan(level(contents) - 20);
    expect(after.standing?.reservoirSdMl).toBeGreaterThan(contents.standing?.reservoirSdMl ?? 0);
    expect(after.insideMl).toBe(contents.insideMl);
  });

  it('takes a level that is far from its own as it was read: then its error was wrong as well', () => {
    const contents = filledContents(twin, { volumeMl, sdMl });
    bookOn(contents).level(fillMarkMl - 150, 3);
    expect(level(contents)).toBeCloseTo(fillMarkMl - 150, 6);
    // a small difference is weighed by both errors
    bookOn(contents).level(fillMarkMl - 146, 3);
    expect(level(contents)).toBeGreaterThan(fillMarkMl - 150);
    expect(level(contents)).toBeLessThan(fillMarkMl - 146);
  });

  it('finds room for a pour that nobody could have poured at once: pulses were run between', () => {
    const contents = dryContents(twin);
    bookOn(contents).pour(720);
    expect(contents.insideMl).toBe(720);
    expect(level(contents)).toBeLessThanOrEqual(twin.brimMl);
    expect(contents.overMl).toBeLessThan(5);
  });

  it('says from where a drain came by the twin, and how much by the jug', () => {
    const full = filledContents(twin, { volumeMl: twin.insideMl(twin.atMark()), sdMl: 12 });
    const how = { tilt: STANDING.upright, setup: { open: ['reservoir.fill'], drains: ['drain.drain'], closed: [] } };
    const names = loop.components.flatMap(({ id, closures }) => Object.keys(closures ?? {}).map((port) => `${id}.${port}`));
    const drain = names.find((name) => name.includes('drain')) ?? (names[0] as string);
    const setup = { ...how.setup, open: names.filter((name) => name !== drain).slice(0, 1), drains: [drain] };
    const before = full.insideMl ?? 0;
    bookOn(full).cameOut(300, { tilt: how.tilt, setup });
    expect(full.insideMl).toBeCloseTo(before - 300, 6);
    expect(full.standing?.isRound).toBe(false);
    expect(level(full)).toBeLessThan(fillMarkMl);
  });

  it('learns what the way of this loop holds when it is bled, and says by it how much is inside the next time', () => {
    const contents = dryContents(twin);
    const book = bookOn(contents);
    book.pour(340, { toMark: true });
    book.pour(420);
    book.returned();
    book.level(fillMarkMl, 3);
    book.bled();
    const held = contents.way?.ml ?? 0;
    expect(held).toBeCloseTo(760 - level(contents), 0);
    book.cameOut(500, null, 60);
    book.pour(500, { sdMl: 60 });
    book.returned();
    book.level(fillMarkMl, 3);
    const sdBefore = contents.insideSdMl;
    book.bled();
    expect(contents.insideSdMl).toBeLessThan(sdBefore / 2);
    expect(Math.abs((contents.insideMl ?? 0) - held - level(contents))).toBeLessThan(30);
  });

  it('learns no way that its parts could not hold: a pour was forgotten, or it was called back before it came', () => {
    const contents = dryContents(twin);
    const book = bookOn(contents);
    book.pour(100, { toMark: true });
    book.returned();
    book.level(fillMarkMl, 3);
    book.bled();
    expect(contents.way).toBeNull();
    // the rest goes in: now it is full
    book.pour(660);
    book.returned();
    book.level(fillMarkMl, 3);
    book.bled();
    expect(contents.way?.ml).toBeCloseTo(760 - level(contents), 0);
  });

  it('knows less about itself some time later, until the level is read: what the reservoir lost is so much less inside', () => {
    const left = filledContents(twin, { volumeMl: twin.insideMl(twin.atMark()), sdMl: 12 });
    const later = laterContents(left);
    expect(later).toMatchObject({ isLevelRead: false, pump: null, insideMl: left.insideMl });
    expect(later.insideSdMl).toBeGreaterThan(left.insideSdMl);
    const stale = later.staleSdMl ** 2;
    // what the level was not known to before, and what an eye misreads, explain their share of it
    const other = (left.standing?.reservoirSdMl ?? 0) ** 2 + 3 ** 2;
    bookOn(later).level(fillMarkMl - 40, 3);
    expect((left.insideMl ?? 0) - (later.insideMl ?? 0)).toBeCloseTo((40 * stale) / (stale + other), 6);
    expect(later.insideSdMl).toBeCloseTo(Math.sqrt(12 ** 2 + (stale * other) / (stale + other)), 6);
    expect(later.staleSdMl).toBe(0);
  });

  it('takes no level for a loss once the loop was drained', () => {
    const later = laterContents(filledContents(twin, { volumeMl: twin.insideMl(twin.atMark()), sdMl: 12 }));
    const book = bookOn(later);
    book.cameOut(300, null);
    const before = later.insideMl;
    book.level(30, 3);
    expect(later.insideMl).toBe(before);
  });

  it('is empty once it was taken apart, and remembers what the way held', () => {
    const contents = filledContents(twin, { volumeMl, sdMl });
    contents.way = { ml: 500, sdMl: 10 };
    bookOn(contents).emptied();
    expect(contents).toMatchObject({ insideMl: 0, insideSdMl: 0, way: { ml: 500, sdMl: 10 } });
  });

  it('knows volumes alone without heights, and nothing where nobody knows', () => {
    const contents = filledContents(null, { volumeMl: 800, sdMl: 40 });
    const book = new LiveBook(null, contents, 40);
    book.pour(20);
    book.pumpOn(0, 1);
    book.pumpOff(60_000);
    book.cameOut(120, null);
    expect(contents).toMatchObject({ insideMl: 700, standing: null });
    const unknown = filledContents(twin, null);
    bookOn(unknown).pour(100);
    expect(unknown.insideMl).toBeNull();
    // a level that is read in it is where its reservoir stands
    bookOn(unknown).level(180, 3);
    expect(level(unknown)).toBe(180);
  });

  it('is read back as it was stored, and not at all from a newer engine', () => {
    const contents = dryContents(twin);
    bookOn(contents).pour(200);
    expect(readContents(JSON.parse(JSON.stringify(contents)))).toEqual(contents);
    expect(readContents({ ...contents, engine: BOOK_ENGINE + 1 })).toMatchObject({ insideMl: null, standing: null });
  });
});
