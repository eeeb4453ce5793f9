import { Canvas } from '@react-three/fiber';
import type { ReactNode } from 'react';
import { PALETTE } from '../ui/palette.js';
import { eyeOf, Rig, type View } from './arch-eye.js';
import { drawnInSoftware } from './software.js';

const SMOOTH = !drawnInSoftware();

/** The angle of view, degrees: of a bench, and of a small picture of the arch alone. */
export const FIELD_DEG = { bench: 19, inset: 15 } as const;

/** The grey room in which jaws are looked at: drawn on demand, turned by the hand unless it is held. */
export function JawCanvas({
  label,
  view,
  hold,
  fieldDeg = FIELD_DEG.bench,
  children,
}: {
  label: string;
  view: View;
  hold: { current: boolean };
  fieldDeg?: number;
  children: ReactNode;
}) {
  return (
    <Canvas
      frameloop="demand"
      dpr={[0.5, 2]}
      camera={{ fov: fieldDeg, near: 10, far: 600, position: [...eyeOf('upper', 'front').from], up: [0, 0, 1] }}
      gl={{ antialias: SMOOTH }}
      role="group"
      aria-label={label}
    >
      <color attach="background" args={[PALETTE.bench]} />
      <Rig view={view} hold={hold} />
      {children}
    </Canvas>
  );
}
