import { createHash } from 'node:crypto';
import type { FileKind, FileNature } from '@radiant/contract';
import { hasToothNumbers, meshFormat, readScan } from '@radiant/core';
import sharp from 'sharp';
import { ProblemException } from '../common/problem.filter.js';

/**
 * A picture of more pixels than this is refused before it is decoded: 100 megapixels are beyond any camera in a
 * surgery.
 */
export const MAX_PIXELS = 100_000_000;

/** What a file turned out to be. A scan whose teeth are told apart says itself which jaw it is of. */
export interface Inspected extends FileNature {
  readonly mime: string;
  /** Of the upright picture; null for scans. */
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
  if (kind !== 'photo') {
    const format = meshFormat(bytes);
    const about = { kind, mime: `model/${format.toLowerCase()}`, width: null, height: null };
    // Without tooth numbers it is kept as it came; its teeth are picked out in the browser.
    if (format === 'OBJ' || !hasToothNumbers(bytes)) return { ...about, jaw: null, role: 'original' };
    // Whether the teeth that a contour needs are there is asked where one is made.
    return { ...about, jaw: readScan(bytes, []).jaw, role: 'working' };
  }
  return inspectPhoto(bytes);
}

async function inspectPhoto(bytes: Buffer): Promise<Inspected> {
  // Only the header is read here; nothing is decoded before the size is known.
  const meta = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  if (!meta?.width || !meta.height || (meta.format !== 'jpeg' && meta.format !== 'png'))
    throw refuse('This is not a JPEG or PNG picture.');
  if (meta.width * meta.height > MAX_PIXELS) {
    throw refuse(
      `The picture has ${meta.width} × ${meta.height} pixels; at most ${MAX_PIXELS / 1e6} megapixels can be used.`,
    );
  }
  if (meta.width < 200 || meta.height < 200)
    throw refuse(
      `The picture has only ${meta.width} × ${meta.height} pixels; at least 200 × 200 are needed to measure on it.`,
    );
  await sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'truncated' })
    .resize(64)
    .raw()
    .toBuffer()
    .catch(() => {
      throw refuse('The picture is damaged and can’t be read to its end.');
    });
  // Orientations 5–8 lie on their side.
  const turned = (meta.orientation ?? 1) >= 5;
  return {
    kind: 'photo',
    jaw: null,
    role: null,
    mime: meta.format === 'jpeg' ? 'image/jpeg' : 'image/png',
    width: turned ? meta.height : meta.width,
    height: turned ? meta.width : meta.height,
  };
}
