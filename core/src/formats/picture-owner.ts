/**
 * Takes out of a JPEG or PNG what says where, when and by whom it was taken, and leaves the picture itself byte for
 * byte: places, names, serial numbers, comments, and the small pictures that cameras hide beside the large one. What is
 * kept of the camera's notes is which way up the picture is; colour profiles stay. Other bytes are given back as they
 * are.
 *
 * JPEG: ISO/IEC 10918-1 annex B (markers), CIPA DC-008 (EXIF). PNG: ISO/IEC 15948 (chunks), its 2023 extension for
 * `eXIf`.
 */
export function withoutOwner(bytes: Uint8Array): Uint8Array {
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return ofJpeg(bytes);
  if (PNG.every((b, i) => bytes[i] === b)) return ofPng(bytes);
  return bytes;
}

const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
const COMMENT = 0xfe;
const isApp = (m: number) => m >= 0xe0 && m <= 0xef;
/** Markers that stand alone: restarts and TEM. */
const isAlone = (m: number) => m === 0x01 || (m >= 0xd0 && m <= 0xd7);

function begins(bytes: Uint8Array, at: number, text: string): boolean {
  for (let i = 0; i < text.length; i++) if (bytes[at + i] !== text.charCodeAt(i)) return false;
  return true;
}

function ofJpeg(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [];
  let orientation = 1;
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return bytes;
    const marker = bytes[at + 1];
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === EOI) break;
    if (isAlone(marker)) {
      kept.push(bytes.subarray(at, at + 2));
      at += 2;
      continue;
    }
    const end = at + 2 + view.getUint16(at + 2);
    if (end > bytes.length) return bytes;
    const body = at + 4;
    if (marker === 0xe1 && begins(bytes, body, 'Exif\0\0'))
      orientation = orientationOf(bytes.subarray(body + 6, end)) ?? orientation;
    const keeps =
      !(isApp(marker) || marker === COMMENT) ||
      (marker === 0xe0 && begins(bytes, body, 'JFIF\0')) ||
      (marker === 0xe2 && begins(bytes, body, 'ICC_PROFILE\0')) ||
      (marker === 0xee && begins(bytes, body, 'Adobe'));
    if (keeps) kept.push(bytes.subarray(at, end));
    at = end;
    if (marker === SOS) {
      const next = endOfScan(bytes, at);
      kept.push(bytes.subarray(at, next));
      at = next;
    }
  }
  const first = kept[0];
  const jfif = first !== undefined && first[1] === 0xe0;
  return joined([
    Uint8Array.of(0xff, SOI),
    ...(jfif ? [first] : []),
    ...exifSegment(orientation),
    ...kept.slice(jfif ? 1 : 0),
    Uint8Array.of(0xff, EOI),
  ]);
}

/** Where compressed data ends: at the next marker that is no stuffing and no restart. */
function endOfScan(bytes: Uint8Array, from: number): number {
  for (let at = bytes.indexOf(0xff, from); at >= 0 && at + 1 < bytes.length; at = bytes.indexOf(0xff, at + 1)) {
    const marker = bytes[at + 1];
    if (marker !== 0 && marker !== 0xff && !isAlone(marker)) return at;
  }
  return bytes.length;
}

/** The orientation, 1–8, that the first directory of a TIFF structure holds. */
function orientationOf(tiff: Uint8Array): number | undefined {
  if (tiff.length < 14) return undefined;
  const little = tiff[0] === 0x49;
  const view = new DataView(tiff.buffer, tiff.byteOffset, tiff.byteLength);
  const directory = view.getUint32(4, little);
  if (directory + 2 > tiff.length) return undefined;
  const entries = view.getUint16(directory, little);
  for (let i = 0; i < entries; i++) {
    const at = directory + 2 + 12 * i;
    if (at + 12 > tiff.length) return undefined;
    if (view.getUint16(at, little) !== ORIENTATION) continue;
    const value = view.getUint16(at + 8, little);
    return value >= 1 && value <= 8 ? value : undefined;
  }
  return undefined;
}

const ORIENTATION = 0x0112;

/** The least TIFF structure that holds an orientation: one directory with one entry. */
function orientationTiff(orientation: number): Uint8Array {
  return Uint8Array.of(
    0x4d,
    0x4d,
    0,
    42,
    0,
    0,
    0,
    8,
    0,
    1,
    0x01,
    0x12,
    0,
    3,
    0,
    0,
    0,
    1,
    0,
    orientation,
    0,
    0,
    0,
    0,
    0,
    0,
  );
}

function exifSegment(orientation: number): Uint8Array[] {
  if (orientation === 1) return [];
  const tiff = orientationTiff(orientation);
  const length = 8 + tiff.length;
  return [Uint8Array.of(0xff, 0xe1, length >> 8, length & 255, 0x45, 0x78, 0x69, 0x66, 0, 0), tiff];
}

/** Chunks that are words about the picture, not the picture. */
const PNG_WORDS = ['tEXt', 'zTXt', 'iTXt', 'eXIf', 'tIME'];

function ofPng(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  let orientation = 1;
  for (let at = 8; at + 12 <= bytes.length; ) {
    const end = at + 12 + view.getUint32(at);
    if (end > bytes.length) return bytes;
    if (begins(bytes, at + 4, 'eXIf')) orientation = orientationOf(bytes.subarray(at + 8, end - 4)) ?? orientation;
    if (!PNG_WORDS.some((w) => begins(bytes, at + 4, w))) kept.push(bytes.subarray(at, end));
    // Nothing after the end is the picture.
    if (begins(bytes, at + 4, 'IEND')) break;
    at = end;
  }
  // Behind the header, which is always the first chunk.
  if (orientation !== 1) kept.splice(2, 0, pngChunk('eXIf', orientationTiff(orientation)));
  return joined(kept);
}

function pngChunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let i = 0; i < 4; i++) out[4 + i] = type.charCodeAt(i);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc32(out.subarray(4, 8 + data.length)));
  return out;
}

/** CRC-32 over a chunk's type and data (ISO/IEC 15948, annex D). */
function crc32(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) {
    c ^= b;
    for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
  }
  return (c ^ 0xffffffff) >>> 0;
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}
