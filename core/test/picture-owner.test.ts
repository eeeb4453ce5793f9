import sharp, { type Sharp } from 'sharp';
import { withoutOwner } from '../src/index.js';

const picture = () =>
  sharp(Buffer.from(Array.from({ length: 90_000 }, (_, i) => (i * 7919 + (i >> 7)) % 251)), {
    raw: { width: 200, height: 150, channels: 3 },
  });
const MARKS = {
  IFD0: { Artist: 'Sample Owner', Model: 'Camera of Sample Owner' },
  IFD2: { BodySerialNumber: '4711', CameraOwnerName: 'Sample Owner' },
  IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '53/1 30/1 0/1', GPSLongitudeRef: 'W', GPSLongitude: '9/1 0/1 0/1' },
};
const cleaned = (b: Buffer) => Buffer.from(withoutOwner(b));
const pixels = (b: Buffer) => sharp(b).raw().toBuffer();

describe('a picture without its owner', () => {
  it.each([
    ['baseline JPEG', (p: Sharp) => p.jpeg()],
    ['progressive JPEG', (p: Sharp) => p.jpeg({ progressive: true })],
    ['PNG', (p: Sharp) => p.png()],
  ])('%s has no place, name or number left, and the same pixels', async (_, as) => {
    const marked = await as(picture()).withExif(MARKS).toBuffer();
    expect(marked.includes('Sample Owner')).toBe(true);
    const clean = cleaned(marked);
    for (const word of ['Sample Owner', '4711', 'GPS']) expect(clean.includes(word)).toBe(false);
    expect((await sharp(clean).metadata()).exif).toBeUndefined();
    expect((await pixels(clean)).equals(await pixels(marked))).toBe(true);
  });

  // EXIF orientation (CIPA DC-008, tag 0x0112): eight ways to lie.
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('with orientation %i keeps it, as JPEG and as PNG', async (orientation) => {
    for (const as of [(p: Sharp) => p.jpeg(), (p: Sharp) => p.png()]) {
      const marked = await as(picture()).withExif(MARKS).withMetadata({ orientation }).toBuffer();
      const meta = await sharp(cleaned(marked)).metadata();
      expect(meta.orientation ?? 1).toBe((await sharp(marked).metadata()).orientation ?? 1);
    }
  });

  it('keeps its colour profile', async () => {
    const marked = await picture().jpeg().withIccProfile('p3').withExif(MARKS).toBuffer();
    const [before, after] = [await sharp(marked).metadata(), await sharp(cleaned(marked)).metadata()];
    expect(after.icc?.equals(before.icc as Buffer)).toBe(true);
  });

  it('loses what stands behind the picture: comments, and second pictures that cameras hide there', async () => {
    const marked = await picture().jpeg().toBuffer();
    const comment = Buffer.concat([
      marked.subarray(0, 2),
      Buffer.from([0xff, 0xfe, 0, 14]),
      Buffer.from('Sample Owner'),
      marked.subarray(2),
    ]);
    const behind = Buffer.concat([comment, await picture().jpeg().withExif(MARKS).toBuffer()]);
    const clean = cleaned(behind);
    expect(clean.includes('Sample Owner')).toBe(false);
    expect(clean.equals(cleaned(marked))).toBe(true);
    expect(cleaned(clean).equals(clean)).toBe(true);
  });

  it('gives other and broken bytes back as they are', async () => {
    const marked = await picture().jpeg().withExif(MARKS).toBuffer();
    const other = Buffer.from('solid of nothing');
    expect(withoutOwner(other)).toBe(other);
    for (const length of [2, 3, 10, 30])
      expect(Buffer.from(withoutOwner(marked.subarray(0, length))).length).toBeLessThanOrEqual(length + 2);
  });
});
