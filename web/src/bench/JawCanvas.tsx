import { Canvas } from '@react-three/fiber';
import type { ReactNode } from 'react';
import { eyeOf, Rig, type View } from './arch-eye.js';
import { drawnInSoftware } from './software.js';

const SMOOTH = !drawnInSoftware();

/** The grey room in which jaws are looked at: drawn on demand, turned by the hand unless it is held. */
export function JawCanvas({ label, view, hold, children }: { label: string; view: View; hold: { current: boolean }; children: ReactNode }) {
  return (
    <Canvas
      frameloop="demand"
      dpr={[1, 2]}
      camera={{ fov: 19, near: 10, far: 600, position: [...eyeOf('upper', 'front').from], up: [0, 0, 1] }}
      gl={{ antialias: SMOOTH }}
      aria-label={label}
    >
      <color attach="background" args={['#7b7b7b']} />
      <Rig view={view} hold={hold} />
      {children}
    </Canvas>
  );
}
