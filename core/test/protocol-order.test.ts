/** In which order pieces are seated, and why one does not go home. */
import {
  fixing,
  nextLook,
  pairsOf,
  seatOrder,
  type Trial,
  tightContacts,
  touch,
  UPPER_TEN,
  untouchedContacts,
} from '../src/index.js';

const place = (t: number) => t % 10;
/** The row as anyone sees it in a mouth, written by hand: neighbours stand beside each other. */
const ROW = [15, 14, 13, 12, 11, 21, 22, 23, 24, 25];

describe('the seating order', () => {
  it('holds for every choice of ten teeth: centrals first and together, then outward, contacts looked at again', () => {
    for (let bits = 1; bits < 1 << ROW.length; bits++) {
      const teeth = ROW.filter((_, i) => bits & (1 << i));
      const groups = seatOrder(teeth);
      const order = groups.flatMap((g) => g.teeth);
      // Each once.
      if ([...order].sort().join() !== [...teeth].sort().join()) throw new Error(`${teeth}: ${order}`);
      for (const [i, g] of groups.entries()) {
        // Both of a pair together, and nothing else with them.
        const places = new Set(g.teeth.map(place));
        if (places.size !== 1) throw new Error(`${teeth}: ${g.teeth} together`);
        if (teeth.filter((t) => place(t) === place(g.teeth[0] as number)).length !== g.teeth.length)
          throw new Error(`${teeth}: a pair is torn`);
        // From the middle outward.
        const before = groups[i - 1];
        if (before && place(before.teeth[0] as number) >= place(g.teeth[0] as number))
          throw new Error(`${teeth}: inward`);
        // What touches something that is seated is looked at again, and nothing else.
        const seated = groups.slice(0, i).flatMap((x) => x.teeth);
        const want = g.teeth.flatMap((t) =>
          seated.filter((s) => Math.abs(ROW.indexOf(s) - ROW.indexOf(t)) === 1).map((s) => `${s}-${t}`),
        );
        if (
          g.recheck
            .map((r) => r.join('-'))
            .sort()
            .join() !== want.sort().join()
        )
          throw new Error(`${teeth}: ${JSON.stringify(g.recheck)} for ${want}`);
      }
    }
  });

  it('seats the upper jaw before the lower one, and never lets teeth of two jaws touch', () => {
    expect(seatOrder([41, 31, 11, 21]).map((g) => g.teeth)).toEqual([
      [11, 21],
      [41, 31],
    ]);
    expect(touch(11, 41)).toBe(false);
    expect(touch(41, 31)).toBe(true);
  });

  it('tries contacts to teeth that stay first: those at both ends of the row', () => {
    expect(untouchedContacts([12, 11, 21, 22], UPPER_TEN)).toEqual([
      [13, 12],
      [23, 22],
    ]);
    // A neighbour that is not there is no contact.
    expect(untouchedContacts([11], [12, 11])).toEqual([[12, 11]]);
    expect(pairsOf([22, 11, 21])).toEqual([
      [11, 21],
      [21, 22],
    ]);
  });

  it('makes steps of it: centrals are cured before laterals are cleaned', () => {
    const piece = (tooth: number) =>
      ({
        tooth,
        kind: 'veneer',
        material: 'glass-ceramic',
        thickMm: 0.7,
        cement: 'resin-light',
        bases: ['enamel'],
      }) as const;
    const steps = fixing({
      teeth: [12, 11, 21, 22],
      works: [],
      cuts: [],
      pieces: [12, 11, 21, 22].map(piece),
      present: UPPER_TEN,
      oldWorks: [],
      posts: [],
      cord: 'none',
      provisional: 'shells',
      maker: 'laboratory',
      impression: 'same',
      tissue: 'none',
      mouth: { provisional: true, beware: new Set() },
    });
    const at = (rule: string, tooth: number) => steps.findIndex((s) => s.rule === rule && s.teeth.includes(tooth));
    expect(at('cure', 11)).toBeLessThan(at('contacts-rechecked', 12));
    expect(at('contacts-rechecked', 12)).toBeLessThan(at('tooth-cleaned', 12));
    expect(at('seat', 11)).toBe(at('seat', 21));
    // All insides are got ready once, as they are treated alike.
    expect(steps.filter((s) => s.rule === 'inside-silane').map((s) => s.teeth)).toEqual([[12, 11, 21, 22]]);
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
  });
});

/** A mouth that answers as one would: which contacts between pieces are too tight, and what is wrong with single ones. */
interface Truth {
  readonly tight: readonly string[];
  readonly wrong: Readonly<Record<number, 'clean' | 'contactsPass' | 'past' | 'spotInside' | 'onDie' | 'piece'>>;
}

/** Walks through the search as somebody at the chair would; how many things were tried or looked at. */
function search(teeth: readonly number[], truth: Truth) {
  const trials: Trial[] = [];
  const looked: Record<number, Record<string, boolean>> = {};
  for (let acts = 0; acts < 40; acts++) {
    const answer = nextLook(teeth, trials, looked);
    if (answer.kind === 'found' || answer.kind === 'home') return { answer, acts };
    if (answer.kind === 'try') {
      const set = answer.teeth;
      const home =
        set.every((t) => truth.wrong[t] === undefined) &&
        !pairsOf(set).some(([a, b]) => truth.tight.includes(`${a}-${b}`));
      trials.push({ teeth: set, home });
    } else {
      const wrong = truth.wrong[answer.tooth];
      const good = { clean: true, contactsPass: true, past: false, spotInside: false, onDie: false };
      const bad = { clean: false, contactsPass: false, past: true, spotInside: true, onDie: true };
      looked[answer.tooth] = {
        ...looked[answer.tooth],
        [answer.at]: wrong === answer.at ? bad[answer.at] : good[answer.at],
      };
    }
  }
  throw new Error('the search does not end');
}

describe('why it does not go home', () => {
  const six = [13, 12, 11, 21, 22, 23];

  it('ends at home when nothing is wrong, each alone, then by pairs, then all', () => {
    const { answer, acts } = search(six, { tight: [], wrong: {} });
    expect(answer.kind).toBe('home');
    expect(acts).toBe(6 + 5 + 1);
  });

  it.each(pairsOf(six).map(([a, b]) => [a, b]))('finds the contact between %i and %i', (a, b) => {
    const { answer } = search(six, { tight: [`${a}-${b}`], wrong: {} });
    expect(answer).toMatchObject({ kind: 'found', cause: 'contact', teeth: [a, b] });
  });

  it.each([
    ['clean', 'cement'],
    ['contactsPass', 'contact'],
    ['past', 'past'],
    ['spotInside', 'inside'],
    ['onDie', 'scan'],
    ['piece', 'inside'],
  ] as const)('finds what is wrong with one piece: %s', (wrong, cause) => {
    for (const tooth of six) {
      const { answer } = search(six, { tight: [], wrong: { [tooth]: wrong } });
      expect(answer).toMatchObject({ kind: 'found', cause, teeth: [tooth] });
    }
  });

  it('asks for left cement first, as that is the commonest', () => {
    expect(nextLook([11], [{ teeth: [11], home: false }], {})).toMatchObject({ kind: 'look', at: 'clean', tooth: 11 });
  });

  it('knows from two sets which contact it is: in both open ones, in no set that went home', () => {
    const alone = [12, 11, 21, 22].map((t) => ({ teeth: [t], home: true }));
    expect(tightContacts([...alone, { teeth: [12, 11, 21], home: false }, { teeth: [12, 11], home: true }])).toEqual([
      [11, 21],
    ]);
    // A set with a piece that stands open by itself says nothing of contacts.
    expect(
      tightContacts([
        { teeth: [11], home: false },
        { teeth: [21], home: true },
        { teeth: [11, 21], home: false },
      ]),
    ).toEqual([]);
  });

  it('forgets what was open when it is home later', () => {
    const alone = [11, 21].map((t) => ({ teeth: [t], home: true }));
    expect(
      nextLook([11, 21], [...alone, { teeth: [11, 21], home: false }, { teeth: [11, 21], home: true }], {}).kind,
    ).toBe('home');
  });
});
