import type { LandmarkInput, PhotoView } from '@radiant/contract';
import {
  type Fdi,
  frontRow,
  LANDMARK_KINDS,
  type LandmarkKind,
  mirrored,
  opposite,
  PLANNABLE,
  type Px,
  pointsOf,
} from '@radiant/core';
import { useMemo } from 'react';
import { useBenchReading } from './bench-reading.js';
import { useCase, useSentence } from './case-context.js';
import { useReading } from './reading.js';

/** Which points of a view are on the bench: the teeth's outlines, these a second time, or what its list names. */
export type MarkGroup = 'landmarks' | 'again' | 'points';

/** A point that is or can be marked. */
export interface BenchMark {
  readonly id: string;
  /** In words, in the chosen notation. */
  readonly name: string;
  readonly tooth?: Fdi;
  readonly at: { readonly x: number; readonly y: number } | undefined;
  /** Where it would lie by the scan or, without one, if both sides were alike, while it is not set. */
  readonly guess?: Px;
  readonly guessBy?: 'scan' | 'mirror' | 'face';
  /** Set from the scan and not by a hand. */
  readonly fromScan?: boolean;
  /** Whether it lies on an edge of the picture, so that snapping helps. */
  readonly onEdge: boolean;
}

/** Points that lie on an edge are set again this well; others lie in the middle of something. mm */
const EDGE_SD_MM = 0.3;

const tenth = (v: number) => Math.round(v * 10) / 10;

export interface BenchMarks {
  readonly marks: readonly BenchMark[];
  readonly place: (id: string, x: number, y: number, group?: string) => void;
  readonly remove: (id: string) => void;
  /** Sets several at once, as one step. */
  readonly placeAll?: (places: readonly { readonly id: string; readonly px: Px }[]) => void;
  /** Sets landmarks where the scan has them; they don't count for matching the photograph with it. */
  readonly placeFromScan?: (places: readonly { readonly id: string; readonly px: Px }[]) => void;
}

/** The points of a view and how they are set. */
export function useBenchMarks(view: PhotoView, group: MarkGroup): BenchMarks {
  const outlines = useOutlines();
  const again = useAgain();
  const points = useViewPoints(view);
  return { landmarks: outlines, again, points }[group];
}

/** The outlines that a hand has set, to be set a second time: the first setting is not shown. */
function useAgain(): BenchMarks {
  const { landmarks, change } = useBenchReading('retracted-front');
  const sentence = useSentence();
  return useMemo(() => {
    const idOf = (m: LandmarkInput) => `${m.kind}-${m.tooth}`;
    const with_ = (id: string, again: LandmarkInput['again']) =>
      landmarks.map((m) => {
        if (idOf(m) !== id) return m;
        const { again: _, ...rest } = m;
        return again ? { ...rest, again } : rest;
      });
    return {
      marks: landmarks
        .filter((m) => m.from !== 'scan')
        .map((m) => ({
          id: idOf(m),
          tooth: m.tooth,
          name: sentence(`${m.kind} of {${m.tooth}}, again`),
          at: m.again,
          onEdge: true,
        })),
      place: (id, x, y, group) => change({ landmarks: with_(id, { x: tenth(x), y: tenth(y) }) }, group),
      remove: (id) => change({ landmarks: with_(id, undefined) }),
    };
  }, [landmarks, change, sentence]);
}

interface Plain {
  readonly id: string;
  readonly name: string;
  readonly tooth?: Fdi;
  readonly fellow?: string;
  readonly at: { readonly x: number; readonly y: number } | undefined;
  readonly fromScan?: boolean;
  readonly onEdge: boolean;
}

/** Adds the symmetric guesses. */
function withGuesses(plain: readonly Plain[], width: number): BenchMark[] {
  const by = new Map(plain.map((p) => [p.id, p]));
  const pairs = plain.flatMap((p): (readonly [Px, Px])[] => {
    const fellow = p.fellow ? by.get(p.fellow) : undefined;
    return p.at && fellow?.at && fellow.at.x > p.at.x
      ? [
          [
            [p.at.x, p.at.y],
            [fellow.at.x, fellow.at.y],
          ],
        ]
      : [];
  });
  return plain.map(({ fellow: other, ...p }) => {
    const fellow = other ? by.get(other)?.at : undefined;
    return p.at || !fellow
      ? p
      : { ...p, guess: mirrored([fellow.x, fellow.y], pairs, width / 2), guessBy: 'mirror' as const };
  });
}

function useOutlines(): BenchMarks {
  const { tooth: chosen } = useCase();
  const { roles } = useReading();
  const { photo, landmarks, change } = useBenchReading('retracted-front');
  const sentence = useSentence();
  return useMemo(() => {
    // Those that stand in front, in their order; others once they are chosen or marked.
    const marked = (t: Fdi) => landmarks.some((m) => m.tooth === t);
    const row = frontRow(roles);
    const others = PLANNABLE.filter((t) => !row.includes(t) && ((t === chosen && roles.has(t)) || marked(t)));
    const teeth = [...row, ...others];
    const order = teeth.flatMap((tooth) => LANDMARK_KINDS.map((kind) => ({ id: `${kind}-${tooth}`, tooth, kind })));
    const rank = new Map(
      PLANNABLE.flatMap((tooth) => LANDMARK_KINDS.map((kind) => `${kind}-${tooth}`)).map((id, i) => [id, i]),
    );
    const at = new Map(landmarks.map((m) => [`${m.kind}-${m.tooth}`, { x: m.x, y: m.y }]));
    const scanned = new Set(landmarks.filter((m) => m.from === 'scan').map((m) => `${m.kind}-${m.tooth}`));
    const plain = order.map(
      ({ id, tooth, kind }): Plain => ({
        id,
        tooth,
        name: sentence(`${kind} of {${tooth}}`),
        fellow: `${kind}-${opposite(tooth)}`,
        at: at.get(id),
        ...(scanned.has(id) && { fromScan: true }),
        onEdge: true,
      }),
    );
    const of = (id: string) => {
      const [kind, tooth] = id.split('-') as [LandmarkKind, string];
      return { kind, tooth: Number(tooth) };
    };
    // The photograph that lies on the bench is the one that is marked, also where nobody has chosen it.
    const held = photo && { photoId: photo.id };
    const rest = (id: string) => landmarks.filter((m) => `${m.kind}-${m.tooth}` !== id);
    const sorted = (all: LandmarkInput[]) =>
      all.sort((a, b) => (rank.get(`${a.kind}-${a.tooth}`) ?? 0) - (rank.get(`${b.kind}-${b.tooth}`) ?? 0));
    const set = (places: readonly { readonly id: string; readonly px: Px }[], from?: 'scan') => {
      const ids = new Set(places.map((p) => p.id));
      const made = places.map(
        ({ id, px: [x, y] }): LandmarkInput => ({ ...of(id), x: tenth(x), y: tenth(y), ...(from && { from }) }),
      );
      change({ ...held, landmarks: sorted([...landmarks.filter((m) => !ids.has(`${m.kind}-${m.tooth}`)), ...made]) });
    };
    return {
      marks: withGuesses(plain, photo?.width ?? 0),
      place: (id, x, y, group) => {
        change({ ...held, landmarks: sorted([...rest(id), { ...of(id), x: tenth(x), y: tenth(y) }]) }, group);
      },
      remove: (id) => change({ landmarks: rest(id) }),
      placeAll: (places) => set(places),
      placeFromScan: (places) => set(places, 'scan'),
    };
  }, [landmarks, change, photo, sentence, roles, chosen]);
}

function useViewPoints(view: PhotoView): BenchMarks {
  const { points, change, photo } = useBenchReading(view);
  const { roles } = useReading();
  const sentence = useSentence();
  return useMemo(() => {
    const at = new Map(points.map((p) => [p.id, { x: p.x, y: p.y }]));
    const plain = pointsOf(view, frontRow(roles)).map(
      (s): Plain => ({
        id: s.id,
        name: sentence(s.name),
        ...(s.tooth && { tooth: s.tooth }),
        ...(s.fellow && { fellow: s.fellow }),
        at: at.get(s.id),
        onEdge: s.sdMm < EDGE_SD_MM,
      }),
    );
    const others = (id: string) => points.filter((p) => p.id !== id);
    return {
      marks: withGuesses(plain, photo?.width ?? 0),
      place: (id, x, y, group) =>
        change(
          { ...(photo && { photoId: photo.id }), points: [...others(id), { id, x: tenth(x), y: tenth(y) }] },
          group,
        ),
      remove: (id) => change({ points: others(id) }),
      placeAll: (places) => {
        const ids = new Set(places.map((p) => p.id));
        change({
          ...(photo && { photoId: photo.id }),
          points: [
            ...points.filter((p) => !ids.has(p.id)),
            ...places.map(({ id, px: [x, y] }) => ({ id, x: tenth(x), y: tenth(y) })),
          ],
        });
      },
    };
  }, [points, change, view, photo, sentence, roles]);
}
