/// <reference path="../heic-decode.d.ts" />
import decode from 'heic-decode';
import sharp from 'sharp';

/** Nothing of a picture is lost to the eye; it is made once and read often. */
const QUALITY = 97;
/** What fits into one marker of a JPEG beside the words before it, bytes. */
const PIECE = 65_519;

/** Width and height of an HEIC picture as it is shown; nothing where its boxes can't be read. Nothing is decoded. */
export async function heicSize(bytes: Uint8Array): Promise<{ width: number; height: number } | undefined> {
  try {
    const all = await decode.all({ buffer: bytes });
    const [first] = all;
    const size = first && { width: first.width, height: first.height };
    all.dispose();
    return size;
  } catch {
    return undefined;
  }
}

/**
 * An HEIC picture as a JPEG in the same colours. Turning that the file asks for is done already.
 * @throws Error where it can't be decoded
 */
export async function decodedHeic(bytes: Uint8Array): Promise<Buffer> {
  const { width, height, data } = await decode({ buffer: bytes });
  const jpeg = await sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels: 4 },
  })
    .removeAlpha()
    .jpeg({ quality: QUALITY, chromaSubsampling: '4:4:4' })
    .toBuffer();
  const profile = profileIn(bytes);
  return profile ? withProfile(jpeg, profile) : jpeg;
}

/**
 * The colour profile that the file carries: the `colr` box of type `prof` (ISO/IEC 14496-12, 12.1.5). Without it teeth
 * of a camera with wider primaries would be shown duller than they are.
 */
function profileIn(bytes: Uint8Array): Uint8Array | undefined {
  const file = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const at = file.indexOf('colrprof', 0, 'latin1');
  if (at < 4) return undefined;
  const length = file.readUInt32BE(at - 4) - 12;
  const profile = file.subarray(at + 8, at + 8 + length);
  // An ICC profile begins with its own length and says `acsp` at byte 36 (ICC.1).
  const isOne = profile.length === length && length > 128 && profile.toString('latin1', 36, 40) === 'acsp';
  return isOne ? profile : undefined;
}

/** A JPEG with a profile in its head, in as many pieces as it takes (ICC.1 annex B.4). */
function withProfile(jpeg: Buffer, profile: Uint8Array): Buffer {
  const pieces = Math.ceil(profile.length / PIECE);
  const markers: Buffer[] = [];
  for (let i = 0; i < pieces; i++) {
    const part = profile.subarray(i * PIECE, (i + 1) * PIECE);
    const head = Buffer.alloc(18);
    head.writeUInt16BE(0xffe2, 0);
    head.writeUInt16BE(part.length + 16, 2);
    head.write('ICC_PROFILE\0', 4, 'latin1');
    head[16] = i + 1;
    head[17] = pieces;
    markers.push(head, Buffer.from(part));
  }
  return Buffer.concat([jpeg.subarray(0, 2), ...markers, jpeg.subarray(2)]);
}
