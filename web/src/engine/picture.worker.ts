import { type Px, snapToEdge } from '@radiant/core';
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

const service = {
  /** Decodes a picture ahead of the first click. */
  async ready(url: string): Promise<void> {
    await bitmapOf(url);
  },

  /** The strongest edge within `radius` px of a place of the upright picture, or nothing. */
  async snap(url: string, at: Px, radius: number): Promise<Px | undefined> {
    const bitmap = await bitmapOf(url);
    const margin = 8;
    const reach = Math.ceil(radius) + margin;
    const left = Math.max(0, Math.floor(at[0]) - reach);
    const top = Math.max(0, Math.floor(at[1]) - reach);
    const width = Math.min(bitmap.width, Math.ceil(at[0]) + reach) - left;
    const height = Math.min(bitmap.height, Math.ceil(at[1]) + reach) - top;
    if (width < 6 || height < 6) return undefined;
    canvas ??= new OffscreenCanvas(width, height);
    canvas.width = width;
    canvas.height = height;
    const context = canvas.getContext('2d', { willReadFrequently: true });
    if (!context) return undefined;
    context.drawImage(bitmap, left, top, width, height, 0, 0, width, height);
    const { data } = context.getImageData(0, 0, width, height);
    const light = new Float32Array(width * height);
    for (let i = 0; i < light.length; i++)
      light[i] =
        0.3 * (data[4 * i] as number) + 0.59 * (data[4 * i + 1] as number) + 0.11 * (data[4 * i + 2] as number);
    const found = snapToEdge({ width, height, light }, [at[0] - left, at[1] - top], radius);
    return found && [found[0] + left, found[1] + top];
  },
};

export type PictureService = typeof service;
expose(service);
