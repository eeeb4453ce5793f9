import { type Parts, SECTION_NAMES, SECTIONS, same } from '@radiant/contract';
import { labelOf } from '../src/data/clash-words.js';
import { chosen as chosenOf, merge as mergeOf } from '../src/data/merge.js';

/** The parts of all sections at once: the random contents below have fields of every one. */
const EVERYTHING = SECTION_NAMES.map((n) => SECTIONS[n].parts).reduceRight((all, own) =>
  own.as === 'fields' && all.as === 'fields'
    ? { as: 'fields', forms: { ...all.forms, ...own.forms }, together: [...all.together, ...own.together] }
    : (all as Parts),
);
const merge = <T extends object>(base: T, mine: T, theirs: T) => mergeOf(EVERYTHING, base, mine, theirs);
const chosen = <T extends object>(base: T, mine: T, theirs: T, choose: (clash: number) => 'mine' | 'theirs') =>
  chosenOf(EVERYTHING, base, mine, theirs, choose);

const SEED = Math.floor(Math.random() * 1e9);
function random(seed: number): () => number {
  let s = seed >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = Math.imul(s ^ (s >>> 15), 1 | s);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

type Content = Record<string, unknown>;
const tooth = (t: number, lengthMm: number, more: object = {}) => ({ tooth: t, lengthMm, widthMm: 8, ...more });
const paths = (m: { clashes: readonly { path: readonly string[] }[] }) => m.clashes.map((c) => c.path);

describe('two changes of one content', () => {
  const base: Content = { scanId: 's', proposalVersion: 1, teeth: [tooth(11, 10), tooth(21, 10)] };

  it('on different teeth, or different numbers of one tooth, are both kept and nobody is asked', () => {
    const mine = { ...base, teeth: [tooth(11, 10.5), tooth(21, 10)] };
    const theirs = { ...base, proposalVersion: 2, teeth: [tooth(11, 10, { widthMm: 8.4 }), tooth(21, 9)] };
    expect(merge(base, mine, theirs)).toEqual({
      merged: { scanId: 's', proposalVersion: 2, teeth: [tooth(11, 10.5, { widthMm: 8.4 }), tooth(21, 9)] },
      clashes: [],
    });
  });

  it('of the same number are asked, and only they', () => {
    const mine = { ...base, teeth: [tooth(11, 10.5), tooth(21, 10.2)] };
    const theirs = { ...base, teeth: [tooth(11, 11), tooth(21, 10)] };
    const m = merge(base, mine, theirs);
    expect(m.clashes).toEqual([{ path: ['teeth', '[11]', 'lengthMm'], base: 10, mine: 10.5, theirs: 11 }]);
    expect(labelOf(m.clashes[0] as never)).toBe('11, length, mm');
    expect(chosen(base, mine, theirs, () => 'theirs')).toEqual({ ...base, teeth: [tooth(11, 11), tooth(21, 10.2)] });
    expect(chosen(base, mine, theirs, () => 'mine')).toEqual({ ...base, teeth: [tooth(11, 10.5), tooth(21, 10.2)] });
  });

  it('a tooth that one takes out and the other leaves goes; that the other has changed, is asked', () => {
    const out = { ...base, teeth: [tooth(21, 10)] };
    expect(merge(base, out, { ...base, proposalVersion: 3 }).merged).toEqual({ ...out, proposalVersion: 3 });
    const changed = { ...base, teeth: [tooth(11, 12), tooth(21, 10)] };
    expect(paths(merge(base, out, changed))).toEqual([['teeth', '[11]']]);
    expect(chosen(base, out, changed, () => 'mine')).toEqual(out);
    expect(chosen(base, out, changed, () => 'theirs')).toEqual(changed);
  });

  it('tags are sets: what one adds and the other takes out are both done', () => {
    const before = { wishTags: ['even', 'longer'], cautions: [] as string[] };
    const mine = { ...before, wishTags: ['even', 'longer', 'natural'] };
    const theirs = { ...before, wishTags: ['longer'], cautions: ['acid'] };
    expect(merge(before, mine, theirs)).toEqual({
      merged: { wishTags: ['longer', 'natural'], cautions: ['acid'] },
      clashes: [],
    });
  });

  it('measures with any name, and views, are taken by what they are', () => {
    const measure = (id: string, name: string) => ({
      id,
      name,
      points: [
        { x: 1, y: 2 },
        { x: 3, y: 4 },
      ],
    });
    const view = (points: object[], more: object = {}) => ({
      view: 'close-smile',
      photoId: 'p',
      points,
      drawn: [],
      ...more,
    });
    const front = (...drawn: object[]) => ({ view: 'retracted-front', photoId: 'f', points: [], drawn });
    const before = { views: [front(measure('a', 'gap 11/21')), view([{ id: 'p1', x: 1, y: 1 }])] };
    const mine = {
      views: [
        view([
          { id: 'p1', x: 1, y: 1 },
          { id: 'p2', x: 2, y: 2 },
        ]),
        front(measure('a', 'gap 11/21'), measure('b', 'a/b/c')),
      ],
    };
    const theirs = {
      views: [front(measure('a', 'gap 11/21 "wide"')), view([{ id: 'p1', x: 9, y: 9 }], { lastRight: 15 })],
    };
    const { merged, clashes } = merge(before, mine, theirs);
    expect(clashes).toEqual([]);
    expect([...merged.views].sort((p, q) => (p.view < q.view ? 1 : -1))).toEqual([
      front(measure('a', 'gap 11/21 "wide"'), measure('b', 'a/b/c')),
      view(
        [
          { id: 'p1', x: 9, y: 9 },
          { id: 'p2', x: 2, y: 2 },
        ],
        { lastRight: 15 },
      ),
    ]);
  });

  it('points never come to stand on another photograph: a new one on one side, points on the other, are one question', () => {
    const edge = { tooth: 11, kind: 'edge', x: 1, y: 1 };
    const on = (photoId: string, ...landmarks: object[]) => [{ view: 'retracted-front', photoId, landmarks }];
    const before = { views: on('p', edge), verdicts: [] };
    const mine = { views: on('q'), verdicts: [] };
    const theirs = {
      views: on('p', edge, { tooth: 21, kind: 'edge', x: 5, y: 1 }),
      verdicts: [{ id: 'f', verdict: 'accepted' }],
    };
    const m = merge(before, mine, theirs);
    expect(m.clashes).toHaveLength(1);
    expect(labelOf(m.clashes[0] as never)).toBe('retracted, front, photograph, with what is set on it');
    expect(chosen(before, mine, theirs, () => 'mine')).toEqual({ ...mine, verdicts: theirs.verdicts });
    expect(chosen(before, mine, theirs, () => 'theirs')).toEqual(theirs);
  });

  it('a point’s two numbers and a scale’s three parts stay together', () => {
    const front = (x: number, y: number, calibration: object) => ({
      views: [{ view: 'retracted-front', landmarks: [{ tooth: 11, kind: 'edge', x, y }], calibration }],
    });
    const scale = { from: { x: 0, y: 0 }, to: { x: 9, y: 0 }, mm: 10 };
    const before = front(1, 1, scale);
    const mine = front(2, 1, { ...scale, mm: 11 });
    const theirs = front(1, 2, { ...scale, to: { x: 8, y: 0 } });
    expect(paths(merge(before, mine, theirs))).toEqual([
      ['views', '["retracted-front"]', 'landmarks', '[11,"edge"]'],
      ['views', '["retracted-front"]', 'calibration'],
    ]);
  });
});

describe(`random pairs of edits (seed ${SEED})`, () => {
  const draw = random(SEED);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(draw() * all.length)] as T;
  const number = () => Math.round(draw() * 100) / 10;
  const photo = () => pick(['p', 'q']);
  const landmark = () => ({ tooth: pick([11, 12, 21]), kind: pick(['edge', 'zenith']), x: number(), y: number() });
  const unique = <T>(all: T[], name: (t: T) => string) => [...new Map(all.map((t) => [name(t), t])).values()];
  const landmarks = (n: number) => unique(Array.from({ length: n }, landmark), (m) => `${m.tooth} ${m.kind}`);
  const content = (): Content => ({
    edgeMm: number(),
    school: pick(['ratio', 'golden']),
    wishTags: unique(
      Array.from({ length: 3 }, () => pick(['even', 'longer', 'lighter', 'natural'])),
      String,
    ),
    views: [
      { view: 'close-smile', photoId: 'r', points: [{ id: 'k', x: number(), y: 1 }], drawn: [] },
      {
        view: 'retracted-front',
        photoId: 'p',
        points: [],
        landmarks: landmarks(4),
        drawn: unique(
          Array.from({ length: 2 }, () => ({
            id: pick(['a', 'b', 'c']),
            name: pick(['x/y', 'z']),
            points: [{ x: number(), y: 0 }],
          })),
          (d) => d.id,
        ),
      },
    ],
    teeth: unique(
      Array.from({ length: 3 }, () => tooth(pick([11, 12, 13, 21]), number())),
      (t) => String(t.tooth),
    ),
  });
  /** One thing that a person does. */
  const act = (c: Content): Content => {
    const next = structuredClone(c) as Record<string, never[]> & Content;
    const what = pick([
      'edge',
      'school',
      'tag',
      'mark',
      'unmark',
      'measure',
      'length',
      'tooth',
      'untooth',
      'view',
      'photo',
    ]);
    const teeth = next.teeth as { tooth: number; lengthMm: number }[] | undefined;
    const front = (next.views as Record<string, unknown>[])[1] as Record<string, unknown>;
    if (what === 'edge') next.edgeMm = number() as never;
    else if (what === 'school') next.school = pick(['ratio', 'golden', 'recurring']) as never;
    else if (what === 'tag')
      next.wishTags = unique([...(next.wishTags as string[]), pick(['less-gum', 'wider'])], String) as never;
    else if (what === 'mark')
      front.landmarks = unique(
        [...(front.landmarks as ReturnType<typeof landmark>[]), landmark()],
        (m) => `${m.tooth} ${m.kind}`,
      );
    else if (what === 'unmark') front.landmarks = (front.landmarks as unknown[]).slice(1);
    else if (what === 'measure')
      front.drawn = [...(front.drawn as unknown[]), { id: `n${draw()}`, name: 'new/one', points: [] }];
    else if (what === 'length' && teeth?.[0]) teeth[0].lengthMm = number();
    else if (what === 'tooth')
      next.teeth = unique([...(teeth ?? []), tooth(pick([14, 15, 23]), number())], (t) => String(t.tooth)) as never;
    else if (what === 'untooth') next.teeth = (teeth ?? []).slice(1) as never;
    else if (what === 'view') (next.views as { points: object[] }[])[0]?.points.push({ id: `v${draw()}`, x: 1, y: 2 });
    else if (what === 'photo') Object.assign(front, { photoId: photo(), landmarks: [] });
    return next;
  };
  const edit = (c: Content) => Array.from({ length: 1 + Math.floor(draw() * 3) }).reduce<Content>((d) => act(d), c);
  const trials = Array.from({ length: 400 }, () => {
    const base = content();
    return [base, edit(base), edit(base)] as const;
  });
  /** The order of list entries and of fields is nobody's edit. */
  const still = (v: unknown): string =>
    JSON.stringify(v, (_, x: unknown) =>
      Array.isArray(x)
        ? [...x].sort((a, b) => (still(a) < still(b) ? -1 : 1))
        : x && typeof x === 'object'
          ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1)))
          : x,
    );

  it('with only one side changed give that side', () => {
    for (const [base, mine] of trials) {
      expect(merge(base, mine, base)).toEqual({ merged: mine, clashes: [] });
      expect(merge(base, base, mine)).toEqual({ merged: mine, clashes: [] });
      expect(merge(base, mine, mine)).toEqual({ merged: mine, clashes: [] });
    }
  });

  it('clash in the same places whoever is asked, and each choice gives the same from both sides', () => {
    for (const [base, mine, theirs] of trials) {
      const [a, b] = [merge(base, mine, theirs), merge(base, theirs, mine)];
      expect(paths(a).map(String).sort()).toEqual(paths(b).map(String).sort());
      const first = chosen(base, mine, theirs, () => 'mine');
      expect(still(first)).toBe(still(chosen(base, theirs, mine, () => 'theirs')));
    }
  });

  it('keep, after any choice, every edit of either side that the other has not touched', () => {
    for (const [base, mine, theirs] of trials) {
      const { clashes } = merge(base, mine, theirs);
      const picks = clashes.map(() => pick(['mine', 'theirs'] as const));
      const result = chosen(base, mine, theirs, (i) => picks[i] as 'mine') as Content;
      for (const key of ['edgeMm', 'school'] as const) {
        if (same(base[key], mine[key])) expect(result[key]).toEqual(theirs[key]);
        if (same(base[key], theirs[key])) expect(result[key]).toEqual(mine[key]);
      }
      // Nothing comes from nowhere.
      for (const key of Object.keys(result)) {
        if (!Array.isArray(result[key])) continue;
        const known = [...(mine[key] as unknown[]), ...(theirs[key] as unknown[])];
        const names = (v: unknown) =>
          typeof v === 'object' && v
            ? JSON.stringify([(v as Content).tooth, (v as Content).kind, (v as Content).id, (v as Content).view])
            : v;
        for (const entry of result[key] as unknown[]) expect(known.map(names)).toContain(names(entry));
        expect(new Set((result[key] as unknown[]).map(names)).size).toBe((result[key] as unknown[]).length);
      }
      // And the question is answered: asked again against the same other side nothing is left to choose.
      expect(merge(theirs, result, theirs).clashes).toEqual([]);
    }
  });

  it('choosing one side everywhere gives its value at every clash', () => {
    for (const [base, mine, theirs] of trials) {
      const { clashes } = merge(base, mine, theirs);
      if (clashes.length === 0) continue;
      for (const [side, own] of [
        ['mine', mine],
        ['theirs', theirs],
      ] as const) {
        const result = chosen(base, mine, theirs, () => side);
        // Against the side that was chosen nothing of these clashes differs any more.
        const again = merge(base, own, result);
        for (const c of clashes) expect(paths(again).map(String)).not.toContain(String(c.path));
      }
    }
  });
});

it('contents are the same whatever the order of their fields, and null as good as absent', () => {
  expect(same({ a: 1, b: null, c: [1, 2] }, { c: [1, 2], a: 1 })).toBe(true);
  expect(same({ c: [1, 2] }, { c: [2, 1] })).toBe(false);
  expect(same(undefined, null)).toBe(true);
});
