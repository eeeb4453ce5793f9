import { type FacialThird, type Fdi, jawOf, type Lab, overThirds, screenRgb, type ToothLook } from '@radiant/core';
import { memo, type RefObject, useRef } from 'react';
import type { DrawableMesh } from '../engine/drawable.js';
import type { JawView, PlannedView } from '../engine/views.js';
import type { View } from './arch-eye.js';
import { Gum, ToothSurface } from './arch-surfaces.js';
import { showsColour } from './colour-scale.js';
import { JawCanvas } from './JawCanvas.js';
import { useTellingHand } from './use-telling-hand.js';

/** What is drawn of the planned teeth: their predicted colour, or how much of the stump is seen through. */
export type ColourShowing = 'look' | 'stump';

/** The arch with the planned teeth as they will look, and the others as they were read; unread ones stay pale. */
export const ColourScene = memo(function ColourScene({
  arch,
  planned,
  looks,
  reads,
  showing,
  view,
  onSelect,
  reading,
}: {
  arch: JawView;
  planned: ReadonlyMap<Fdi, PlannedView>;
  looks: ReadonlyMap<Fdi, ToothLook>;
  /** What was read of teeth that stay as they are. */
  reads: ReadonlyMap<Fdi, Readonly<Record<FacialThird, Lab>>>;
  showing: ColourShowing;
  view: View;
  onSelect: (tooth: Fdi) => void;
  /** The element that says what is under the pointer. */
  reading: RefObject<HTMLElement | null>;
}) {
  const hold = useRef(false);
  const hand = useTellingHand(reading, looks, wordsAt, showing, onSelect);
  return (
    <JawCanvas label="Predicted colour, in three dimensions" view={view} hold={hold}>
      {arch.teeth.map(({ tooth, mesh }) => {
        const [look, own] = [looks.get(tooth), planned.get(tooth)];
        if (!look || !own || look.showsDE.length !== own.mesh.positions.length / 3)
          return (
            <ToothSurface
              key={`e${tooth}`}
              tooth={tooth}
              mesh={mesh}
              colour="muted"
              rgb={showing === 'look' && !look ? rgbOf(reads.get(tooth), mesh, tooth) : undefined}
              hand={hand}
            />
          );
        return (
          <ToothSurface
            key={`p${tooth}`}
            tooth={tooth}
            mesh={own.mesh}
            colour="planned"
            {...(showing === 'look' ? { rgb: look.rgb } : { values: look.showsDE, scale: showsColour })}
            hand={hand}
          />
        );
      })}
      <Gum mesh={arch.gum} pale={showing === 'stump'} />
    </JawCanvas>
  );
});

const rgbKnown = new WeakMap<DrawableMesh, { readonly of: unknown; readonly rgb: Float32Array }>();

/** A tooth's own surface in the colours that were read of its thirds. */
function rgbOf(
  read: Readonly<Record<FacialThird, Lab>> | undefined,
  mesh: DrawableMesh,
  tooth: Fdi,
): Float32Array | undefined {
  if (!read) return undefined;
  const known = rgbKnown.get(mesh);
  if (known?.of === read) return known.rgb;
  const n = mesh.positions.length / 3;
  let [low, high] = [Infinity, -Infinity];
  for (let v = 0; v < n; v++) {
    const z = mesh.positions[3 * v + 2] as number;
    low = Math.min(low, z);
    high = Math.max(high, z);
  }
  const rgb = new Float32Array(3 * n);
  const at = (c: keyof Lab, share: number) =>
    overThirds({ incisal: read.incisal[c], middle: read.middle[c], cervical: read.cervical[c] }, share);
  for (let v = 0; v < n; v++) {
    const up = ((mesh.positions[3 * v + 2] as number) - low) / Math.max(1e-6, high - low);
    const share = jawOf(tooth) === 'upper' ? up : 1 - up;
    rgb.set(screenRgb({ L: at('L', share), a: at('a', share), b: at('b', share) }), 3 * v);
  }
  rgbKnown.set(mesh, { of: read, rgb });
  return rgb;
}

function wordsAt(look: ToothLook | undefined, vertex: number): string {
  if (!look) return 'no colour is known of it';
  const dE = look.showsDE[vertex];
  return dE === undefined || Number.isNaN(dE) ? 'no ceramic here' : `stump shows by ΔE00 ${dE.toFixed(1)}`;
}
