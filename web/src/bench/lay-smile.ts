import type { Fdi, LaidSmile, LaidTooth } from '@radiant/core';
import { lipCurve, type Px } from '@radiant/core';
import * as THREE from 'three';
import { PALETTE } from '../ui/palette.js';
import { BANDS, type Bands, bandsOf, between, medianOf, modelOf, type Rgb, tinted } from './smile-colour.js';

/** The lips' borders as marked, corners first and last; none where lips are held away. */
export interface LipLines {
  readonly corners: readonly [Px, Px];
  readonly upper: readonly Px[];
  readonly lower: readonly Px[];
}

/**
 * Lays the planned teeth over a photograph: each takes its colour, band by band from edge to neck, from the tooth that
 * is there, and is cut off where the lips are.
 * @param tints of teeth whose colour is predicted: what their own is multiplied by
 * @returns a canvas of the picture's size
 */
export function laySmile(
  photo: CanvasImageSource,
  size: Px,
  laid: LaidSmile,
  lips: LipLines | undefined,
  tints: ReadonlyMap<Fdi, readonly Rgb[]> = NO_TINTS,
): HTMLCanvasElement {
  const [w, h] = size;
  const canvas = document.createElement('canvas');
  canvas.width = w;
  canvas.height = h;
  const ctx = canvas.getContext('2d', { willReadFrequently: true }) as CanvasRenderingContext2D;
  ctx.drawImage(photo, 0, 0, w, h);
  const pixels = ctx.getImageData(0, 0, w, h);
  const own = new Map(laid.existing.map((t) => [t.tooth, bandsOf(t, pixels)] as const));
  const all = [...own.values()].filter((b) => b !== undefined);
  const usual: Bands = Array.from(
    { length: BANDS },
    (_, i) => medianOf(all.map((b) => b[i] as Rgb)) ?? [225, 212, 190],
  );
  const teeth = rendered(laid, size, (t) => {
    const tint = tints.get(t.tooth);
    // What is predicted is predicted of the tooth itself, and changes the colour that it has in the photograph.
    if (tint) return tinted(own.get(t.tooth) ?? usual, tint);
    return own.get(modelOf(t.tooth, laid)) ?? own.get(t.tooth) ?? usual;
  });
  if (lips) {
    const mask = document.createElement('canvas');
    mask.width = w;
    mask.height = h;
    const m = mask.getContext('2d') as CanvasRenderingContext2D;
    m.filter = `blur(${Math.max(0.8, w / 1200)}px)`;
    m.fill(openingOf(lips));
    const t = teeth.getContext('2d') as CanvasRenderingContext2D;
    t.globalCompositeOperation = 'destination-in';
    t.drawImage(mask, 0, 0);
  }
  ctx.drawImage(teeth, 0, 0);
  stamp(ctx, size);
  return canvas;
}

const NO_TINTS: ReadonlyMap<Fdi, readonly Rgb[]> = new Map();

/** The words that go with the picture wherever it is sent. */
export const STAMP = 'planned · simulation, not a promise';

function stamp(ctx: CanvasRenderingContext2D, [w, h]: Px): void {
  const size = Math.max(12, h * 0.026);
  ctx.font = `500 ${size}px "Source Sans 3 Variable", sans-serif`;
  const width = ctx.measureText(STAMP).width + size * 1.2;
  ctx.fillStyle = 'rgb(29 36 40 / 0.72)';
  ctx.beginPath();
  ctx.roundRect(w - width - size * 0.6, h - size * 2.2, width, size * 1.6, size * 0.3);
  ctx.fill();
  ctx.fillStyle = PALETTE.white;
  ctx.fillText(STAMP, w - width, h - size * 1.1);
}

/** The opening between the lips. */
function openingOf({ corners, upper, lower }: LipLines): Path2D {
  const path = new Path2D();
  const [a, b] = corners;
  const [top, bottom] = [lipCurve(corners, upper), lipCurve(corners, lower)];
  path.moveTo(a[0], a[1]);
  const steps = 80;
  for (let i = 1; i <= steps; i++)
    path.lineTo(a[0] + ((b[0] - a[0]) * i) / steps, top(a[0] + ((b[0] - a[0]) * i) / steps));
  for (let i = steps; i >= 0; i--)
    path.lineTo(a[0] + ((b[0] - a[0]) * i) / steps, bottom(a[0] + ((b[0] - a[0]) * i) / steps));
  path.closePath();
  return path;
}

/** How strongly a lit surface gleams, of 255. */
const SHINE = 46;

/** The teeth alone, on nothing. */
function rendered(
  { planned: teeth, existing, hiding }: LaidSmile,
  [w, h]: Px,
  colourOf: (t: LaidTooth) => Bands,
): HTMLCanvasElement {
  const renderer = new THREE.WebGLRenderer({ alpha: true, antialias: true, preserveDrawingBuffer: true });
  renderer.setPixelRatio(1);
  renderer.setSize(w, h, false);
  renderer.outputColorSpace = THREE.LinearSRGBColorSpace;
  const scene = new THREE.Scene();
  // Picture px with y down; depth in mm behind the marks.
  const camera = new THREE.OrthographicCamera(0, w, 0, -h, -200, 200);
  const material = new THREE.MeshBasicMaterial({ vertexColors: true, side: THREE.DoubleSide });
  // What hides the teeth leaves its depth and no colour: there the photograph stays.
  const unseen = new THREE.MeshBasicMaterial({ colorWrite: false, side: THREE.DoubleSide });
  for (const o of hiding) {
    const mesh = new THREE.Mesh(new THREE.BufferGeometry(), unseen);
    mesh.geometry.setAttribute('position', new THREE.BufferAttribute(inScene(o.places, BEHIND_MM), 3));
    mesh.geometry.setIndex(new THREE.BufferAttribute(o.triangles, 1));
    mesh.renderOrder = -1;
    scene.add(mesh);
  }
  // Where a planned crown is smaller than its tooth, the tooth must go: what is behind it is taken to lie in the shade.
  const shade = new THREE.MeshBasicMaterial({
    color: new THREE.Color(...SHADE),
    depthWrite: false,
    side: THREE.DoubleSide,
  });
  for (const t of existing.filter((e) => teeth.some((p) => p.tooth === e.tooth))) {
    const mesh = new THREE.Mesh(new THREE.BufferGeometry(), shade);
    mesh.geometry.setAttribute('position', new THREE.BufferAttribute(inScene(t.places, 0), 3));
    mesh.geometry.setIndex(new THREE.BufferAttribute(t.triangles, 1));
    scene.add(mesh);
  }
  for (const t of teeth) {
    const n = t.light.length;
    const colours = new Float32Array(3 * n);
    const bands = colourOf(t);
    for (let v = 0; v < n; v++) {
      const c = between(bands, t.height[v] as number);
      for (let k = 0; k < 3; k++)
        colours[3 * v + k] =
          Math.min(255, (c[k as 0] as number) * (t.light[v] as number) + SHINE * (t.shine[v] as number)) / 255;
    }
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(inScene(t.places, 0), 3));
    geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
    geometry.setIndex(new THREE.BufferAttribute(t.triangles, 1));
    const mesh = new THREE.Mesh(geometry, material);
    mesh.renderOrder = 1;
    scene.add(mesh);
  }
  renderer.render(scene, camera);
  const out = document.createElement('canvas');
  out.width = w;
  out.height = h;
  (out.getContext('2d') as CanvasRenderingContext2D).drawImage(renderer.domElement, 0, 0);
  for (const m of scene.children) (m as THREE.Mesh).geometry.dispose();
  material.dispose();
  unseen.dispose();
  shade.dispose();
  renderer.dispose();
  renderer.forceContextLoss();
  return out;
}

/** The mouth behind the teeth, 0–1. */
const SHADE = [0.2, 0.11, 0.1] as const;
/** The gum's margin may lie this much over a crown that is flush with it, mm. */
const BEHIND_MM = 0.25;

/** Picture px and depth as the scene has them: y up, towards the eye positive. */
function inScene(places: Float32Array, behindMm: number): Float32Array {
  const out = new Float32Array(places.length);
  for (let i = 0; i < places.length; i += 3) {
    out[i] = places[i] as number;
    out[i + 1] = -(places[i + 1] as number);
    out[i + 2] = -(places[i + 2] as number) - behindMm;
  }
  return out;
}
