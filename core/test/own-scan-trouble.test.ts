import { JAWS } from './trials/jaws.js';
import { rotating, share } from './trials/rotating.js';
import { type TroubleTrial, troubleTrials } from './trials/trouble.js';

const ALL = [302, 306].flatMap((seed) => JAWS.map((jaw) => ({ seed, jaw })));
const TRIED = rotating(ALL, 1);

describe('what is said of teeth that are not whole or not free', () => {
  let all: TroubleTrial[];
  beforeAll(() => {
    all = TRIED.flatMap(({ seed, jaw }) => troubleTrials(seed, jaw));
  });
  const words = (t: TroubleTrial) => t.doubts.map((d) => `${d.tooth} ${d.sentence}`);

  it(`brackets from canine to canine: each on its tooth, nothing of the others (${share}: ${TRIED.map((t) => `${t.seed} ${t.jaw}`).join(', ')})`, () => {
    const bracketed = all.filter((t) => t.what === 'brackets');
    expect(bracketed).toHaveLength(TRIED.length);
    for (const t of bracketed) {
      const said = words(t);
      expect(said.map((s) => s.slice(0, 2))).toEqual(
        t.jaw === 'upper' ? ['11', '12', '13', '21', '22', '23'] : ['31', '32', '33', '41', '42', '43'],
      );
      for (const s of said) expect(s).toMatch(/a bracket or the like on its face/);
      // What stands on a crown is picked with it.
      expect(t.halfIou).toBeGreaterThan(0.93);
    }
  });

  it('a corner and half a crown broken off: each on its tooth, nothing of the others', () => {
    const broken = all.filter((t) => t.what === 'broken');
    expect(broken).toHaveLength(TRIED.length);
    for (const t of broken) {
      const said = words(t);
      expect(said).toHaveLength(2);
      // 3.2 mm of the corner to where x grows: mesial on the upper right, distal on the lower right; half of a lateral.
      const side = t.jaw === 'upper' ? 'mesial' : 'distal';
      const worded = new RegExp(`${t.corner} its ${side} corner ends [12]\\.\\d mm short of the usual form: broken\\?`);
      expect(said.filter((s) => worded.test(s))).toHaveLength(1);
      expect(said.filter((s) => new RegExp(`^${t.half} \\d\\.\\d mm shorter than \\{\\d\\d\\}`).test(s))).toHaveLength(
        1,
      );
      expect(t.halfIou).toBeGreaterThan(0.8);
    }
  });
});
