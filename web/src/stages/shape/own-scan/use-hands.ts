import type { Fdi, PickedView, Vec3 } from '@radiant/core';
import { useCallback, useRef, useState } from 'react';
import { useToothLabel } from '../../../data/case-context.js';
import { BRUSH_MM, type Hand, PLACES } from './hands.js';
import type { OwnScanWork } from './use-own-scan.js';

export interface Hands {
  readonly hand: Hand;
  readonly take: (hand: Hand) => void;
  readonly chosen: Fdi | undefined;
  readonly setChosen: (tooth: Fdi | undefined) => void;
  /** Clicked on this scan, and the same places on the case's. */
  readonly places: readonly Vec3[];
  readonly fellows: readonly Vec3[];
  readonly fellow: (at: Vec3) => void;
  readonly click: (vertex: number, at: readonly [number, number, number]) => void;
  readonly stroke: (vertices: readonly number[]) => void;
  readonly pull: (tooth: Fdi, from: Vec3, to: Vec3) => void;
  /** What the hand is asked to do. */
  readonly asked: () => string;
}

/**
 * The hand on the scan: what is taken into it, what it has clicked, and what that does.
 * @param free teeth that nobody has picked yet, in the order in which they are added
 */
export function useHands(scan: OwnScanWork, picked: PickedView | undefined, free: readonly Fdi[]): Hands {
  const name = useToothLabel();
  const [hand, setHand] = useState<Hand>('choose');
  const [chosen, setChosen] = useState<Fdi>();
  const [places, setPlaces] = useState<readonly Vec3[]>([]);
  const [fellows, setFellows] = useState<readonly Vec3[]>([]);
  const take = useCallback((h: Hand) => {
    setHand(h);
    setPlaces([]);
    setFellows([]);
  }, []);
  const add = (vertex: number) => {
    const next = free[0];
    if (next === undefined) return;
    setChosen(next);
    void scan.add(vertex, next);
    take('choose');
  };
  const place = (at: Vec3) => {
    const [a, b, c] = [...places, at];
    setPlaces([...places, at]);
    if (!a || !b || !c) return;
    void scan.layBy(a, b, c);
    take('choose');
  };
  // The case's scan is clicked after this one, each time.
  const clicked = useRef(0);
  clicked.current = places.length;
  const fellow = useCallback(
    (at: Vec3) => setFellows((all) => (all.length < clicked.current ? [...all, at] : all)),
    [],
  );
  return {
    hand,
    take,
    chosen,
    setChosen,
    places,
    fellows,
    fellow,
    click: (vertex, [x, y, z]) => {
      if (!picked || scan.busy) return;
      if (hand === 'choose') setChosen((picked.tooth[vertex] as Fdi) || undefined);
      else if (hand === 'add') add(vertex);
      else if (hand === 'places') place([x, y, z]);
      else if (hand === 'both' && places.length === fellows.length && places.length < 3)
        setPlaces([...places, [x, y, z]]);
    },
    stroke: (vertices) => {
      if (hand === 'gum') void scan.paint(vertices, BRUSH_MM, 0);
      else if (hand === 'paint' && chosen !== undefined) void scan.paint(vertices, BRUSH_MM, chosen);
    },
    pull: (tooth, from, to) => {
      setChosen(tooth);
      void scan.pull(tooth, from, to);
    },
    asked: () => {
      if (hand === 'both')
        return places.length > fellows.length
          ? `Now the same place on the case’s scan, ${places.length} of 3`
          : `Click a place that both scans have, ${places.length + 1} of 3: a cusp, a corner of an edge`;
      if (hand === 'places') return `Click ${PLACES[places.length] ?? ''}`;
      if (hand === 'add')
        return free[0] === undefined ? 'All ten teeth are there' : `Click the crown; it becomes ${name(free[0])}`;
      if (hand === 'neck') return 'Take a line between tooth and gum and drag it; beside it the view turns';
      if (hand === 'gum') return 'Draw over what is gum';
      return chosen === undefined ? 'Choose a tooth first' : `Draw over what belongs to ${name(chosen)}`;
    },
  };
}
