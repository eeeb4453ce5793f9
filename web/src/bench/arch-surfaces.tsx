import type { Fdi, Vec3 } from '@radiant/core';
import type { ThreeEvent } from '@react-three/fiber';
import { memo, useCallback, useEffect, useLayoutEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { DrawableMesh } from '../engine/drawable.js';
import { PALETTE } from '../ui/palette.js';
import { HandLight, studioLight } from './studio-light.js';

/** One picture of the light for each gloss, for as long as the page lives. */
const WET = studioLight(1);
const SOFT = studioLight(0.35);
/** The light that a hand moves. */
export const HAND = new HandLight();
/** A chosen tooth leans towards plum. */
const SELECTED = '#e9d8de';

/** What a hand does on a tooth. A vertex is the one of its surface nearest to the pointer. */
export interface ToothHand {
  press?(tooth: Fdi, at: Vec3): void;
  /** @returns whether the press begins a stroke, so that the view must stand still */
  down?(tooth: Fdi, vertex: number, e: ThreeEvent<PointerEvent>): boolean;
  move?(tooth: Fdi, vertex: number, e: ThreeEvent<PointerEvent>): void;
  out?(): void;
}

export function useGeometry(mesh: DrawableMesh): THREE.BufferGeometry {
  const geometry = useMemo(() => {
    const g = new THREE.BufferGeometry();
    g.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3));
    g.setAttribute('normal', new THREE.BufferAttribute(mesh.normals, 3));
    g.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
    return g;
  }, [mesh]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return geometry;
}

/** The corner of the hit triangle that lies nearest to the hit. */
function nearestVertex(e: ThreeEvent<MouseEvent>, mesh: DrawableMesh): number | undefined {
  if (!e.face) return undefined;
  const { x, y, z } = e.point;
  let best: number | undefined;
  let least = Infinity;
  for (const v of [e.face.a, e.face.b, e.face.c]) {
    const d = Math.hypot(
      (mesh.positions[3 * v] as number) - x,
      (mesh.positions[3 * v + 1] as number) - y,
      (mesh.positions[3 * v + 2] as number) - z,
    );
    if (d < least) {
      least = d;
      best = v;
    }
  }
  return best;
}

type Scale = (value: number) => readonly [number, number, number];

/** One tooth's surface, plain or coloured vertex by vertex. Unchanged teeth are left alone when another changes. */
export const ToothSurface = memo(function ToothSurface({
  tooth,
  mesh,
  colour,
  values,
  scale,
  rgb,
  opacity = 1,
  lit = false,
  hand,
}: {
  tooth: Fdi;
  mesh: DrawableMesh;
  colour: 'tooth' | 'muted' | 'planned' | 'selected' | 'across';
  /** One value a vertex, and how it is coloured. */
  values?: Float32Array | undefined;
  scale?: Scale | undefined;
  /** Or the colour of each vertex itself, sRGB 0 to 1, three a vertex. */
  rgb?: Float32Array | undefined;
  opacity?: number;
  /** Whether the hand's light falls on it; then no map is shown. */
  lit?: boolean;
  hand?: ToothHand | undefined;
}) {
  const geometry = useGeometry(mesh);
  const coloured = !lit && (rgb !== undefined || (values !== undefined && scale !== undefined));
  useLayoutEffect(() => {
    const n = rgb ? rgb.length / 3 : scale && values ? values.length : 0;
    if (n === 0) return;
    const colours = new Float32Array(3 * n);
    const colour = new THREE.Color();
    for (let i = 0; i < n; i++) {
      const [r, g, b] = rgb ? rgb.subarray(3 * i, 3 * i + 3) : (scale as Scale)((values as Float32Array)[i] as number);
      colour.setRGB(r as number, g as number, b as number, THREE.SRGBColorSpace).toArray(colours, 3 * i);
    }
    geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
  }, [values, scale, rgb, geometry]);
  const click = useCallback(
    (e: ThreeEvent<MouseEvent>) => {
      if (e.delta > 4) return;
      e.stopPropagation();
      hand?.press?.(tooth, [e.point.x, e.point.y, e.point.z]);
    },
    [tooth, hand],
  );
  const over = useCallback(
    (e: ThreeEvent<PointerEvent>) => {
      e.stopPropagation();
      const v = nearestVertex(e, mesh);
      if (v !== undefined) hand?.move?.(tooth, v, e);
    },
    [tooth, hand, mesh],
  );
  const down = useCallback(
    (e: ThreeEvent<PointerEvent>) => {
      const v = nearestVertex(e, mesh);
      // A finger that is held on a tooth is told what a pointer over it would be.
      if (v !== undefined && e.pointerType === 'touch') hand?.move?.(tooth, v, e);
      if (e.button === 0 && v !== undefined && hand?.down?.(tooth, v, e)) e.stopPropagation();
    },
    [tooth, hand, mesh],
  );
  return (
    <mesh
      geometry={geometry}
      renderOrder={opacity < 1 ? 1 : 0}
      onClick={click}
      {...(hand?.move && { onPointerMove: over, onPointerOut: hand.out })}
      {...((hand?.down || hand?.move) && { onPointerDown: down })}
    >
      {coloured ? (
        <meshMatcapMaterial key="map" matcap={SOFT} vertexColors color={PALETTE.white} />
      ) : (
        <meshMatcapMaterial
          key={lit ? 'lit' : opacity < 1 ? 'glass' : 'plain'}
          matcap={lit ? HAND.texture : WET}
          color={TINT[colour]}
          transparent={opacity < 1}
          opacity={opacity}
        />
      )}
    </mesh>
  );
});

const TINT = { tooth: '#e9dfc9', muted: '#d8cdb6', planned: '#f8eed9', selected: SELECTED, across: '#ddd3bd' } as const;

export const Gum = memo(function Gum({ mesh, pale }: { mesh: DrawableMesh; pale: boolean }) {
  const geometry = useGeometry(mesh);
  return (
    <mesh geometry={geometry}>
      <meshMatcapMaterial matcap={SOFT} color={pale ? '#c2aaa6' : '#cf8a85'} side={THREE.DoubleSide} />
    </mesh>
  );
});
