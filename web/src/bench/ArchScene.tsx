import type { Fdi } from '@radiant/core';
import { addAfterEffect, Canvas, type ThreeEvent, useThree } from '@react-three/fiber';
import { memo, useCallback, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { ArchView, DrawableMesh, PlannedView } from '../workers/contour.worker.js';
import { differenceColour } from './colour-scale.js';
import { drawnInSoftware } from './software.js';
import { studioLight } from './studio-light.js';

export type Showing = 'existing' | 'planned' | 'difference';
export type ViewName = 'front' | 'right' | 'left' | 'above';

interface Eye {
  readonly from: readonly [number, number, number];
  readonly to: readonly [number, number, number];
}

/** Where the eye stands and looks for each named view, in the mouth's coordinates (x to the patient's left, y backward, z up), mm. */
const EYES: Record<ViewName, Eye> = {
  front: { from: [0, -132, 4], to: [0, 6, 5] },
  right: { from: [-106, -78, 4], to: [-6, 12, 5] },
  left: { from: [106, -78, 4], to: [6, 12, 5] },
  above: { from: [0, -36, -141], to: [0, 12, 5] },
};
/** A chosen tooth leans towards plum. */
const SELECTED = '#e9d8de';
const SMOOTH = !drawnInSoftware();

/** The upper arch in three dimensions: the scan, the planned crowns, or what is added and removed. */
export const ArchScene = memo(function ArchScene({
  arch,
  planned,
  showing,
  gum,
  view,
  selected,
  onSelect,
}: {
  arch: ArchView;
  planned: ReadonlyMap<Fdi, PlannedView>;
  showing: Showing;
  gum: boolean;
  view: { readonly name: ViewName; readonly turn: number };
  selected: Fdi;
  onSelect: (tooth: Fdi) => void;
}) {
  return (
    <Canvas
      frameloop="demand"
      dpr={[1, 2]}
      camera={{ fov: 19, near: 10, far: 600, position: [...EYES.front.from], up: [0, 0, 1] }}
      gl={{ antialias: SMOOTH }}
      aria-label="Upper arch in three dimensions"
    >
      <color attach="background" args={['#7b7b7b']} />
      <Rig view={view} />
      <PaintMark of={planned} />
      {arch.teeth.map(({ tooth, mesh }) => {
        const own = planned.get(tooth);
        if (showing !== 'existing' && own)
          return <Surface key={`p${tooth}`} view={own} coloured={showing === 'difference'} selected={tooth === selected} onSelect={onSelect} />;
        return (
          <Tooth
            key={`e${tooth}`}
            tooth={tooth}
            mesh={mesh}
            muted={!planned.has(tooth)}
            selected={tooth === selected && showing === 'existing'}
            onSelect={onSelect}
          />
        );
      })}
      {gum && <Gum mesh={arch.gum} pale={showing === 'difference'} />}
    </Canvas>
  );
});

/** Orbit control. The light travels with the eye, as flashes beside a lens do. */
function Rig({ view }: { view: { readonly name: ViewName; readonly turn: number } }) {
  const { camera, gl, invalidate } = useThree();
  const controls = useRef<OrbitControls | undefined>(undefined);
  useEffect(() => {
    const c = new OrbitControls(camera, gl.domElement);
    c.target.set(...EYES.front.to);
    c.enableDamping = false;
    c.minDistance = 40;
    c.maxDistance = 320;
    c.addEventListener('change', () => invalidate());
    controls.current = c;
    return () => {
      c.dispose();
    };
  }, [camera, gl, invalidate]);
  useEffect(() => {
    camera.up.set(0, 0, 1);
    camera.position.set(...EYES[view.name].from);
    controls.current?.target.set(...EYES[view.name].to);
    controls.current?.update();
    invalidate();
  }, [view, camera, invalidate]);
  return null;
}

/** Leaves a mark in the browser's own timeline each time that new planned surfaces were drawn. */
function PaintMark({ of }: { of: unknown }) {
  const due = useRef<unknown>(undefined);
  useLayoutEffect(() => {
    due.current = of;
  }, [of]);
  useEffect(
    () =>
      addAfterEffect(() => {
        if (due.current === undefined) return;
        due.current = undefined;
        performance.clearMarks('contour-painted');
        performance.mark('contour-painted');
      }),
    [],
  );
  return null;
}

function useGeometry(mesh: DrawableMesh): THREE.BufferGeometry {
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

/** One picture of the light for each gloss, for as long as the page lives. */
const WET = studioLight(1);
const SOFT = studioLight(0.35);

/** Stable over renderings, so that an unchanged tooth is left alone. */
function usePress(tooth: Fdi, onSelect: (tooth: Fdi) => void) {
  return useCallback(
    (e: ThreeEvent<MouseEvent>) => {
      if (e.delta > 4) return;
      e.stopPropagation();
      onSelect(tooth);
    },
    [tooth, onSelect],
  );
}

const Tooth = memo(function Tooth({
  tooth,
  mesh,
  muted,
  selected,
  onSelect,
}: {
  tooth: Fdi;
  mesh: DrawableMesh;
  muted: boolean;
  selected: boolean;
  onSelect: (tooth: Fdi) => void;
}) {
  const geometry = useGeometry(mesh);
  const press = usePress(tooth, onSelect);
  return (
    <mesh geometry={geometry} onClick={press}>
      <meshMatcapMaterial matcap={WET} color={selected ? SELECTED : muted ? '#d8cdb6' : '#e9dfc9'} />
    </mesh>
  );
});

const Surface = memo(function Surface({
  view,
  coloured,
  selected,
  onSelect,
}: {
  view: PlannedView;
  coloured: boolean;
  selected: boolean;
  onSelect: (tooth: Fdi) => void;
}) {
  const geometry = useGeometry(view.mesh);
  const press = usePress(view.tooth, onSelect);
  useMemo(() => {
    if (!coloured) return;
    const colours = new Float32Array(3 * view.differenceMm.length);
    const colour = new THREE.Color();
    view.differenceMm.forEach((mm, i) => {
      const [r, g, b] = differenceColour(mm);
      colour.setRGB(r, g, b, THREE.SRGBColorSpace).toArray(colours, 3 * i);
    });
    geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
  }, [coloured, view, geometry]);
  return (
    <mesh geometry={geometry} onClick={press}>
      {coloured ? (
        <meshMatcapMaterial key="map" matcap={SOFT} vertexColors color="#ffffff" />
      ) : (
        <meshMatcapMaterial key="plain" matcap={WET} color={selected ? SELECTED : '#f8eed9'} />
      )}
    </mesh>
  );
});

const Gum = memo(function Gum({ mesh, pale }: { mesh: DrawableMesh; pale: boolean }) {
  const geometry = useGeometry(mesh);
  return (
    <mesh geometry={geometry}>
      <meshMatcapMaterial matcap={SOFT} color={pale ? '#c2aaa6' : '#cf8a85'} side={THREE.DoubleSide} />
    </mesh>
  );
});
