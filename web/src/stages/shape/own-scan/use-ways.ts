import { type CaseFile, plannedOn } from '@radiant/contract';
import type { ByHand, Jaw, ThreePlaces } from '@radiant/core';
import { useEffect, useRef, useState } from 'react';
import { useCase } from '../../../data/case-context.js';
import { type Act, isLay, type Lay } from '../../../engine/own-scan-acts.js';
import type { JawView } from '../../../engine/views.js';
import { USUAL_BITE, type Way } from './hands.js';
import type { Hands } from './use-hands.js';
import type { OwnScanWork } from './use-own-scan.js';

export interface Ways {
  readonly way: Way;
  /** The case's scans of the same and of the other jaw. */
  readonly same: CaseFile | undefined;
  readonly across: CaseFile | undefined;
  readonly urlOf: (id: string) => string;
  readonly byHand: ByHand;
  readonly put: (hand: ByHand) => Promise<void>;
  readonly lay: (way: Way) => Promise<void>;
  /** The upper jaw, drawn while the lower one is put on it. */
  readonly upper: JawView | undefined;
}

/** The way in which it lies after what was done to it. */
function wayOf(acts: readonly Act[]): Way {
  const last = acts.findLast(isLay);
  return last ? WAY_OF[last.do] : 'shape';
}

const WAY_OF: Readonly<Record<Lay['do'], Way>> = {
  lay: 'shape',
  layBy: 'clicks',
  layOn: 'first',
  layByBite: 'bite',
  layByHand: 'hand',
};

/** The ways in which the scan is laid into the mouth, and the case's scans that it is laid by. */
export function useWays(scan: OwnScanWork, jaw: Jaw, hasTeeth: boolean, hands: Hands): Ways {
  const { detail } = useCase();
  const { state, steps } = scan;
  const way = wayOf(steps.done);
  const [byHand, setByHand] = useState<ByHand>(USUAL_BITE);
  const [upper, setUpper] = useState<JawView>();
  const urlOf = (id: string) => `/api/cases/${detail.id}/files/${id}`;
  const same = plannedOn(detail, jaw);
  const across = plannedOn(detail, jaw === 'upper' ? 'lower' : 'upper');
  const put = async (hand: ByHand) => {
    setByHand(hand);
    if (across) await scan.layByHand(urlOf(across.id), hand);
  };
  const lay = async (w: Way) => {
    if (state.state !== 'laid') return;
    if (w === 'shape') {
      await scan.layByShape(jaw);
    } else if (w === 'clicks') hands.take('places');
    else if (w === 'first' && same) await scan.layOn(jaw, urlOf(same.id));
    else if (w === 'bite' && across) await scan.layByBite(jaw, across.frame);
    else if (w === 'hand') await put(byHand);
  };
  // The upper jaw is drawn while the lower one is put on it.
  const acrossUrl = way === 'hand' && across ? urlOf(across.id) : undefined;
  const { firstView } = scan;
  useEffect(() => {
    if (acrossUrl) void firstView(acrossUrl).then(setUpper);
  }, [acrossUrl, firstView]);
  // Once three places are clicked on both scans, it is laid by them.
  const { places, fellows } = hands;
  const byPlaces = useRef<() => void>(() => undefined);
  byPlaces.current = () => {
    if (!same) return;
    void scan.layOn(jaw, urlOf(same.id), [places as unknown as ThreePlaces, fellows as unknown as ThreePlaces]);
    hands.take('choose');
  };
  useEffect(() => {
    if (fellows.length === 3) byPlaces.current();
  }, [fellows]);
  // A lower jaw of the same sitting lies by the bite as it was scanned; where it is of another one, by its own shape.
  const tried = useRef(false);
  const byBite = useRef(lay);
  byBite.current = lay;
  // What was done before is not done over.
  const untouched = steps.done.length === 1 && steps.undone.length === 0;
  const lowerLaid = untouched && state.state === 'laid' && jaw === 'lower' && !!across?.frame && hasTeeth;
  useEffect(() => {
    if (!lowerLaid || tried.current) return;
    tried.current = true;
    void byBite.current('bite');
  }, [lowerLaid]);
  return { way, same, across, urlOf, byHand, put, lay, upper };
}
