import { CROWN_RING, CROWN_RINGS, type Vec3 } from '@radiant/core';
import { useFrame } from '@react-three/fiber';
import { type KeyboardEvent, type PointerEvent, type RefObject, useMemo, useRef, useState } from 'react';
import * as THREE from 'three';
import type { DrawableMesh } from '../engine/drawable.js';
import { number } from '../ui/format.js';

/** What a handle of a crown is pulled by: its edge, its distal side, its zenith. */
export type HandleId = 'edge' | 'distal' | 'zenith';
const HANDLE_IDS: readonly HandleId[] = ['edge', 'distal', 'zenith'];

/** Where a handle is on the screen, px, and how far it goes there while it moves one millimetre outward. */
interface OnScreen {
  readonly x: number;
  readonly y: number;
  readonly perMm: readonly [number, number];
  /** Whether it lies on the side that is seen. */
  readonly seen: boolean;
}
export type HandlePlaces = Map<HandleId, { element: HTMLElement | null; at: OnScreen | undefined }>;

/** Kept for every draw: where each handle's element stands. */
export const newHandlePlaces = (): HandlePlaces =>
  new Map(HANDLE_IDS.map((id) => [id, { element: null, at: undefined }]));

interface Anchor {
  readonly id: HandleId;
  readonly at: THREE.Vector3;
  readonly outward: THREE.Vector3;
}

const vertex = (mesh: DrawableMesh, ring: number, k: number): THREE.Vector3 => {
  const v = 3 * (ring * CROWN_RING + k);
  return new THREE.Vector3(...(mesh.positions.subarray(v, v + 3) as unknown as Vec3));
};

/** The places of a crown's face that are pulled, and which way is outward. */
function anchorsOf(mesh: DrawableMesh, distalIs: 'first' | 'last'): { anchors: Anchor[]; face: THREE.Vector3 } {
  const half = CROWN_RING / 2;
  const middle = half / 2;
  const [neck, edge] = [vertex(mesh, 0, middle), vertex(mesh, CROWN_RINGS - 1, middle)];
  const widest = Math.round(0.6 * (CROWN_RINGS - 1));
  const [first, last] = [vertex(mesh, widest, 0), vertex(mesh, widest, half)];
  const down = edge.clone().sub(neck).normalize();
  const [from, to] = distalIs === 'first' ? [last, first] : [first, last];
  const distally = to.clone().sub(from).normalize();
  const v = 3 * (widest * CROWN_RING + middle);
  return {
    anchors: [
      { id: 'edge', at: edge, outward: down },
      { id: 'distal', at: to, outward: distally },
      { id: 'zenith', at: neck, outward: down.clone().negate() },
    ],
    face: new THREE.Vector3(...(mesh.normals.subarray(v, v + 3) as unknown as Vec3)),
  };
}

/** In the canvas: carries the handles' elements to where the crown's face is drawn, at every draw. */
export function HandleCarrier({
  mesh,
  distalIs,
  places,
}: {
  mesh: DrawableMesh;
  /** Which end of a ring's facial half is the distal one. */
  distalIs: 'first' | 'last';
  places: RefObject<HandlePlaces>;
}) {
  const { anchors, face } = useMemo(() => anchorsOf(mesh, distalIs), [mesh, distalIs]);
  useFrame(({ camera, size }) => {
    const onScreen = (p: THREE.Vector3): readonly [number, number] => {
      const q = p.clone().project(camera);
      return [((q.x + 1) / 2) * size.width, ((1 - q.y) / 2) * size.height];
    };
    for (const { id, at, outward } of anchors) {
      const place = places.current.get(id);
      if (!place) continue;
      const [x, y] = onScreen(at);
      const [x1, y1] = onScreen(at.clone().add(outward));
      const seen = face.dot(camera.position.clone().sub(at)) > 0;
      place.at = { x, y, perMm: [x1 - x, y1 - y], seen };
      if (!place.element) continue;
      place.element.style.transform = `translate(${x}px, ${y}px)`;
      place.element.style.visibility = seen ? 'visible' : 'hidden';
    }
  });
  return null;
}

const STEP_MM = 0.05;
const stepped = (mm: number) => Math.round(mm / STEP_MM) * STEP_MM;

/**
 * Over the canvas: a handle of the chosen crown, dragged, or moved by arrow keys, one step a key and ten with Shift;
 * while it moves its figure stands beside it.
 */
export function CrownHandle({
  id,
  label,
  value,
  limits,
  places,
  onSlide,
  onDone,
}: {
  id: HandleId;
  label: string;
  /** mm; it grows while the handle goes outward. */
  value: number;
  limits: { readonly min: number; readonly max: number };
  places: RefObject<HandlePlaces>;
  onSlide: (mm: number) => void;
  onDone: () => void;
}) {
  const grabbed = useRef<{ x: number; y: number; value: number; perMm: readonly [number, number] } | undefined>(
    undefined,
  );
  const [moving, setMoving] = useState(false);
  const slide = (mm: number) => {
    const next = Math.min(limits.max, Math.max(limits.min, Math.round(100 * stepped(mm)) / 100));
    if (next !== value) onSlide(next);
  };
  const end = () => {
    if (!grabbed.current) return;
    grabbed.current = undefined;
    setMoving(false);
    onDone();
  };
  const move = (e: PointerEvent) => {
    const g = grabbed.current;
    if (!g) return;
    const [dx, dy] = g.perMm;
    const square = dx * dx + dy * dy;
    if (square < 1) return;
    slide(g.value + ((e.clientX - g.x) * dx + (e.clientY - g.y) * dy) / square);
  };
  const key = (e: KeyboardEvent) => {
    const d = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[e.key];
    if (!d) return;
    e.preventDefault();
    e.stopPropagation();
    slide(value + d * STEP_MM * (e.shiftKey ? 10 : 1));
  };
  return (
    <div
      ref={(element) => {
        const place = places.current.get(id);
        if (place) place.element = element;
      }}
      className="absolute top-0 left-0"
    >
      <div
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={limits.min}
        aria-valuemax={limits.max}
        aria-valuenow={value}
        aria-valuetext={`${number(value, 2)} mm`}
        title={label}
        className="max-[479px]:hidden group absolute -top-[13px] -left-[13px] grid h-[26px] w-[26px] cursor-grab touch-none place-items-center rounded-full outline-none active:cursor-grabbing"
        onPointerDown={(e) => {
          const at = places.current.get(id)?.at;
          if (!at) return;
          e.stopPropagation();
          e.currentTarget.setPointerCapture(e.pointerId);
          grabbed.current = { x: e.clientX, y: e.clientY, value, perMm: at.perMm };
          setMoving(true);
        }}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={end}
        onKeyDown={key}
        onKeyUp={(e) => e.key.startsWith('Arrow') && onDone()}
      >
        <span className="h-[11px] w-[11px] rounded-full border-2 border-plum bg-white shadow group-hover:scale-125 group-focus-visible:ring-2 group-focus-visible:ring-plum group-focus-visible:ring-offset-1" />
      </div>
      {moving && (
        <output className="pointer-events-none absolute -top-8 left-3.5 whitespace-nowrap rounded bg-ink/85 px-1.5 py-0.5 text-note font-semibold text-white">
          {number(value, 2)} mm
        </output>
      )}
    </div>
  );
}
