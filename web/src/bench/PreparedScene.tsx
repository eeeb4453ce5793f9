import { shortColour } from '@radiant/contract';
import type { Fdi, FinishByHand, Vec3 } from '@radiant/core';
import { memo, type RefObject, useEffect, useMemo, useRef } from 'react';
import type { JawView, PreparedToothView } from '../engine/views.js';
import { PALETTE } from '../ui/palette.js';
import type { View } from './arch-eye.js';
import { Gum, type ToothHand, ToothSurface } from './arch-surfaces.js';
import { JawCanvas } from './JawCanvas.js';
import { SceneLine } from './SceneLine.js';
import { useTellingHand } from './use-telling-hand.js';

/** What is drawn of prepared teeth: what is still to cut, or the teeth as they are. */
export type PreparedShowing = 'short' | 'plain';

/** Prepared teeth as they were scanned, coloured by what is still to cut, with the finish line and the places found. */
export const PreparedScene = memo(function PreparedScene({
  arch,
  prepared,
  showing,
  view,
  selected,
  marked,
  pins,
  line,
  drawn,
  onSelect,
  reading,
}: {
  arch: JawView;
  prepared: ReadonlyMap<Fdi, PreparedToothView>;
  showing: PreparedShowing;
  view: View;
  selected: Fdi;
  /** The place that is looked at. */
  marked: Vec3 | undefined;
  /** Points of the surface on which somebody has said something. */
  pins: readonly Vec3[];
  /** Where the finish line is drawn by hand; undefined while it is only looked at. */
  line: { readonly pull: (tooth: Fdi, place: Vec3) => void; readonly done: () => void } | undefined;
  /** Ends of cuts that somebody has drawn: shown at once, before they are judged. */
  drawn: readonly FinishByHand[];
  onSelect: (tooth: Fdi, at: Vec3) => void;
  /** The element that says what is found under the pointer. */
  reading: RefObject<HTMLElement | null>;
}) {
  const hold = useRef(false);
  const telling = useTellingHand(reading, prepared, wordsAt, showing, onSelect);
  const drawing = useRef<Fdi>(undefined);
  const hand = useMemo<ToothHand>(() => {
    if (!line) return telling;
    const at = (tooth: Fdi, vertex: number) => {
      const own = prepared.get(tooth);
      if (!own) return;
      const [x, y, z] = own.mesh.positions.subarray(3 * vertex, 3 * vertex + 3);
      line.pull(tooth, [x as number, y as number, z as number]);
    };
    return {
      ...telling,
      down: (tooth, vertex) => {
        if (!prepared.has(tooth)) return false;
        drawing.current = tooth;
        hold.current = true;
        onSelect(tooth, [0, 0, 0]);
        at(tooth, vertex);
        return true;
      },
      move: (tooth, vertex, e) => {
        telling.move?.(tooth, vertex, e);
        if (drawing.current === tooth) at(tooth, vertex);
      },
    };
  }, [telling, line, prepared, onSelect]);
  useEffect(() => {
    if (!line) return;
    const up = () => {
      if (drawing.current === undefined) return;
      drawing.current = undefined;
      hold.current = false;
      line.done();
    };
    window.addEventListener('pointerup', up);
    return () => window.removeEventListener('pointerup', up);
  }, [line]);
  return (
    <JawCanvas label="Prepared teeth, in three dimensions" view={view} hold={hold}>
      {arch.teeth.map(({ tooth, mesh }) => {
        const own = prepared.get(tooth);
        if (!own) return <ToothSurface key={`e${tooth}`} tooth={tooth} mesh={mesh} colour="muted" hand={hand} />;
        return (
          <group key={`p${tooth}`}>
            <ToothSurface
              tooth={tooth}
              mesh={own.mesh}
              colour={showing === 'plain' && tooth === selected ? 'selected' : 'tooth'}
              values={showing === 'plain' ? undefined : own.shortMm}
              scale={shortColour}
              hand={hand}
            />
            <Dots at={own.finish.map((f) => f.wished)} colour={PALETTE.ink3} />
            <Dots at={endsOf(own, tooth, drawn)} colour={PALETTE.plum} />
          </group>
        );
      })}
      {marked && <Spot at={marked} radiusMm={0.28} colour={PALETTE.plum} />}
      {pins.map((at) => (
        <Spot key={at.join()} at={at} radiusMm={0.16} colour={PALETTE.ink} />
      ))}
      <Gum mesh={arch.gum} pale />
    </JawCanvas>
  );
});

/** Where a cut ends: as it was drawn, along the tooth's axis from where it was to end, else as it was found. */
function endsOf(own: PreparedToothView, tooth: Fdi, drawn: readonly FinishByHand[]): readonly Vec3[] {
  const mm = new Map(drawn.filter((d) => d.tooth === tooth).map((d) => [d.at, d.mm]));
  const { z } = own.frame;
  return own.finish.flatMap(({ at, wished, found, highMm }): Vec3[] => {
    const to = mm.get(at);
    if (to === undefined || (found && Math.abs((highMm ?? 0) - to) < 0.03)) return found ? [found] : [];
    return [[wished[0] - to * z[0], wished[1] - to * z[1], wished[2] - to * z[2]]];
  });
}

function Spot({ at, radiusMm, colour }: { at: Vec3; radiusMm: number; colour: string }) {
  return (
    <mesh position={[at[0], at[1], at[2]]} renderOrder={5}>
      <sphereGeometry args={[radiusMm, 16, 12]} />
      <meshBasicMaterial color={colour} depthTest={false} transparent opacity={0.85} />
    </mesh>
  );
}

function wordsAt(own: PreparedToothView | undefined, i: number): string {
  if (!own) return '';
  const [short, room] = [own.shortMm[i] as number, own.roomMm[i] as number];
  if (Number.isNaN(short)) return 'nothing was to be cut here';
  const wanted = `${room.toFixed(2)} mm of ${(room + short).toFixed(2)}`;
  if (Math.abs(short) < 0.05) return `${wanted} · as it was to be`;
  return `${wanted} · ${short > 0 ? `${short.toFixed(2)} still to cut` : `${(-short).toFixed(2)} more gone than asked`}`;
}

function Dots({ at, colour }: { at: readonly Vec3[]; colour: string }) {
  const places = useMemo(() => at.flatMap((p) => [...p]), [at]);
  return <SceneLine at={places} form="dots" colour={colour} />;
}
