import { mkdtemp, readdir, readFile, rename, rm, unlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AS_IT_CAME, type Lay, mirroredOf, turnedBy } from '@radiant/contract';
import { Refusal, readScan, sphere, writeObj, writePly, writeStlBinary } from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, scan } from '@radiant/standins';
import sharp from 'sharp';
import { ContentStore } from '../src/files/store.js';
import { decodedHeic } from '../src/work/heic.js';
import { inspectFile, MAX_PIXELS, nameOf } from '../src/work/inspect.js';
import { shownPicture } from '../src/work/picture.js';

const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#b07a74' } });
/** 320 × 240 px in Display P3: red and green above, blue and light grey below; written by a tool of its own. */
const quarters = () => readFile(new URL('./data/quarters.heic', import.meta.url));
const refusal = async (kind: 'photo' | 'scan', bytes: Buffer) =>
  inspectFile(kind, bytes).then(
    () => 'accepted',
    (e: Error & { problem?: { status: number; detail: string } }) => e.problem?.detail ?? e.message,
  );

describe('a photograph that is put in', () => {
  it.each([
    ['jpeg', 'image/jpeg'],
    ['png', 'image/png'],
    ['webp', 'image/webp'],
    ['tiff', 'image/tiff'],
  ] as const)('as %s is known for what it is, with its size', async (format, mime) => {
    const bytes = await picture(300, 220).toFormat(format).toBuffer();
    expect(await inspectFile('photo', bytes)).toEqual({
      kind: 'photo',
      jaw: null,
      role: null,
      mime,
      width: 300,
      height: 220,
    });
  });

  // EXIF orientation (CIPA DC-008): 1–4 stand upright or on their head, 5–8 lie on a side.
  it.each([
    [1, 300, 220],
    [3, 300, 220],
    [5, 220, 300],
    [6, 220, 300],
    [8, 220, 300],
  ])('with EXIF orientation %i is %i wide and %i high when upright', async (orientation, width, height) => {
    const bytes = await picture(300, 220).jpeg().withMetadata({ orientation }).toBuffer();
    expect(await inspectFile('photo', bytes)).toMatchObject({ width, height });
  });

  it('as HEIC is known with its size', async () => {
    expect(await inspectFile('photo', await quarters())).toMatchObject({ mime: 'image/heic', width: 320, height: 240 });
  });

  it.each<[string, () => Promise<Buffer>, RegExp]>([
    ['an empty file', async () => Buffer.alloc(0), /^The file is empty\.$/],
    [
      'text that is named like a picture',
      async () => Buffer.from('not a picture at all'),
      /^This is no picture in JPEG, PNG, WebP, TIFF or HEIC; save it as one of these and add it again\.$/,
    ],
    ['another kind of picture', () => picture(300, 300).gif().toBuffer(), /no picture in JPEG/],
    ['an HEIC picture that breaks off', async () => (await quarters()).subarray(0, 1700), /damaged/],
    [
      'a film that is named like a picture',
      async () => Buffer.from('\0\0\0\x18ftypisom\0\0\0\0'),
      /no picture in JPEG/,
    ],
    [
      'a drawing with script in it',
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="300" height="300"/>'),
      /no picture in JPEG/,
    ],
    ['a stamp', () => picture(120, 300).png().toBuffer(), /only 120 × 300 pixels; at least 200 × 200/],
    [
      'a picture that breaks off',
      async () =>
        (
          await sharp(Buffer.from(Array.from({ length: 900_000 }, (_, i) => (i * 7919) % 251)), {
            raw: { width: 600, height: 500, channels: 3 },
          })
            .jpeg()
            .toBuffer()
        ).subarray(0, 9000),
      /damaged/,
    ],
  ])('%s is refused in one sentence', async (_, make, sentence) => {
    expect(await refusal('photo', await make())).toMatch(sentence);
  });

  it('of 40,000 × 40,000 pixels is refused by its header alone', async () => {
    // A PNG of one small row, whose header claims what a bomb would.
    const small = await picture(300, 300).png().toBuffer();
    const bomb = Buffer.from(small);
    bomb.writeUInt32BE(40_000, 16);
    bomb.writeUInt32BE(40_000, 20);
    bomb.writeUInt32BE(crc32(bomb.subarray(12, 29)), 29);
    const begun = process.memoryUsage().rss;
    expect(await refusal('photo', bomb)).toMatch(
      /^The picture has 40000 × 40000 pixels; at most 100 megapixels can be used\.$/,
    );
    expect(40_000 ** 2).toBeGreaterThan(MAX_PIXELS);
    expect(process.memoryUsage().rss - begun).toBeLessThan(400e6);
  });
});

/** CRC-32 as PNG (ISO/IEC 15948, annex D) wants it over a chunk's type and data. */
function crc32(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) {
    c ^= b;
    for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
  }
  return (c ^ 0xffffffff) >>> 0;
}

/** The four corners of a picture, clockwise from the top left, by their names. */
async function corners(bytes: Uint8Array): Promise<string> {
  const { data, info } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => {
    const i = info.channels * (Math.floor(y * info.height) * info.width + Math.floor(x * info.width));
    const [r, g, b] = [data[i], data[i + 1], data[i + 2]] as [number, number, number];
    if (Math.min(r, g, b) > 190) return 'w';
    return r > g && r > b ? 'r' : g > b ? 'g' : 'b';
  };
  return at(0.25, 0.25) + at(0.75, 0.25) + at(0.75, 0.75) + at(0.25, 0.75);
}

describe('a photograph as it is shown', () => {
  const four = async (format: 'jpeg' | 'tiff' | 'webp', orientation = 1) =>
    sharp(await decodedHeic(await quarters()))
      .toFormat(format)
      .withMetadata({ orientation })
      .toBuffer();

  it('of an HEIC file has its colours and keeps its colour profile', async () => {
    const jpeg = await decodedHeic(await quarters());
    expect(await corners(jpeg)).toBe('rgwb');
    const { icc, width, height } = await sharp(jpeg).metadata();
    expect([width, height]).toEqual([320, 240]);
    // ICC.1: the profile’s own length in its first four bytes, `acsp` at byte 36.
    expect(icc?.readUInt32BE(0)).toBe(icc?.length);
    expect(icc?.toString('latin1', 36, 40)).toBe('acsp');
    // Drawn as 192/32/32 in sRGB and written in the wider space: read through its profile it is what was drawn.
    const [red] = await sharp(jpeg)
      .extract({ left: 40, top: 40, width: 1, height: 1 })
      .toColourspace('srgb')
      .raw()
      .toBuffer();
    expect(Math.abs((red as number) - 192)).toBeLessThan(5);
  });

  it.each(['tiff', 'webp'] as const)('of a %s file is a JPEG', async (format) => {
    const shown = await shownPicture(await four(format), `image/${format}`);
    expect((await sharp(shown).metadata()).format).toBe('jpeg');
    expect(await corners(shown)).toBe('rgwb');
  });

  // A picture of four corners says which way it lies; the wanted ones are turned by hand.
  it.each([
    [0, false, 'rgwb'],
    [1, false, 'brgw'],
    [2, false, 'wbrg'],
    [3, false, 'gwbr'],
    [0, true, 'grbw'],
    [1, true, 'wgrb'],
  ])('turned by %i quarters, mirrored %s, has its corners so: %s', async (quarterTurns, mirrored, wanted) => {
    expect(await corners(await shownPicture(await four('jpeg'), 'image/jpeg', { quarterTurns, mirrored }))).toBe(
      wanted,
    );
  });

  it('is turned from how it stands by its camera’s note', async () => {
    // Orientation 6: the camera lay on its side; upright, the picture is a quarter clockwise of its bytes.
    const lying = await four('jpeg', 6);
    expect(await corners(await shownPicture(lying, 'image/jpeg', { quarterTurns: 1, mirrored: false }))).toBe('wbrg');
    expect(await corners(await shownPicture(lying, 'image/jpeg', { quarterTurns: 0, mirrored: true }))).toBe('rbwg');
  });

  it('turned on screen, step by step, is what the steps make of it', async () => {
    let lay: Lay = AS_IT_CAME;
    let seen = 'rgwb';
    const right = (c: string) => `${c[3]}${c.slice(0, 3)}`;
    const steps = [
      [(l: Lay) => turnedBy(l, 1), right],
      [mirroredOf, (c: string) => `${c[1]}${c[0]}${c[3]}${c[2]}`],
      [(l: Lay) => turnedBy(l, -1), (c: string) => right(right(right(c)))],
      [mirroredOf, (c: string) => `${c[1]}${c[0]}${c[3]}${c[2]}`],
      [(l: Lay) => turnedBy(l, 1), right],
    ] as const;
    for (const [turn, by] of steps) {
      lay = turn(lay);
      seen = by(seen);
      expect(await corners(await shownPicture(await four('jpeg'), 'image/jpeg', lay))).toBe(seen);
    }
  });
});

describe('a scan that is put in', () => {
  const whole = Buffer.from(scan(makePatient(AVOCET), INTRAORAL_SCANNER));

  it('of the simulated scanner is taken', async () => {
    expect(await inspectFile('scan', whole)).toEqual({
      kind: 'scan',
      jaw: 'upper',
      role: 'working',
      mime: 'model/stl',
      width: null,
      height: null,
    });
  });

  it('of the lower jaw is known by its teeth', async () => {
    const lower = Buffer.from(scan(makePatient(AVOCET), INTRAORAL_SCANNER, 'ply', 'lower'));
    expect(await inspectFile('scan', lower)).toMatchObject({ jaw: 'lower', role: 'working', mime: 'model/ply' });
    const read = readScan(lower, []);
    expect([...read.teeth.keys()].sort()).toEqual([31, 32, 33, 34, 35, 41, 42, 43, 44, 45]);
    expect(() => readScan(lower, [13, 11])).toThrow(/lacks 13, 11 of the teeth that are needed/);
  });

  it.each<[string, () => Buffer]>([
    ['an empty file', () => Buffer.alloc(0)],
    ['one that breaks off', () => whole.subarray(0, whole.length >> 1)],
    ['a photograph', () => Buffer.from('\xff\xd8\xff\xe0 JFIF', 'latin1')],
  ])('%s is refused in one sentence', async (_, make) => {
    const sentence = await refusal('scan', make());
    expect(sentence).toMatch(/^[A-Z][^.]*(\.\d[^.]*)*\.?.*\.$/s);
    expect(sentence).not.toBe('accepted');
  });

  it('without tooth numbers is kept as it came, in any of the three formats', async () => {
    const ball = sphere(20);
    expect(await inspectFile('scan', Buffer.from(writeStlBinary(ball)))).toEqual({
      kind: 'scan',
      jaw: null,
      role: 'original',
      mime: 'model/stl',
      width: null,
      height: null,
    });
    expect(await inspectFile('scan', Buffer.from(writePly(ball)))).toMatchObject({
      role: 'original',
      mime: 'model/ply',
    });
    expect(await inspectFile('scan', Buffer.from(writeObj(ball)))).toMatchObject({
      role: 'original',
      mime: 'model/obj',
    });
  });

  it('with coordinates that are no numbers is refused as such', async () => {
    const broken = Buffer.from(whole);
    broken.writeFloatLE(Number.NaN, 84 + 12);
    const error = await inspectFile('scan', broken).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(Refusal);
  });
});

describe('the store of files', () => {
  let dir: string;
  let store: ContentStore;
  beforeEach(async () => {
    dir = await mkdtemp(join(tmpdir(), 'radiant-store-'));
    store = new ContentStore(dir);
  });
  afterEach(() => rm(dir, { recursive: true }));

  /** As an upload comes: written among the drafts, looked at, adopted. */
  const put = async (bytes: Buffer): Promise<string> => {
    const draft = await store.draft();
    await writeFile(draft, bytes);
    await store.adopt(draft, nameOf(bytes));
    await unlink(draft);
    return nameOf(bytes);
  };
  const nobody = async () => false;

  it('gives back the very bytes', async () => {
    const bytes = Buffer.from([0, 255, 10, 13, 0, 7]);
    expect(await store.get(await put(bytes))).toEqual(bytes);
  });

  it('names a file by its SHA-256 (FIPS 180-4: that of "abc")', async () => {
    expect(await put(Buffer.from('abc'))).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  });

  it('keeps the same bytes once, and leaves no draft behind', async () => {
    const names = await Promise.all([1, 2, 3].map(() => put(Buffer.from('one photograph'))));
    expect(new Set(names).size).toBe(1);
    const kept = await readdir(join(dir, (names[0] as string).slice(0, 2)));
    expect(kept).toEqual([names[0]]);
    expect(await readFile(store.pathOf(names[0] as string), 'utf8')).toBe('one photograph');
    expect(await readdir(join(dir, '.drafts'))).toEqual([]);
  });

  it('lets go what nobody needs, and nothing else', async () => {
    const name = await put(Buffer.from('wanted'));
    expect(await store.drop(name, async () => true)).toBe(false);
    expect(await store.get(name)).toEqual(Buffer.from('wanted'));
    expect(await store.drop(name, nobody)).toBe(true);
    await expect(store.get(name)).rejects.toThrow(/ENOENT/);
    expect(await store.drop(name, nobody)).toBe(true);
  });

  it('gives back what somebody has recorded while it was on its way out', async () => {
    const name = await put(Buffer.from('met'));
    const answers = [false, true];
    expect(await store.drop(name, async () => answers.shift() as boolean)).toBe(false);
    expect(await store.get(name)).toEqual(Buffer.from('met'));
  });

  it('has a file again that went while it was recorded: whoever records it adopts it twice', async () => {
    const draft = await store.draft();
    await writeFile(draft, 'raced');
    const name = nameOf(Buffer.from('raced'));
    await store.adopt(draft, name);
    await store.drop(name, nobody);
    await store.adopt(draft, name);
    expect(await store.get(name)).toEqual(Buffer.from('raced'));
  });

  it('puts back what was on its way out when the server was ended', async () => {
    const name = await put(Buffer.from('half gone'));
    await rename(store.pathOf(name), join(dir, name.slice(0, 2), `.going-${name}-x`));
    await store.bringBack();
    expect(await store.get(name)).toEqual(Buffer.from('half gone'));
  });

  it('says so when a file is gone', async () => {
    await expect(store.get('0'.repeat(64))).rejects.toThrow(/ENOENT/);
  });
});
