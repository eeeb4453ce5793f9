import { randomUUID } from 'node:crypto';
import type {
  CaseDetail,
  CaseDocument,
  CasePage,
  CaseSummary,
  GuideFacts,
  PrinterSays,
  Problem,
} from '@radiant/contract';
import { CASE_DOCUMENT_VERSION, contourPlan } from '@radiant/contract';
import {
  bounds,
  crown,
  crownSize,
  existingArch,
  frontRow,
  inspectMesh,
  type Mesh,
  pieces,
  plannedTooth,
  readMesh,
  readScan,
  readStl,
  volume,
  weld,
} from '@radiant/core';
import { strFromU8, unzipSync } from 'fflate';
import Manifold from 'manifold-3d';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { avocetOf, type Client, signedIn } from '../house.js';

let dentist: Client;
let avocet: CaseSummary;
let doc: CaseDocument;
/** The same without its scan, which is most of its bytes. */
let light: CaseDocument;

beforeAll(async () => {
  dentist = await signedIn('dentist');
  avocet = await avocetOf(dentist);
  doc = (await dentist.get<CaseDocument>(`/cases/${avocet.id}/case.json`)).body;
  const { scanId: _, ...shape } = doc.sections.shape;
  light = {
    ...doc,
    files: doc.files.filter((f) => f.kind === 'photo'),
    sections: { ...doc.sections, shape },
    history: doc.history.filter((h) => h.section !== 'shape'),
  };
});

const copied = (name: string) => dentist.post<CaseDetail>(`/cases/${avocet.id}/duplicate`, { name });

const LOWER_CROWN = { lengthMm: 9, widthMm: 5.4, facialVolumeMm: 0, rotationDeg: 0 };

const bringIn = (d: unknown) =>
  dentist.upload<Problem & CaseDetail>('/cases/import', typeof d === 'string' ? d : JSON.stringify(d), 'case.json');

/**
 * A mesh as manifold-3d takes it, and the share of it that is not one piece. STL knows no shared corners: read back,
 * grains of the gum that hang on by one corner come apart.
 */
async function solidOf(mesh: Mesh) {
  const wasm = await Manifold();
  wasm.setup();
  const solid = (m: Mesh) =>
    new wasm.Manifold(
      new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
    );
  const whole = solid(mesh);
  const parts = whole
    .decompose()
    .map((p) => p.volume())
    .sort((p, q) => q - p);
  return { whole, solid, loose: parts.slice(1).reduce((n, v) => n + Math.abs(v), 0) / whole.volume() };
}

it('the page is numbered as it is asked for, and says in which numbers', async () => {
  const words = async (query: string) => {
    const pdf = await getDocument({ data: await dentist.bytes(`/cases/${avocet.id}/plan.pdf${query}`) }).promise;
    const { items } = await (await pdf.getPage(1)).getTextContent();
    return items.map((i) => ('str' in i ? i.str : ''));
  };
  // The upper front teeth in both notations (ISO 3950; Universal counts from the upper right third molar).
  for (const [query, teeth, said] of [
    ['', ['13', '12', '11', '21', '22', '23'], 'Tooth numbers: FDI (ISO 3950)'],
    ['?notation=universal', ['6', '7', '8', '9', '10', '11'], 'Tooth numbers: Universal (1–32)'],
  ] as const) {
    const text = await words(query);
    expect(text).toContain(said);
    // Over the depths, and under the sections with the planned size.
    for (const t of teeth) {
      expect(text.filter((w) => w === t)).toHaveLength(1);
      expect(text.filter((w) => w.startsWith(`${t}: `) && / × /.test(w))).toHaveLength(1);
    }
    expect(text.filter((w) => /^\d{1,2}$/.test(w) && !(teeth as readonly string[]).includes(w))).toEqual([]);
  }
  expect((await dentist.get(`/cases/${avocet.id}/plan.pdf?notation=roman`)).status).toBe(422);
});

describe('the contour as STL', () => {
  const stl = async (query: string) => (await dentist.bytes(`/cases/${avocet.id}/contour.stl?${query}`)).slice();
  const shells = (bytes: Uint8Array) => new STLLoader().parse(bytes.buffer as ArrayBuffer);

  it('is six closed crowns that three’s loader reads, as large together as the plan’s crowns by themselves', async () => {
    const bytes = await stl('what=planned');
    expect(shells(bytes).attributes.position?.count).toBeGreaterThan(6 * 3 * 5000);
    const { mesh } = readStl(bytes);
    expect(inspectMesh(mesh).ok).toBe(true);
    const { teeth, scanId } = (await dentist.get<CaseDetail>(`/cases/${avocet.id}`)).body.sections.shape.data;
    // Worked out here, from the scan in the case file: behind their edges the crowns keep the teeth's own surface.
    const file = doc.files.find((f) => f.id === scanId);
    const arch = existingArch(readScan(Buffer.from(file?.base64 ?? '', 'base64')));
    const plan = contourPlan(teeth);
    const single = teeth.reduce((n, t) => n + volume(plannedTooth(arch, plan, t.tooth).mesh), 0);
    expect(volume(mesh) / single).toBeCloseTo(1, 3);
    const byForm = teeth.reduce((n, t) => n + volume(crown(t.tooth, crownSize(t)).mesh), 0);
    expect(volume(mesh) / byForm).toBeLessThan(0.99);
  });

  it('of the lower jaw: its crowns lie where its teeth were scanned, its model is one closed solid, and nothing is made up', async () => {
    expect((await dentist.get<Problem>(`/cases/${avocet.id}/contour.stl?jaw=lower`)).body.detail).toMatch(
      /no such surface yet/,
    );
    expect((await dentist.get<Problem>(`/cases/${avocet.id}/contour.stl?jaw=left`)).body.detail).toBe(
      'Ask for the upper or the lower jaw.',
    );
    const there = readStl(await stl('what=existing&jaw=lower')).mesh;
    const made = await copied('Lower');
    const { version, data } = made.body.sections.shape;
    const teeth = [...data.teeth, { ...LOWER_CROWN, tooth: 41 }, { ...LOWER_CROWN, tooth: 31 }];
    expect(
      (await dentist.patch(`/cases/${made.body.id}/sections/shape`, { version, data: { ...data, teeth } })).status,
    ).toBe(200);
    const of = async (what: string) =>
      readStl((await dentist.bytes(`/cases/${made.body.id}/contour.stl?jaw=lower&what=${what}`)).slice()).mesh;
    const crowns = await of('planned');
    expect(pieces(crowns)).toHaveLength(2);
    const [own, arch] = [bounds(crowns), bounds(there)];
    for (const k of [0, 1] as const)
      expect(own.min[k] > arch.min[k] - 0.5 && own.max[k] < arch.max[k] + 0.5).toBe(true);
    expect(Math.abs(own.max[2] - arch.max[2])).toBeLessThan(2);
    const model = await of('mock-up');
    const { whole, loose } = await solidOf(model);
    expect(whole.status()).toBe('NoError');
    expect(loose).toBeLessThan(0.0005);
    // The foot is below, where the roots are, and flat.
    const foot = bounds(model).min[2];
    expect(foot).toBeLessThan(own.min[2] - 0.5);
    expect(model.positions.filter((v, i) => i % 3 === 2 && v < foot + 0.01).length).toBeGreaterThan(20);
    expect(bounds(model).max[2]).toBeCloseTo(Math.max(own.max[2], arch.max[2]), 0);
  });

  it('joined with the untouched arch is one closed solid by manifold-3d’s judgement, and holds every planned crown', async () => {
    const { mesh } = readStl(await stl('what=mock-up'));
    const { whole, loose, solid } = await solidOf(mesh);
    expect(whole.status()).toBe('NoError');
    expect(loose).toBeLessThan(0.0005);
    expect(whole.volume()).toBeCloseTo(volume(mesh), 0);
    const crowns = pieces(readStl(await stl('what=planned')).mesh);
    expect(crowns).toHaveLength(6);
    for (const c of crowns) expect(whole.intersect(solid(c)).volume() / volume(c)).toBeGreaterThan(0.997);
    // Nothing of it is hollow or doubled: it is larger than the crowns, and smaller than the box around the arch.
    const b = bounds(mesh);
    expect(whole.volume()).toBeGreaterThan(1.5 * crowns.reduce((n, c) => n + volume(c), 0));
    expect(whole.volume()).toBeLessThan(0.5 * (b.max[0] - b.min[0]) * (b.max[1] - b.min[1]) * (b.max[2] - b.min[2]));
  });

  it('goes out as 3MF with a body for each crown, as OBJ and as PLY; another format is not found', async () => {
    const of = async (format: string) =>
      (await dentist.bytes(`/cases/${avocet.id}/contour.${format}?what=planned`)).slice();
    const model = strFromU8(unzipSync(await of('3mf'))['3D/3dmodel.model'] as Uint8Array);
    expect([...model.matchAll(/<object [^>]*name="([^"]+)"/g)].map((m) => m[1])).toEqual(
      [...frontRow()].map((t) => `planned ${t} (FDI)`),
    );
    const same = volume(readStl(await stl('what=planned')).mesh);
    for (const format of ['obj', 'ply']) expect(volume(readMesh(await of(format)).mesh)).toBeCloseTo(same, 0);
    expect((await dentist.get(`/cases/${avocet.id}/contour.step`)).status).toBe(404);
  });

  it('lies over the arch as scanned, which goes out whole', async () => {
    const existing = readStl(await stl('what=existing')).mesh;
    const planned = bounds(readStl(await stl('what=planned')).mesh);
    const there = bounds(existing);
    expect(planned.min[0]).toBeGreaterThan(there.min[0]);
    expect(planned.max[0]).toBeLessThan(there.max[0]);
  });

  it('of the target preparations is a closed stump for each planned tooth, within the tooth that is there', async () => {
    const mesh = readStl((await dentist.bytes(`/cases/${avocet.id}/contour.stl?what=prepared`)).slice()).mesh;
    const existing = readStl((await dentist.bytes(`/cases/${avocet.id}/contour.stl?what=existing`)).slice()).mesh;
    const stumps = pieces(weld(mesh));
    expect(stumps).toHaveLength(6);
    for (const s of stumps) expect(inspectMesh(s).ok).toBe(true);
    const [inner, outer] = [bounds(mesh), bounds(existing)];
    for (const c of [0, 1, 2]) {
      expect(inner.min[c as 0]).toBeGreaterThan((outer.min[c as 0] as number) - 0.01);
      expect(inner.max[c as 0]).toBeLessThan((outer.max[c as 0] as number) + 0.01);
    }
  });

  it('of a guide is one closed wall over teeth that stay; where all that face the front are planned it is refused in a sentence', async () => {
    const made = await copied('Guided');
    const path = `/cases/${made.body.id}`;
    const { version, data } = made.body.sections.shape;
    const teeth = data.teeth.filter((t) => t.tooth % 10 <= 2);
    await dentist.patch(`${path}/sections/shape`, { version, data: { ...data, teeth } });
    for (const what of ['index', 'leaf-guide', 'edge-strip', 'slices', 'mock-up-index']) {
      const { mesh } = readStl((await dentist.bytes(`${path}/contour.stl?what=${what}`)).slice());
      const whole = weld(mesh);
      // Where leaves and spine share a surface, slivers without an area are left; nothing is open.
      expect([...inspectMesh(whole).defects.keys()].filter((d) => d !== 'degenerate')).toEqual([]);
      // All of it hangs together, but for slices.
      const { loose } = await solidOf(whole);
      if (what !== 'slices') expect(loose).toBeLessThan(1e-6);
      const { min, max } = bounds(whole);
      // Slices stand by themselves in front of four incisors.
      expect(max[0] - min[0]).toBeGreaterThan(what === 'slices' ? 15 : 25);
      expect(volume(whole)).toBeGreaterThan(what === 'slices' ? 300 : 700);
    }
    // What the simulated printer says of the file: a wall of five millimetres, in one piece; of 3MF the same as of STL.
    const says = async (query: string) => (await dentist.get<PrinterSays>(`${path}/print?${query}`)).body;
    const said = await says('what=index');
    expect(said).toMatchObject({ printer: 'Simulated resin printer', bodies: 1, refused: [], check: { pieces: 1 } });
    expect(said.title).toContain('facial index');
    expect(said.check?.thinnestMm).toBeGreaterThan(1);
    expect(said.check?.minutes).toBeGreaterThan(10);
    const again = await says('what=index&format=3mf');
    expect(again.title).toContain('facial index, upper jaw');
    expect(again.check?.volumeMm3).toBeCloseTo(said.check?.volumeMm3 ?? 0, 0);
    expect((await dentist.get<Problem>(`${path}/print?what=index&format=obj`)).status).toBe(422);
    // How the index of the mock-up goes on.
    const { seats, wayOn } = (await dentist.get<GuideFacts>(`${path}/contour.json?what=mock-up-index`)).body;
    expect(seats).toBeGreaterThanOrEqual(2);
    expect(wayOn?.givesMm).toBeLessThan(1);
    const all = {
      ...data,
      teeth: data.teeth.concat([14, 15, 24, 25].map((tooth) => ({ ...LOWER_CROWN, tooth, widthMm: 6.8, lengthMm: 8 }))),
    };
    await dentist.patch(`${path}/sections/shape`, { version: version + 1, data: all });
    const refused = await dentist.get<Problem>(`${path}/contour.stl?what=index`);
    expect([refused.status, refused.body.detail]).toEqual([422, expect.stringMatching(/sit on nothing that stays/)]);
  });

  it('of a kept version is what was kept; one that is not there is not found, and a word that is no surface is told', async () => {
    const made = await copied('Stint');
    const kept = (await dentist.post<{ id: string }>(`/cases/${made.body.id}/contours`, { name: 'kept', why: '' }))
      .body;
    const first = await dentist.bytes(`/cases/${made.body.id}/contour.stl?version=${kept.id}`);
    const { version, data } = made.body.sections.shape;
    await dentist.patch(`/cases/${made.body.id}/sections/shape`, {
      version,
      data: { ...data, teeth: data.teeth.map((t) => ({ ...t, lengthMm: t.lengthMm + 0.5 })) },
    });
    const again = await dentist.bytes(`/cases/${made.body.id}/contour.stl?version=${kept.id}`);
    expect(Buffer.compare(Buffer.from(first), Buffer.from(again))).toBe(0);
    const now = readStl((await dentist.bytes(`/cases/${made.body.id}/contour.stl`)).slice()).mesh;
    expect(volume(now)).toBeGreaterThan(volume(readStl(first.slice()).mesh) * 1.02);
    expect((await dentist.get(`/cases/${made.body.id}/contour.stl?version=${made.body.id}`)).status).toBe(404);
    expect((await dentist.get<Problem>(`/cases/${made.body.id}/contour.stl?what=wished`)).body.detail).toBe(
      'Ask for the planned or the existing surface, for the mock-up model, for the target preparations, or for a guide.',
    );
    const bare = (await dentist.post<CaseDetail>('/cases', { name: 'No surface yet' })).body;
    expect((await dentist.get<Problem>(`/cases/${bare.id}/contour.stl`)).status).toBe(422);
  });
});

describe('the plan as PDF', () => {
  const firstPage = async (id: string, form = 'plan') => {
    const bytes = await dentist.bytes(`/cases/${id}/plan.pdf?form=${form}`);
    const pdf = await getDocument({ data: bytes, useSystemFonts: false, verbosity: 0 }).promise;
    const page = await pdf.getPage(1);
    const items = (await page.getTextContent()).items.flatMap((i) =>
      'str' in i && i.str.trim() !== '' ? [{ text: i.str, size: i.transform[3] as number }] : [],
    );
    return { pages: pdf.numPages, view: page.view as [number, number, number, number], items };
  };

  it('is one A4 page that names every tooth and zone, with cautions, order, scale and the caution', async () => {
    const { pages, view, items } = await firstPage(avocet.id);
    expect(pages).toBe(1);
    const [, , width, height] = view;
    expect([Math.round((width / 72) * 25.4), Math.round((height / 72) * 25.4)]).toEqual([210, 297]);
    const words = items.map((i) => i.text).join(' ');
    for (const t of frontRow()) expect(words).toContain(String(t));
    for (const w of [
      'Avocet',
      'Beware',
      'clenches or grinds',
      // What the planned teeth have been through; 14, which has a filling, is not planned.
      '21: trauma',
      'cervical',
      'middle',
      'incisal',
      'Seat the mock-up',
      'Check with the index',
      'Taken: from the tooth to the target',
      '5 mm',
      'The treating clinician decides',
      'from memory',
      'not approved yet',
    ])
      expect(words).toContain(w);
    expect(words).not.toContain('14: filling');
  });

  it('is a card in A5 for each tooth, its number as the largest figure, or six on a page of A4', async () => {
    const card = await firstPage(avocet.id, 'cards');
    expect(card.pages).toBe(6);
    const mm = (view: readonly number[]) => view.slice(2).map((v) => Math.round((v / 72) * 25.4));
    expect(mm(card.view)).toEqual([148, 210]);
    const [largest] = [...card.items].sort((a, b) => b.size - a.size);
    expect([largest?.text, largest?.size]).toEqual(['13', expect.closeTo(50, 0)]);
    const words = card.items.map((i) => i.text).join(' ');
    for (const w of [
      'clenches or grinds',
      'Set the depth, mm',
      'Seat the mock-up',
      'Lay the cord',
      '2 mm',
      'not approved yet',
    ])
      expect(words).toContain(w);
    // Every step of the tooth's list stands on it, in order.
    const steps = [...words.matchAll(/(\d+)\. [A-Z]/g)].map((m) => Number(m[1]));
    expect(steps.length).toBeGreaterThan(12);
    expect([...steps].sort((a, b) => a - b)).toEqual(steps.map((_, i) => i + 1));
    const six = await firstPage(avocet.id, 'six');
    expect([six.pages, ...mm(six.view)]).toEqual([1, 210, 297]);
    for (const t of frontRow()) expect(six.items.map((i) => i.text)).toContain(String(t));
    const other = await dentist.get<Problem>(`/cases/${avocet.id}/plan.pdf?form=poster`);
    expect([other.status, other.body.detail]).toEqual([
      422,
      'The plan is put on paper as plan, cards, six, shades, preparations, estimate, treatment.',
    ]);
  });

  it('has the depths to set as its largest figures, each with the letter of its bur, as the burs say them', async () => {
    const { items } = await firstPage(avocet.id);
    const set = items.filter((i) => Math.round(i.size) === 19);
    expect(set.length).toBeGreaterThan(6);
    // Nothing but the case's name is larger, and the tooth taken is a small figure.
    expect(items.filter((i) => i.size > 19.5).map((i) => i.text)).toEqual(['Avocet']);
    for (const i of items.filter((q) => /^takes \d/.test(q.text))) expect(i.size).toBeLessThan(8);
    const burs = items.flatMap((i) => /^([A-Z])\. (\d\.\d) mm: /.exec(i.text)?.slice(1, 3) ?? []);
    const depthOf = new Map(burs.flatMap((v, i) => (i % 2 === 0 ? [[v, burs[i + 1]] as const] : [])));
    for (const depth of set) {
      const letter = items[items.indexOf(depth) + 1]?.text ?? '';
      expect([letter, depthOf.get(letter)]).toEqual([letter, depth.text]);
    }
  });

  it('says tooth by tooth how far it is to whoever gave it a number', async () => {
    const [job, { body: kase }] = [randomUUID(), await copied('Told as it is made')];
    // A design that no engine has worked out yet, or it is done before anyone asks.
    const { version, data } = kase.sections.reduce;
    await dentist.patch(`/cases/${kase.id}/sections/reduce`, { version, data: { ...data, design: 'zirconia-crown' } });
    const said = new Set<string>();
    let done = false;
    const pdf = dentist.bytes(`/cases/${kase.id}/plan.pdf?job=${job}`).finally(() => {
      done = true;
    });
    const asking = await signedIn('dentist');
    while (!done) {
      const { status, body } = await asking.get<{ what: string; share: number }>(`/cases/making/${job}`);
      if (status === 200) said.add(body.what);
    }
    expect((await pdf).length).toBeGreaterThan(10_000);
    expect([...said].some((what) => /^Working out [12][1-3]$/.test(what))).toBe(true);
    expect((await asking.get(`/cases/making/${job}`)).status).toBe(404);
  });

  it('is refused in a sentence while there is no contour', async () => {
    const made = (await dentist.post<CaseDetail>('/cases', { name: 'Nothing yet' })).body;
    const refused = await dentist.get<Problem>(`/cases/${made.id}/plan.pdf`);
    expect(refused.body.detail).toBe(
      'There is no plan to print yet: it needs a scan, and a planned tooth that stands in it.',
    );
  });
});

describe('the case as a file', () => {
  it('comes back in with nothing lost', async () => {
    const made = (await bringIn(doc)).body;
    expect(made.id).not.toBe(avocet.id);
    const again = (await dentist.get<CaseDocument>(`/cases/${made.id}/case.json`)).body;
    // Files get numbers of their own in the new case; everything else is the same.
    const rename = new Map(doc.files.map((f, i) => [f.id, again.files[i]?.id as string]));
    const bytes = (d: CaseDocument) => d.files.map((f) => f.base64);
    const told = (d: CaseDocument) => ({ ...d, files: d.files.map(({ base64: _, ...f }) => f) });
    const text = [...rename].reduce(
      (t, [a, b]) => t.replaceAll(a, b),
      JSON.stringify(told({ ...doc, writtenAt: again.writtenAt })),
    );
    expect(told(again)).toEqual(JSON.parse(text));
    expect(bytes(again)).toEqual(bytes(doc));
    expect(made.sections.shape.version).toBe(1);
    expect(made.sections.read.by).toBe('Dr Sample Curlew');
  });

  const spoilt = (change: (d: Record<string, never> & CaseDocument) => void) => {
    const d = structuredClone(light) as Record<string, never> & CaseDocument;
    change(d);
    return d;
  };
  it.each<[string, () => unknown, RegExp]>([
    [
      'of a newer version',
      () => ({ ...light, version: CASE_DOCUMENT_VERSION + 1 }),
      new RegExp(`version ${CASE_DOCUMENT_VERSION + 1}; this program reads up to version ${CASE_DOCUMENT_VERSION}`),
    ],
    ['with a foreign field', () => ({ ...light, stars: 5 }), /“stars” does not belong here/],
    [
      'with a foreign field deep inside',
      () => spoilt((d) => Object.assign(d.sections.propose, { glow: 1 })),
      /“sections.propose.glow” does not belong here/,
    ],
    ['of another kind', () => ({ hello: 1 }), /not a Radiant Arch case file/],
    ['that is a list', () => [], /not a Radiant Arch case file/],
    ['cut short', () => JSON.stringify(light).slice(0, 5000), /not valid JSON/],
    ['with a damaged file', () => spoilt((d) => Object.assign(d.files[0] as object, { base64: 'AAAA' })), /damaged/],
    [
      'with a landmark outside its picture',
      () => spoilt((d) => Object.assign(d.sections.read.views[0]?.landmarks?.[0] as object, { x: 99999 })),
      /outside the picture/,
    ],
    [
      'that names a photograph it lacks',
      () => spoilt((d) => Object.assign(d, { files: d.files.filter((f) => f.kind !== 'photo') })),
      /photograph that it does not hold/,
    ],
    ['without sections', () => spoilt((d) => Object.assign(d, { sections: undefined })), /has no sections/],
  ])('%s is refused in a sentence and makes no case', async (_, make, sentence) => {
    const before = (await dentist.get<CasePage>('/cases')).body.total;
    const refused = await bringIn(make());
    expect(refused.body.detail).toMatch(sentence);
    expect(refused.status).toBe(422);
    expect((await dentist.get<CasePage>('/cases')).body.total).toBe(before);
  });
});

it('the laboratory’s sheet names what was read, wanted and predicted of each planned tooth, and carries photographs', async () => {
  const own = (await copied('Coloured')).body;
  const match = {
    readings: (['gum', 'body', 'edge'] as const).map((zone) => ({
      tooth: 11,
      of: 'tooth',
      zone,
      L: 75.5,
      a: 0.2,
      b: 17.5,
      wet: zone !== 'gum',
      at: '2026-11-20T09:10:00.000Z',
      device: 'shade meter, simulated',
    })),
    wanted: 'A1',
    ceramic: 'glass-medium',
    cement: 'clear',
    character: [{ tooth: 11, translucency: 'high', texture: 'light', note: 'a halo at the edge' }],
    bleaching: [{ tooth: 21, to: 'B1', waitDays: 14, endedOn: '2026-11-01' }],
  };
  const { version } = own.sections.match;
  expect((await dentist.call('PATCH', `/cases/${own.id}/sections/match`, { version, data: match })).status).toBe(200);
  const bytes = await dentist.bytes(`/cases/${own.id}/plan.pdf?form=shades`);
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: pdf.numPages }, async (_, i) => {
      const { items } = await (await pdf.getPage(i + 1)).getTextContent();
      return items.map((item) => ('str' in item ? item.str : '')).join(' ');
    }),
  );
  const words = pages.join(' ').replace(/\s+/g, ' ');
  expect(words).toMatch(/Wanted: A1\. Cement: clear\./);
  expect(words).toMatch(/75\.5 0\.2 17\.5/);
  expect(words).toMatch(/DRY, to be read again, 2026-11-20/);
  expect(words).toMatch(/edge translucency high · light texture · a halo at the edge/);
  expect(words).toMatch(/bleached first, to about B1; its colour counts from 2026-11-15 on/);
  expect(words).toMatch(/\d\.\d \(\d\.\d to \d\.\d\)/);
  expect(words).toMatch(/retracted, front/);
  await dentist.call('DELETE', `/cases/${own.id}`);
});
