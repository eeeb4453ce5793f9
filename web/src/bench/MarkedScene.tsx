import type { Jaw, Vec3 } from '@radiant/core';
import type { ThreeEvent } from '@react-three/fiber';
import { memo, useCallback, useMemo, useRef } from 'react';
import type { JawView } from '../engine/views.js';
import type { View } from './arch-eye.js';
import { Gum, type ToothHand, ToothSurface } from './arch-surfaces.js';
import { FIELD_DEG, JawCanvas } from './JawCanvas.js';

/** A place on the scan: marked by hand, or where the scan has it by itself. */
export interface Pin {
  readonly id: string;
  readonly at: Vec3;
  readonly look: 'marked' | 'chosen' | 'scan';
}

const COLOUR = { marked: '#7a3576', chosen: '#2e1230', scan: '#e08fd6' } as const;
const RADIUS_MM = { marked: 0.45, chosen: 0.55, scan: 0.5 } as const;
const FRONT: Readonly<Record<Jaw, View>> = {
  upper: { name: 'front', jaw: 'upper', turn: 0 },
  lower: { name: 'front', jaw: 'lower', turn: 0 },
};

/** The scanned arch with places on it; a click tells where it was met. */
export const MarkedScene = memo(function MarkedScene({
  label,
  jaw,
  arch,
  pins,
  onClick,
}: {
  label: string;
  jaw: Jaw;
  arch: JawView;
  pins: readonly Pin[];
  onClick: (at: Vec3) => void;
}) {
  const hold = useRef(false);
  const click = useCallback(
    (e: ThreeEvent<MouseEvent>) => {
      if (e.delta > 4) return;
      e.stopPropagation();
      onClick([e.point.x, e.point.y, e.point.z]);
    },
    [onClick],
  );
  const hand = useMemo((): ToothHand => ({ press: (_, at) => onClick(at) }), [onClick]);
  return (
    <JawCanvas label={label} view={FRONT[jaw]} hold={hold} fieldDeg={FIELD_DEG.inset}>
      <group onClick={click}>
        <Gum mesh={arch.gum} pale={false} />
      </group>
      {arch.teeth.map((t) => (
        <ToothSurface key={t.tooth} tooth={t.tooth} mesh={t.mesh} colour="tooth" hand={hand} />
      ))}
      {pins.map((p) => (
        <mesh key={p.id} position={[...p.at]} renderOrder={2}>
          <sphereGeometry args={[RADIUS_MM[p.look], 16, 12]} />
          <meshBasicMaterial color={COLOUR[p.look]} />
        </mesh>
      ))}
    </JawCanvas>
  );
});
