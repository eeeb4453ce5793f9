import type { Fdi, ToothLook } from '@radiant/core';
import { memo, type RefObject, useEffect, useMemo, useRef } from 'react';
import type { JawView, PlannedView } from '../engine/views.js';
import type { View } from './arch-eye.js';
import { Gum, type ToothHand, ToothSurface } from './arch-surfaces.js';
import { showsColour } from './colour-scale.js';
import { JawCanvas } from './JawCanvas.js';
import { useReading } from './use-reading.js';

/** What is drawn of the planned teeth: their predicted colour, or how much of the stump is seen through. */
export type ColourShowing = 'look' | 'stump';

/** The arch with the planned teeth as they will look; teeth without a reading stay as they are scanned, paler. */
export const ColourScene = memo(function ColourScene({
  arch,
  planned,
  looks,
  showing,
  view,
  onSelect,
  reading,
}: {
  arch: JawView;
  planned: ReadonlyMap<Fdi, PlannedView>;
  looks: ReadonlyMap<Fdi, ToothLook>;
  showing: ColourShowing;
  view: View;
  onSelect: (tooth: Fdi) => void;
  /** The element that says what is under the pointer. */
  reading: RefObject<HTMLElement | null>;
}) {
  const hold = useRef(false);
  const tell = useReading(reading);
  const hand = useMemo<ToothHand>(
    () => ({
      press: onSelect,
      move: (tooth, vertex, e) => tell(wordsAt(looks.get(tooth), vertex), e),
      out: () => tell(''),
    }),
    [looks, onSelect, tell],
  );
  // What was under the pointer is another thing now.
  // biome-ignore lint/correctness/useExhaustiveDependencies: each change of what is shown
  useEffect(() => tell(''), [showing, looks, tell]);
  return (
    <JawCanvas label="Predicted colour, in three dimensions" view={view} hold={hold}>
      {arch.teeth.map(({ tooth, mesh }) => {
        const [look, own] = [looks.get(tooth), planned.get(tooth)];
        if (!look || !own || look.showsDE.length !== own.mesh.positions.length / 3)
          return <ToothSurface key={`e${tooth}`} tooth={tooth} mesh={mesh} colour="muted" hand={hand} />;
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

function wordsAt(look: ToothLook | undefined, vertex: number): string {
  if (!look) return 'no colour is known of it';
  const dE = look.showsDE[vertex];
  return dE === undefined || Number.isNaN(dE) ? 'no ceramic here' : `stump shows by ΔE00 ${dE.toFixed(1)}`;
}
