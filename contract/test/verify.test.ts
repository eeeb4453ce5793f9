import { check, completed, SECTIONS, VerifySection } from '@radiant/contract';

const sentences = (data: unknown) => check(VerifySection, data).errors.map((e) => `${e.field}: ${e.message}`);
const SCAN = '0c9f2c3a-6d2e-4a57-9a53-0d1a7a3c1f10';
const reading = { tooth: 11, way: 'index', place: 'edge', mm: 1.2 };
const accepted = {
  tooth: 11,
  check: 'edge',
  place: 'edge',
  reason: 'The lower teeth leave room.',
  by: 'A Dentist',
  at: '2026-11-28T10:00:00.000Z',
  found: 'too long',
};

describe('what is kept of a checked preparation', () => {
  it('nothing is empty, and readings and what was accepted go through', () => {
    expect(completed('verify', {})).toEqual({ readings: [], accepted: [] });
    expect(sentences({ readings: [reading], accepted: [accepted], scanId: SCAN })).toEqual([]);
  });

  it.each([
    [{ ...reading, mm: 7 }, 'A thickness that is read by hand lies between 0 and 5 mm.'],
    [{ ...reading, place: 'root' }, 'A thickness is read at one of cervical, middle, incisal, edge, palatal.'],
    [{ ...reading, way: 'guess' }, 'This way of reading is not known.'],
    [{ ...reading, tooth: 17 }, 'Front teeth and premolars are checked, 15 to 25 and 35 to 45.'],
  ])('a reading that can’t be: %j', (own, sentence) => {
    expect(sentences({ readings: [own], accepted: [] }).join()).toContain(sentence);
  });

  it.each([
    [{ tooth: 11, at: 0.5, mm: 0 }, 'A direction around a tooth is a whole number.'],
    [{ tooth: 11, at: 128, mm: 0 }, 'There are 128 directions around a tooth.'],
    [{ tooth: 11, at: 3, mm: 4 }, 'A finish line is drawn within 1.5 mm to the root and 2.5 mm to the edge.'],
    [{ tooth: 18, at: 3, mm: 1 }, 'Front teeth and premolars are checked, 15 to 25 and 35 to 45.'],
  ])('a finish line that can’t be drawn: %j', (line, sentence) => {
    expect(sentences({ readings: [], accepted: [], lines: [line] }).join()).toContain(sentence);
  });

  it('a place is read once, and nothing is accepted without a reason', () => {
    expect(sentences({ readings: [reading, reading], accepted: [] })).toEqual(['readings: A place is read twice.']);
    expect(sentences({ readings: [], accepted: [{ ...accepted, reason: '' }] }).join()).toContain(
      'Say why it is taken as it is, in 1 to 500 characters.',
    );
    expect(sentences({ readings: [], accepted: [accepted, accepted] })).toEqual([
      'accepted: A finding is accepted twice.',
    ]);
  });

  it('its scan belongs to the case and has its teeth told apart; brought in under another number it goes along', () => {
    const file = (role: 'working' | 'raw') => new Map([[SCAN, { kind: 'scan', role, jaw: 'upper' }]]) as never;
    const data = { scanId: SCAN, readings: [], accepted: [] };
    expect(SECTIONS.verify.sense(data, file('working'))).toEqual([]);
    expect(SECTIONS.verify.sense(data, file('raw'))[0]?.message).toBe(
      'A preparation is judged by a scan whose teeth are told apart.',
    );
    expect(SECTIONS.verify.sense(data, new Map())[0]?.message).toBe('The scan does not belong to this case.');
    expect(SECTIONS.verify.files(data).map((f) => f.id)).toEqual([SCAN]);
    expect(SECTIONS.verify.withFiles(data, () => 'other').scanId).toBe('other');
    expect(SECTIONS.verify.withFiles(data, () => undefined).scanId).toBeNull();
  });
});
