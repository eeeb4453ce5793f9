import * as THREE from 'three';

const SIZE = 128;

/**
 * Direction from the surface to a light in the eye's frame (x right, y up, z towards the eye), its strength and width.
 */
interface Lamp {
  readonly to: readonly [number, number, number];
  readonly strength: number;
  /** Exponent of its reflection: larger is a smaller, harder highlight. */
  readonly hardness: number;
  readonly shine: number;
}

/** Two soft boxes beside the lens, as for clinical photographs: their reflections draw the line angles. */
const LAMPS: readonly Lamp[] = [
  { to: [-0.62, 0.36, 0.7], strength: 0.4, hardness: 46, shine: 0.5 },
  { to: [0.66, 0.3, 0.69], strength: 0.27, hardness: 46, shine: 0.36 },
];
const AMBIENT = 0.13;

/**
 * What a surface under the studio's light looks like for each direction that it can face, as a picture: the scene then
 * costs one look-up a pixel, which a tablet or a machine without graphics hardware can bear.
 * @param gloss 0 dull to 1 wet
 */
export function studioLight(gloss: number): THREE.DataTexture {
  const data = new Uint8Array(4 * SIZE * SIZE);
  paint(data, LAMPS, gloss, AMBIENT);
  const texture = new THREE.DataTexture(data, SIZE, SIZE);
  texture.colorSpace = THREE.SRGBColorSpace;
  texture.minFilter = THREE.LinearFilter;
  texture.magFilter = THREE.LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

/** One hard lamp in a dim room: its reflection breaks where a surface turns, and so shows the line angles. */
const HAND_LAMP = { strength: 0.5, hardness: 90, shine: 0.85 } as const;
const DIM = 0.1;

/** A light that goes with the hand; one picture that is painted anew. */
export class HandLight {
  readonly texture = studioLight(1);

  constructor() {
    this.turn(-0.4, 0.3);
  }

  /** @param x from −1 at the left of the bench to 1 at its right, y from −1 below to 1 above */
  turn(x: number, y: number): void {
    const to = [1.15 * x, 1.15 * y, 0.75] as const;
    paint(this.texture.image.data as Uint8Array, [{ to, ...HAND_LAMP }], 1, DIM);
    this.texture.needsUpdate = true;
  }
}

function paint(data: Uint8Array, lamps: readonly Lamp[], gloss: number, ambient: number): void {
  const halves = lamps.map((l) => {
    const [x, y, z] = l.to;
    const n = Math.hypot(x, y, z);
    const h = Math.hypot(x / n, y / n, z / n + 1);
    return { lamp: l, to: [x / n, y / n, z / n] as const, half: [x / n / h, y / n / h, (z / n + 1) / h] as const };
  });
  for (let row = 0; row < SIZE; row++) {
    for (let col = 0; col < SIZE; col++) {
      let x = (2 * (col + 0.5)) / SIZE - 1;
      let y = (2 * (row + 0.5)) / SIZE - 1;
      const r = Math.hypot(x, y);
      if (r > 0.999) {
        x *= 0.999 / r;
        y *= 0.999 / r;
      }
      const z = Math.sqrt(Math.max(0, 1 - x * x - y * y));
      let diffuse = ambient + 0.1 * y;
      let shine = 0;
      for (const { lamp, to, half } of halves) {
        const facing = x * to[0] + y * to[1] + z * to[2];
        diffuse += lamp.strength * Math.max(0, (facing + 0.25) / 1.25);
        shine += gloss * lamp.shine * Math.max(0, x * half[0] + y * half[1] + z * half[2]) ** lamp.hardness;
      }
      const at = 4 * (row * SIZE + col);
      const value = Math.round(255 * Math.min(1, linearToSrgb(Math.max(0, diffuse) * (0.72 + 0.28 * z) + shine)));
      data.fill(value, at, at + 3);
      data[at + 3] = 255;
    }
  }
}

const linearToSrgb = (v: number) => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
