import { planDefault, type ToothPlanInput } from '@radiant/contract';
import { PLAN_LIMITS } from '@radiant/core';
import type { RefObject } from 'react';
import { CrownHandle, type HandlePlaces } from '../../bench/CrownHandles.js';
import { useToothLabel } from '../../data/case-context.js';
import type { CrownEdits } from './use-crown-edits.js';

const hundredth = (mm: number) => Math.round(100 * mm) / 100;

/**
 * The chosen crown's handles on the bench: its edge makes it longer, its distal side wider; its zenith moves the gum, and
 * the edge stays.
 */
export function ChosenHandles({
  own,
  edits,
  places,
}: {
  own: ToothPlanInput;
  edits: CrownEdits;
  places: RefObject<HandlePlaces>;
}) {
  const name = useToothLabel()(own.tooth);
  const { change, settle } = edits;
  const done = () => void settle();
  const up = own.zenithUpMm ?? planDefault('zenithUpMm');
  const { lengthMm, zenithUpMm } = PLAN_LIMITS;
  // The neck can go as far as the length that comes of it may be.
  const neck = {
    min: hundredth(Math.max(zenithUpMm.min, up + lengthMm.min - own.lengthMm)),
    max: hundredth(Math.min(zenithUpMm.max, up + lengthMm.max - own.lengthMm)),
  };
  return (
    <>
      <CrownHandle
        id="zenith"
        label={`Zenith of ${name}`}
        value={up}
        limits={neck}
        places={places}
        onSlide={(mm) => change({ zenithUpMm: mm, lengthMm: hundredth(own.lengthMm + mm - up) }, 'zenith')}
        onDone={done}
      />
      <CrownHandle
        id="edge"
        label={`Edge of ${name}`}
        value={own.lengthMm}
        limits={lengthMm}
        places={places}
        onSlide={(mm) => change({ lengthMm: mm }, 'lengthMm')}
        onDone={done}
      />
      <CrownHandle
        id="distal"
        label={`Distal side of ${name}`}
        value={own.widthMm}
        limits={PLAN_LIMITS.widthMm}
        places={places}
        onSlide={(mm) => change({ widthMm: mm }, 'widthMm')}
        onDone={done}
      />
    </>
  );
}
