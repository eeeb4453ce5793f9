import { JAWS } from './trials/jaws.js';
import { type PickTrial, pickTrial } from './trials/pick.js';
import { rotating, share } from './trials/rotating.js';

const at = (sorted: readonly number[], part: number): number => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))]!;
const rising = (list: readonly number[]): number[] => [...list].sort((p, q) => p - q);

/** Both jaws of twenty mouths, four of each kind; five in a row are one jaw of each kind. */
const ALL = [301, 306, 311, 316].flatMap((first) => JAWS.flatMap((jaw) => [0, 1, 2, 3, 4].map((i) => ({ seed: first + i, jaw }))));
const TRIED = rotating(ALL, 5);

describe(`teeth picked out of virtual jaws: plain, crowded, spaced, worn, with teeth missing (${share}: ${TRIED.map((t) => `${t.seed} ${t.jaw}`).join(', ')})`, () => {
  let all: PickTrial[];
  beforeAll(() => {
    all = TRIED.map(({ seed, jaw }) => pickTrial(seed, jaw));
  });

  it('every tooth is found, and nothing that is none', () => {
    expect(all).toHaveLength(TRIED.length);
    for (const j of all) expect(`${j.seed} ${j.jaw} ${j.found}`).toBe(`${j.seed} ${j.jaw} ${j.of}`);
  });

  it('each region overlaps the true crown by 0.93 or better at the median, and never by less than 0.85', () => {
    const overlaps = rising(all.flatMap((j) => j.iou));
    expect(overlaps.length).toBeGreaterThan(9 * TRIED.length);
    expect(at(overlaps, 0.5)).toBeGreaterThan(0.93);
    expect(overlaps[0]).toBeGreaterThan(0.85);
  });

  it('the neck line lies within 0.3 mm of the true one at the 95th percentile', () => {
    expect(at(rising(all.flatMap((j) => j.necks)), 0.95)).toBeLessThan(0.3);
  });

  it('nothing is said of brackets or broken corners where there are none; shorter than its fellow is told of worn teeth only', () => {
    for (const j of all)
      for (const d of j.doubts) {
        expect(`${j.seed} ${d.sentence}`).not.toMatch(/bracket|corner/);
        if (/shorter than/.test(d.sentence)) expect(`${j.seed} ${j.kind}`).toBe(`${j.seed} worn`);
      }
  });

  it('the proposed numbers are the teeth’s, those that the record calls missing passed over', () => {
    expect(all.filter((j) => j.kind === 'missing')).toHaveLength(TRIED.length / 5);
    expect(all.filter((j) => !j.numbersRight).map((j) => `${j.seed} ${j.jaw}`)).toEqual([]);
  });
});
