import {
  type BoxOutline,
  type FoundRuler,
  findRuler,
  outlineInBox,
  type Patch,
  type Px,
  snapToEdge,
  type ToothBox,
} from '@radiant/core';
import { expose } from 'comlink';

/** The picture that is looked at, decoded once. */
let held: { url: string; bitmap: Promise<ImageBitmap> } | undefined;
let canvas: OffscreenCanvas | undefined;

function bitmapOf(url: string): Promise<ImageBitmap> {
  if (held?.url !== url) {
    const bitmap = fetch(url)
      .then((r) => r.blob())
      .then((b) => createImageBitmap(b, { imageOrientation: 'from-image' }));
    held?.bitmap.then((b) => b.close()).catch(() => undefined);
    held = { url, bitmap };
    bitmap.catch(() => {
      held = undefined;
    });
  }
  return (held as { bitmap: Promise<ImageBitmap> }).bitmap;
}

/** A piece of the picture as brightness, with its corner; nothing where it hardly lies within the picture. */
async function patchOf(
  url: string,
  box: ToothBox,
  weights: Weights,
): Promise<{ patch: Patch; left: number; top: number } | undefined> {
  const bitmap = await bitmapOf(url);
  const left = Math.max(0, Math.floor(box.left));
  const top = Math.max(0, Math.floor(box.top));
  const width = Math.min(bitmap.width, Math.ceil(box.right)) - left;
  const height = Math.min(bitmap.height, Math.ceil(box.bottom)) - top;
  if (width < 6 || height < 6) return undefined;
  const patch = lightOf(bitmap, { left, top, width, height }, weights);
  return patch && { patch, left, top };
}

type Weights = readonly [number, number, number];
/** As bright as an eye sees it (ITU-R BT.601, standard, from memory). */
const GREY: Weights = [0.3, 0.59, 0.11];
/** A ruler is looked for in a picture of this width, px: its ticks are thin enough and wide enough then. */
const RULER_WIDTH = 1500;

/** Brightness of a piece of a picture, made smaller where it is asked for. */
function lightOf(
  bitmap: ImageBitmap,
  piece: { left: number; top: number; width: number; height: number },
  [red, green, blue]: Weights,
  shrink = 1,
): Patch | undefined {
  const [width, height] = [Math.round(piece.width * shrink), Math.round(piece.height * shrink)];
  canvas ??= new OffscreenCanvas(width, height);
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return undefined;
  context.drawImage(bitmap, piece.left, piece.top, piece.width, piece.height, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  const light = new Float32Array(width * height);
  for (let i = 0; i < light.length; i++)
    light[i] = red * (data[4 * i] as number) + green * (data[4 * i + 1] as number) + blue * (data[4 * i + 2] as number);
  return { width, height, light };
}

const service = {
  /** Decodes a picture ahead of the first click. */
  async ready(url: string): Promise<void> {
    await bitmapOf(url);
  },

  /** The strongest edge within `radius` px of a place of the upright picture, or nothing. */
  async snap(url: string, at: Px, radius: number): Promise<Px | undefined> {
    const reach = Math.ceil(radius) + 8;
    const piece = await patchOf(
      url,
      { left: at[0] - reach, top: at[1] - reach, right: at[0] + reach, bottom: at[1] + reach },
      GREY,
    );
    const found = piece && snapToEdge(piece.patch, [at[0] - piece.left, at[1] - piece.top], radius);
    return found && [found[0] + piece.left, found[1] + piece.top];
  },

  /** A ruler in the picture, px of the upright picture. */
  async ruler(url: string): Promise<FoundRuler | undefined> {
    const bitmap = await bitmapOf(url);
    const shrink = Math.min(1, RULER_WIDTH / bitmap.width);
    const patch = lightOf(bitmap, { left: 0, top: 0, width: bitmap.width, height: bitmap.height }, GREY, shrink);
    const found = patch && findRuler(patch);
    const back = ([x, y]: Px): Px => [x / shrink, y / shrink];
    return found && { ...found, from: back(found.from), to: back(found.to) };
  },

  /** A tooth's outline from a coarse box over it, px of the upright picture. */
  async outline(url: string, box: ToothBox): Promise<BoxOutline | undefined> {
    const around = 0.2 * Math.max(box.right - box.left, box.bottom - box.top);
    // Green tells teeth from gum and lips best: these are dark in it.
    const piece = await patchOf(
      url,
      { left: box.left - around, top: box.top - around, right: box.right + around, bottom: box.bottom + around },
      [0.1, 0.8, 0.1],
    );
    if (!piece) return undefined;
    const { patch, left, top } = piece;
    const found = outlineInBox(patch, {
      left: box.left - left,
      top: box.top - top,
      right: box.right - left,
      bottom: box.bottom - top,
    });
    const back = ([x, y]: Px): Px => [x + left, y + top];
    return { zenith: back(found.zenith), edge: back(found.edge), left: back(found.left), right: back(found.right) };
  },
};

export type PictureService = typeof service;
expose(service);
