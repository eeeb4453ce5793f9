import type { Fdi } from '@radiant/core';
import { Canvas, type ThreeEvent, useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { ArchView, DrawableMesh, PlannedView } from '../workers/contour.worker.js';
import { differenceColour } from './colour-scale.js';

export type Showing = 'existing' | 'planned' | 'difference';
export type ViewName = 'front' | 'right' | 'left' | 'above';

/** Where the eye stands for each named view, in the mouth's coordinates (x to the patient's left, y backward, z up), mm. */
const EYES: Record<ViewName, readonly [number, number, number]> = {
  front: [0, -132, 4],
  right: [-100, -84, 4],
  left: [100, -84, 4],
  above: [0, -42, -140],
};
const TARGET = new THREE.Vector3(0, 6, 5);

/** The upper arch in three dimensions: the scan, the planned crowns, or what is added and removed. */
export function ArchScene({
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
      camera={{ fov: 19, near: 10, far: 600, position: [...EYES.front], up: [0, 0, 1] }}
      gl={{ antialias: true }}
      aria-label="Upper arch in three dimensions"
    >
      <color attach="background" args={['#7b7b7b']} />
      <Rig view={view} />
      {arch.teeth.map(({ tooth, mesh }) => {
        const own = planned.get(tooth);
        if (showing !== 'existing' && own)
          return <Surface key={`p${tooth}`} view={own} coloured={showing === 'difference'} selected={tooth === selected} onSelect={() => onSelect(tooth)} />;
        return (
          <Tooth
            key={`e${tooth}`}
            mesh={mesh}
            muted={!planned.has(tooth)}
            selected={tooth === selected && showing === 'existing'}
            onSelect={() => onSelect(tooth)}
          />
        );
      })}
      {gum && <Gum mesh={arch.gum} pale={showing === 'difference'} />}
    </Canvas>
  );
}

/** Orbit control and lights that travel with the eye, as flashes beside a lens do. */
function Rig({ view }: { view: { readonly name: ViewName; readonly turn: number } }) {
  const { camera, gl, invalidate, scene } = useThree();
  const controls = useRef<OrbitControls | undefined>(undefined);
  useEffect(() => {
    const c = new OrbitControls(camera, gl.domElement);
    c.target.copy(TARGET);
    c.enableDamping = false;
    c.minDistance = 40;
    c.maxDistance = 320;
    c.addEventListener('change', () => invalidate());
    controls.current = c;
    const lights = new THREE.Group();
    const key = new THREE.DirectionalLight('#fffaf2', 1.5);
    key.position.set(-60, 70, 120);
    const fill = new THREE.DirectionalLight('#f2f6ff', 1.1);
    fill.position.set(80, 30, 110);
    const rim = new THREE.DirectionalLight('#ffffff', 0.5);
    rim.position.set(0, -90, 60);
    for (const l of [key, fill, rim]) {
      lights.add(l, l.target);
    }
    camera.add(lights);
    const sky = new THREE.HemisphereLight('#ffffff', '#b09a94', 0.95);
    scene.add(camera, sky);
    return () => {
      c.dispose();
      camera.remove(lights);
      scene.remove(camera, sky);
    };
  }, [camera, gl, invalidate, scene]);
  useEffect(() => {
    camera.up.set(0, 0, 1);
    camera.position.set(...EYES[view.name]);
    controls.current?.target.copy(TARGET);
    controls.current?.update();
    invalidate();
  }, [view, camera, invalidate]);
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

const press = (act: () => void) => (e: ThreeEvent<MouseEvent>) => {
  if (e.delta > 4) return;
  e.stopPropagation();
  act();
};

function Tooth({ mesh, muted, selected, onSelect }: { mesh: DrawableMesh; muted: boolean; selected: boolean; onSelect: () => void }) {
  const geometry = useGeometry(mesh);
  return (
    <mesh geometry={geometry} onClick={press(onSelect)}>
      <meshPhysicalMaterial
        color={muted ? '#d9cfba' : '#e9dec6'}
        roughness={0.34}
        clearcoat={0.45}
        clearcoatRoughness={0.25}
        emissive="#5d2a5a"
        emissiveIntensity={selected ? 0.12 : 0}
      />
    </mesh>
  );
}

function Surface({ view, coloured, selected, onSelect }: { view: PlannedView; coloured: boolean; selected: boolean; onSelect: () => void }) {
  const geometry = useGeometry(view.mesh);
  const coloursOf = useMemo(() => {
    const colours = new Float32Array(3 * view.differenceMm.length);
    const colour = new THREE.Color();
    view.differenceMm.forEach((mm, i) => {
      const [r, g, b] = differenceColour(mm);
      colour.setRGB(r, g, b, THREE.SRGBColorSpace).toArray(colours, 3 * i);
    });
    return colours;
  }, [view]);
  useMemo(() => {
    if (coloured) geometry.setAttribute('color', new THREE.BufferAttribute(coloursOf, 3));
  }, [coloured, coloursOf, geometry]);
  useFrame(() => {
    performance.measure('contour-repaint', { start: performance.getEntriesByName('contour-begin', 'mark').at(-1)?.startTime ?? performance.now() });
  });
  return (
    <mesh geometry={geometry} onClick={press(onSelect)}>
      <meshPhysicalMaterial
        key={coloured ? 'map' : 'plain'}
        vertexColors={coloured}
        color={coloured ? '#ffffff' : '#f2ead8'}
        roughness={coloured ? 0.5 : 0.32}
        clearcoat={coloured ? 0.15 : 0.5}
        clearcoatRoughness={0.25}
        emissive="#5d2a5a"
        emissiveIntensity={selected ? 0.1 : 0}
      />
    </mesh>
  );
}

function Gum({ mesh, pale }: { mesh: DrawableMesh; pale: boolean }) {
  const geometry = useGeometry(mesh);
  return (
    <mesh geometry={geometry}>
      <meshPhysicalMaterial color={pale ? '#b9a3a0' : '#c98783'} roughness={0.5} clearcoat={0.35} clearcoatRoughness={0.4} side={THREE.DoubleSide} />
    </mesh>
  );
}
