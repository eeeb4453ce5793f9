import { type DirectView, type Fdi, TOOTH_PLACES, type Vec3 } from '@radiant/core';
import { memo, type RefObject, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { type DrawableMesh, drawable } from '../engine/drawable.js';
import type { JawView } from '../engine/views.js';
import { PALETTE } from '../ui/palette.js';
import type { View } from './arch-eye.js';
import { Gum, ToothSurface, useGeometry } from './arch-surfaces.js';
import { JawCanvas } from './JawCanvas.js';
import { SceneLine } from './SceneLine.js';
import { useTellingHand } from './use-telling-hand.js';

/** How bodies and places of the tooth are coloured, as CSS. */
export interface CompositeColours {
  readonly bodies: Readonly<Record<string, string>>;
  readonly places: Readonly<Record<string, string>>;
}

/** A tooth as it stands, what is worked on it, and the bodies of composite that fill it. */
export const CompositeScene = memo(function CompositeScene({
  arch,
  told,
  shown,
  colours,
  view,
  marks,
  onPress,
  reading,
}: {
  arch: JawView;
  told: DirectView;
  /** The layers that are drawn. */
  shown: ReadonlySet<string>;
  colours: CompositeColours;
  view: View;
  /** Places that have been marked, in the mouth's frame, mm. */
  marks: readonly Vec3[];
  onPress: (tooth: Fdi, at: Vec3) => void;
  /** The element that says what is under the pointer. */
  reading: RefObject<HTMLElement | null>;
}) {
  const hold = useRef(false);
  const own = useMemo(() => new Map([[told.tooth, told]]), [told]);
  const hand = useTellingHand(reading, own, wordsAt, shown, onPress);
  const tooth = useMemo(() => drawable(told.mesh), [told]);
  const rgb = useMemo(() => {
    const of = TOOTH_PLACES.map((name) =>
      new THREE.Color(colours.places[name]).getRGB({ r: 0, g: 0, b: 0 }, THREE.SRGBColorSpace),
    );
    const out = new Float32Array(3 * told.places.length);
    told.places.forEach((p, i) => {
      const c = of[p] as { r: number; g: number; b: number };
      out.set([c.r, c.g, c.b], 3 * i);
    });
    return out;
  }, [told, colours]);
  return (
    <JawCanvas label="Tooth and composite, in three dimensions" view={view} hold={hold}>
      {arch.teeth.map(({ tooth: t, mesh }) =>
        t === told.tooth ? (
          <ToothSurface key={`w${t}`} tooth={t} mesh={tooth} colour="tooth" rgb={rgb} hand={hand} />
        ) : (
          <ToothSurface key={`e${t}`} tooth={t} mesh={mesh} colour="muted" hand={hand} />
        ),
      )}
      {told.bodies.map(({ layer, mesh }) =>
        shown.has(layer) ? <Body key={layer} mesh={mesh} colour={colours.bodies[layer] as string} /> : null,
      )}
      {told.broken && <Body mesh={told.broken} colour={colours.places.break as string} />}
      {told.rim.length > 0 && <SceneLine at={told.rim} form="stretches" colour={PALETTE.ink} over order={4} />}
      {marks.length > 0 && <Round marks={marks} />}
      <Gum mesh={arch.gum} pale />
    </JawCanvas>
  );
});

const wordsAt = (own: DirectView | undefined, vertex: number): string => {
  const place = own?.places[vertex] ?? 0;
  return place === 0 ? '' : (TOOTH_PLACES[place] as string);
};

function Body({ mesh, colour }: { mesh: DirectView['mesh']; colour: string }) {
  const drawn = useMemo<DrawableMesh>(() => drawable(mesh), [mesh]);
  const geometry = useGeometry(drawn);
  return (
    <mesh geometry={geometry} renderOrder={2} raycast={() => null}>
      <meshBasicMaterial color={colour} transparent opacity={0.42} depthWrite={false} side={THREE.DoubleSide} />
    </mesh>
  );
}

/** Places that are being marked, joined all round. */
function Round({ marks }: { marks: readonly Vec3[] }) {
  const at = useMemo(() => marks.flat(), [marks]);
  return (
    <>
      <SceneLine at={at} form="loop" colour={PALETTE.plum} over order={4} />
      {marks.map((p) => (
        <mesh key={p.join()} position={[p[0], p[1], p[2]]} renderOrder={5}>
          <sphereGeometry args={[0.14, 12, 8]} />
          <meshBasicMaterial color={PALETTE.plum} depthTest={false} transparent />
        </mesh>
      ))}
    </>
  );
}
