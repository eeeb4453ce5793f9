import type { Fdi } from '@radiant/core';
import { memo, type RefObject, useRef } from 'react';
import type { JawView, TargetView } from '../engine/views.js';
import { PALETTE } from '../ui/palette.js';
import type { View } from './arch-eye.js';
import { Gum, ToothSurface } from './arch-surfaces.js';
import { DENTIN_CODE, targetColour } from './colour-scale.js';
import { JawCanvas } from './JawCanvas.js';
import { SceneLine } from './SceneLine.js';
import { useTellingHand } from './use-telling-hand.js';

/**
 * What is drawn of the teeth that are to be prepared: as they are, with all that goes, with what only brings them into
 * line or with what goes for the ceramic after it; or as they are to be.
 */
export type TargetShowing = 'removal' | 'align' | 'ceramic' | 'prepared';

/** The arch with what is to go from each tooth, or with the prepared teeth, and where each preparation ends. */
export const TargetScene = memo(function TargetScene({
  arch,
  targets,
  showing,
  dentin,
  view,
  selected,
  onSelect,
  reading,
}: {
  arch: JawView;
  targets: ReadonlyMap<Fdi, TargetView>;
  showing: TargetShowing;
  /** Whether places are marked where the enamel would be through. */
  dentin: boolean;
  view: View;
  selected: Fdi;
  onSelect: (tooth: Fdi) => void;
  /** The element that says what goes under the pointer. */
  reading: RefObject<HTMLElement | null>;
}) {
  const hold = useRef(false);
  const hand = useTellingHand(reading, targets, wordsAt, showing, onSelect);
  return (
    <JawCanvas label="Tooth to remove, in three dimensions" view={view} hold={hold}>
      {arch.teeth.map(({ tooth, mesh }) => {
        const own = targets.get(tooth);
        if (!own) return <ToothSurface key={`e${tooth}`} tooth={tooth} mesh={mesh} colour="muted" hand={hand} />;
        return (
          <group key={`t${tooth}`}>
            <ToothSurface
              tooth={tooth}
              mesh={showing === 'prepared' ? own.prepared : own.before}
              colour={showing === 'prepared' && tooth === selected ? 'selected' : 'tooth'}
              values={showing === 'prepared' ? undefined : valuesOf(own, showing, dentin)}
              scale={targetColour}
              hand={hand}
            />
            {own.finishLine.length > 0 && (
              // All round it closes; on a face alone it ends at the contacts.
              <SceneLine
                at={own.finishLine}
                form={own.finishLine.length / 3 >= CLOSED ? 'loop' : 'line'}
                colour={tooth === selected ? PALETTE.plum : PALETTE.ink2}
              />
            )}
          </group>
        );
      })}
      <Gum mesh={arch.gum} pale />
    </JawCanvas>
  );
});

const valuesOf = (own: TargetView, showing: TargetShowing, dentin: boolean): Float32Array =>
  showing === 'align'
    ? own.alignMm
    : showing === 'ceramic'
      ? own.removedMm.map((mm, i) => mm - (own.alignMm[i] as number))
      : coded(own, dentin);

/** Millimetres that go; where the enamel is through a code is added, which the scale knows. */
function coded(own: TargetView, dentin: boolean): Float32Array {
  if (!dentin) return own.removedMm;
  const [thin, thick] = own.enamelMm;
  return own.removedMm.map((mm, i) => {
    if (mm >= (thick[i] as number)) return mm + 2 * DENTIN_CODE;
    return mm >= (thin[i] as number) ? mm + DENTIN_CODE : mm;
  });
}

function wordsAt(own: TargetView | undefined, i: number): string {
  if (!own) return '';
  const mm = own.removedMm[i] as number;
  if (mm < 0.02) return 'nothing goes here';
  const align = own.alignMm[i] as number;
  const [from, to] = [own.enamelMm[0][i] as number, own.enamelMm[1][i] as number];
  const parts = [`${mm.toFixed(2)} mm goes`];
  if (align >= 0.02) parts.push(`${align.toFixed(2)} into line`, `${(mm - align).toFixed(2)} for the ceramic`);
  if (!Number.isNaN(from)) parts.push(`enamel usually ${from.toFixed(1)}–${to.toFixed(1)}`);
  return parts.join(' · ');
}

/** A line with so many places goes all round. */
const CLOSED = 120;
