/** The kinds of picture that are taken in, each with what people call it and what its files end in. */
export const PICTURE_KINDS = {
  'image/jpeg': { name: 'JPEG', ends: ['.jpg', '.jpeg'] },
  'image/png': { name: 'PNG', ends: ['.png'] },
  'image/webp': { name: 'WebP', ends: ['.webp'] },
  'image/tiff': { name: 'TIFF', ends: ['.tif', '.tiff'] },
  'image/heic': { name: 'HEIC', ends: ['.heic', '.heif'] },
} as const;
export type PictureKind = keyof typeof PICTURE_KINDS;

/** `JPEG, PNG, WebP, TIFF or HEIC`. */
export const PICTURE_NAMES = Object.values(PICTURE_KINDS)
  .map((k) => k.name)
  .join(', ')
  .replace(/, ([^,]+)$/, ' or $1');

/** What a file field accepts. Systems that do not know the newer kinds go by the name’s end. */
export const PICTURE_ACCEPT = Object.entries(PICTURE_KINDS)
  .flatMap(([mime, { ends }]) => [mime, ...ends])
  .join(',');

const text = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));

/** Brands of an ISO base media file that hold HEVC pictures (ISO/IEC 23008-12 annex B), and the general one. */
const HEIC_BRANDS = ['heic', 'heix', 'hevc', 'hevx', 'mif1', 'msf1'];

/** What picture a file holds, by its first 16 bytes; nothing where it is none that can be taken in. */
export function pictureKind(bytes: Uint8Array): PictureKind | undefined {
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'image/jpeg';
  if (bytes[0] === 0x89 && text(bytes, 1, 4) === 'PNG') return 'image/png';
  if (text(bytes, 0, 4) === 'RIFF' && text(bytes, 8, 12) === 'WEBP') return 'image/webp';
  const tiff = text(bytes, 0, 4);
  if (tiff === 'II*\0' || tiff === 'MM\0*') return 'image/tiff';
  if (text(bytes, 4, 8) === 'ftyp' && HEIC_BRANDS.includes(text(bytes, 8, 12))) return 'image/heic';
  return undefined;
}
