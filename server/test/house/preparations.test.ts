import { type CaseDetail, contourPlan, type Problem } from '@radiant/contract';
import { INTRAORAL_SCANNER, makePatient, RECIPES, type RowOrder, scanOfCut, scanOfWorn } from '@radiant/standins';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { avocetOf, type Client, signedIn } from '../house.js';

let dentist: Client;
let kase: CaseDetail;
let order: RowOrder;

const upload = (bytes: Uint8Array, state: string) =>
  dentist.upload(`/cases/${kase.id}/files?kind=scan&state=${state}`, bytes, `upper jaw, ${state}.stl`);
const paper = async (query = '') => {
  const bytes = await dentist.bytes(`/cases/${kase.id}/plan.pdf?form=preparations${query}`);
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: pdf.numPages }, async (_, i) => {
      const page = await pdf.getPage(i + 1);
      const { items } = await page.getTextContent();
      const { fnArray } = await page.getOperatorList();
      return {
        words: items.map((item) => ('str' in item ? item.str : '')).join(' '),
        images: fnArray.filter((f) => f === OPS.paintImageXObject).length,
      };
    }),
  );
  return {
    words: pages
      .map((p) => p.words)
      .join(' ')
      .replace(/\s+/g, ' '),
    images: pages.reduce((sum, p) => sum + p.images, 0),
  };
};

beforeAll(async () => {
  dentist = await signedIn('dentist');
  const avocet = await avocetOf(dentist);
  kase = (await dentist.post<CaseDetail>(`/cases/${avocet.id}/duplicate`, { name: 'Cut' })).body;
  // Two teeth tell as much as six, in a third of the time.
  const { version, data } = kase.sections.shape;
  const teeth = data.teeth.filter((t) => t.tooth === 11 || t.tooth === 21);
  const put = await dentist.patch(`/cases/${kase.id}/sections/shape`, { version, data: { ...data, teeth } });
  expect(put.status).toBe(200);
  order = { plan: contourPlan(teeth), choice: kase.sections.reduce.data };
});

describe('preparations on paper', () => {
  it('are refused in a sentence before there is a scan of them', async () => {
    const none = await dentist.get<Problem>(`/cases/${kase.id}/plan.pdf?form=preparations`);
    expect([none.status, none.body.detail]).toEqual([
      422,
      'There is no verdict to print yet: it needs a planned tooth, and a scan of the prepared teeth.',
    ]);
  });

  it('are told tooth by tooth with two maps each, what was taken as it is, answers, and what is still to cut', async () => {
    const cut = { ...order, faults: { 11: { 'edge short': 0.4 }, 21: { 'flat face': 0.35 } } };
    const patient = makePatient(RECIPES.Avocet);
    expect((await upload(scanOfCut(patient, cut, { ...INTRAORAL_SCANNER, seed: 96 }), 'prepared')).status).toBe(201);
    expect((await upload(scanOfWorn(patient, order, { ...INTRAORAL_SCANNER, seed: 97 }), 'provisional')).status).toBe(
      201,
    );
    const at = '2026-11-28T10:00:00.000Z';
    const taken = {
      tooth: 21,
      check: 'face',
      place: 'middle of the face',
      reason: 'thick ceramic',
      by: 'x',
      at,
      found: 'y',
    };
    await dentist.patch(`/cases/${kase.id}/sections/verify`, { version: 0, data: { readings: [], accepted: [taken] } });
    const technician = await signedIn('technician');
    const say = (body: string, place: object) =>
      technician.post(`/cases/${kase.id}/comments`, { stage: 'verify', body, place });
    await say('Leave me half a millimetre here.', { tooth: 21, check: 'face', words: 'middle of the face' });
    await say('The wall was short.', { tooth: 13, check: 'walls', words: 'height' });
    await say('Is this a crack?', { tooth: 22, words: 'a point of its surface', at: [4, -20, 3] });
    const { words, images } = await paper();
    // Two veneers, from the front and from behind.
    expect(images).toBe(4);
    expect(words).toContain('Cut: preparations');
    expect(words).toMatch(/upper, prepared: upper jaw, prepared\.stl, .* laid by 8 uncut teeth within 0\.0\d mm/);
    expect(words).toMatch(/upper, provisional: upper jaw, provisional\.stl/);
    expect(words).toMatch(
      /11 edge, \d\.\d\d mm of \d\.\d\d: 0\.[345]\d mm too long over its length; the provisional is (0\.[5-9]|1\.[01])\d mm/,
    );
    expect(words).toMatch(/21 face: flat where the contour curves/);
    expect(words).toMatch(/taken as it is: “thick ceramic”, x, 28 November 2026/);
    expect(words).toMatch(/“Leave me half a millimetre here\.” Technician Sample Ruff, technician/);
    // What was said to something that is not found any more stands at the end.
    expect(words).toMatch(/Still to cut, .* 13, height: “The wall was short\.”/);
    expect(words).toMatch(/22, a point of its surface: “Is this a crack\?”/);
    expect(words).toMatch(/Still to cut, in the order of the tray .* 11 edge 0\.[345]\d mm/);
    expect(words).toMatch(/FDI \(ISO 3950\) numbers/);
    // Every glyph that is written is one that the fonts have.
    expect(words).not.toMatch(/\ufffd/);
    const universal = (await paper('&notation=universal')).words;
    expect(universal).toMatch(/ 8 edge, \d\.\d\d mm of/);
    expect(universal).toMatch(/Universal \(1–32\) numbers/);
  });
});
