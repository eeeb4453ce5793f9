import { createHash } from 'node:crypto';
import { type FileKind, type FileNature, PICTURE_NAMES, pictureKind } from '@radiant/contract';
import { hasToothNumbers, meshFormat, readingsOfRows, readScan, requireMesh } from '@radiant/core';
import Papa from 'papaparse';
import sharp from 'sharp';
import { ProblemException } from '../common/problem.filter.js';
import { decodedHeic, heicSize } from './heic.js';

/**
 * A picture of more pixels than this is refused before it is decoded: 100 megapixels are beyond any camera in a
 * surgery.
 */
export const MAX_PIXELS = 100_000_000;

/** What a file turned out to be. A scan whose teeth are told apart says itself which jaw it is of. */
export interface Inspected extends FileNature {
  readonly mime: string;
  /** Of the upright picture; null for all others. */
  readonly width: number | null;
  readonly height: number | null;
}

/** A file that was looked at. */
export interface Seen extends Inspected {
  readonly sha256: string;
  readonly bytes: number;
}

/** The name that bytes are kept under. */
export const nameOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

const refuse = (sentence: string) => new ProblemException(422, 'Not accepted', sentence);

/**
 * Looks whether a file is what it is said to be and can be used.
 * @throws ProblemException 422 with one sentence; Refusal for scans
 */
export async function inspectFile(kind: FileKind, bytes: Buffer): Promise<Inspected> {
  if (bytes.length === 0) throw refuse('The file is empty.');
  if (kind === 'colours') return inspectColours(bytes);
  if (kind === 'scan') {
    const format = meshFormat(bytes);
    const about = { kind, mime: `model/${format.toLowerCase()}`, width: null, height: null };
    // Without tooth numbers it is kept as it came; its teeth are picked out in the browser.
    if (format === 'OBJ' || !hasToothNumbers(bytes)) {
      // What a browser could not open is not kept either.
      requireMesh(bytes);
      return { ...about, jaw: null, role: 'original' };
    }
    // Whether the teeth that a contour needs are there is asked where one is made.
    return { ...about, jaw: readScan(bytes, []).jaw, role: 'working' };
  }
  return inspectPhoto(bytes);
}

/** A table of more bytes than this is none of readings: a mouth's are a few kilobytes. House limit. */
const MAX_TABLE_BYTES = 2_000_000;

/** Whether a table of readings can be read to its end. @throws Refusal `colour-table` */
function inspectColours(bytes: Buffer): Inspected {
  if (bytes.length > MAX_TABLE_BYTES) throw refuse('The table is larger than 2 MB; readings of a mouth are far less.');
  const { data } = Papa.parse<string[]>(bytes.toString('utf8').replace(/^\ufeff/, ''), { skipEmptyLines: true });
  readingsOfRows(data);
  return { kind: 'colours', jaw: null, role: null, mime: 'text/csv', width: null, height: null };
}

async function inspectPhoto(bytes: Buffer): Promise<Inspected> {
  const mime = pictureKind(bytes);
  if (!mime) throw refuse(`This is no picture in ${PICTURE_NAMES}; save it as one of these and add it again.`);
  // Only the header is read here; nothing is decoded before the size is known.
  const size = mime === 'image/heic' ? await heicSize(bytes) : await uprightSize(bytes);
  if (!size) throw damaged();
  const { width, height } = size;
  if (width * height > MAX_PIXELS)
    throw refuse(`The picture has ${width} × ${height} pixels; at most ${MAX_PIXELS / 1e6} megapixels can be used.`);
  if (width < 200 || height < 200)
    throw refuse(`The picture has only ${width} × ${height} pixels; at least 200 × 200 are needed to measure on it.`);
  const whole =
    mime === 'image/heic'
      ? decodedHeic(bytes)
      : sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'truncated' }).resize(64).raw().toBuffer();
  await whole.catch(() => {
    throw damaged();
  });
  return { kind: 'photo', jaw: null, role: null, mime, width, height };
}

const damaged = () => refuse('The picture is damaged and can’t be read to its end.');

/** Of the picture as its camera’s note puts it; nothing where the header can't be read. */
async function uprightSize(bytes: Buffer): Promise<{ width: number; height: number } | undefined> {
  const meta = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  if (!meta?.width || !meta.height) return undefined;
  // Orientations 5–8 lie on their side.
  return (meta.orientation ?? 1) >= 5
    ? { width: meta.height, height: meta.width }
    : { width: meta.width, height: meta.height };
}
