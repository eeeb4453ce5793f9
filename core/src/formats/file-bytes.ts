import { Refusal } from '../errors.js';

/** Files that are often handed over in the place of a scan, by their first bytes. */
const FOREIGN: readonly { readonly at?: number; readonly first: readonly number[]; readonly is: string }[] = [
  { first: [0x50, 0x4b, 0x03, 0x04], is: 'a packed file (ZIP): unpack it first' },
  { first: [0x1f, 0x8b], is: 'a packed file (gzip): unpack it first' },
  { first: [0x37, 0x7a, 0xbc, 0xaf], is: 'a packed file (7z): unpack it first' },
  { first: [0x52, 0x61, 0x72, 0x21], is: 'a packed file (RAR): unpack it first' },
  { first: [0x42, 0x5a, 0x68], is: 'a packed file (bzip2): unpack it first' },
  { first: [0x25, 0x50, 0x44, 0x46], is: 'a PDF' },
  { first: [0x89, 0x50, 0x4e, 0x47], is: 'a picture (PNG)' },
  { first: [0xff, 0xd8, 0xff], is: 'a picture (JPEG)' },
  { first: [0x47, 0x49, 0x46, 0x38], is: 'a picture (GIF)' },
  { first: [0x67, 0x6c, 0x54, 0x46], is: 'a glTF file: let the scanner’s program write STL, PLY or OBJ' },
  { at: 128, first: [0x44, 0x49, 0x43, 0x4d], is: 'a DICOM file: volumes and X-rays are not read here' },
  { first: [0x3c, 0x3f, 0x78, 0x6d], is: 'an XML file: let the scanner’s program write STL, PLY or OBJ' },
  { first: [0x3c, 0x21], is: 'a web page, not the file behind its link' },
];

/** @throws Refusal `mesh-unknown` for what is surely another kind of file */
export function requireNoForeign(bytes: Uint8Array): void {
  const own = FOREIGN.find(({ at = 0, first }) => first.every((b, i) => bytes[at + i] === b));
  if (own) throw new Refusal('mesh-unknown', `This is ${own.is}. A scan is an STL, PLY or OBJ file.`);
}

/** The bytes without a byte-order mark; text in UTF-16 as UTF-8. */
export function plainBytes(bytes: Uint8Array): Uint8Array {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return bytes.subarray(3);
  const little = a === 0xff && b === 0xfe;
  if (!little && !(a === 0xfe && b === 0xff)) return bytes;
  return new TextEncoder().encode(new TextDecoder(little ? 'utf-16le' : 'utf-16be').decode(bytes.subarray(2)));
}

/** The words of a text one after the other, whatever stands between them; nothing at its end. */
export function wordsOf(text: string): () => string | undefined {
  let at = 0;
  return () => {
    while (at < text.length && text.charCodeAt(at) <= 32) at++;
    if (at >= text.length) return undefined;
    const from = at;
    while (at < text.length && text.charCodeAt(at) > 32) at++;
    return text.slice(from, at);
  };
}
