import { workKept, workOn } from '@radiant/contract';
import { ISLAND_POINTS, type Vec3 } from '@radiant/core';
import { useCallback, useEffect, useState } from 'react';
import { useCase, useSection } from '../../data/case-context.js';
import { useHotkeys } from '../../ui/hotkeys.js';

/** Marks the dentin on a worn edge, place by place round it, on the scan. */
export interface IslandMarking {
  /** The places so far; undefined while nothing is marked. */
  readonly places: readonly Vec3[] | undefined;
  readonly begin: () => void;
  readonly put: (at: Vec3) => void;
  readonly takeBack: () => void;
  /** Keeps what is marked. */
  readonly done: () => void;
  readonly leave: () => void;
  readonly isEnough: boolean;
}

export function useIsland(): IslandMarking {
  const { tooth } = useCase();
  const { data, set } = useSection('direct');
  const [places, setPlaces] = useState<readonly Vec3[]>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: of another tooth nothing is marked yet
  useEffect(() => setPlaces(undefined), [tooth]);
  const leave = useCallback(() => setPlaces(undefined), []);
  const takeBack = useCallback(() => setPlaces((p) => p?.slice(0, -1)), []);
  const put = useCallback((at: Vec3) => setPlaces((p) => (p && p.length < ISLAND_POINTS.max ? [...p, at] : p)), []);
  const isEnough = (places?.length ?? 0) >= ISLAND_POINTS.min;
  const done = () => {
    if (!places || !isEnough) return;
    const next = { ...workOn(data, tooth), island: places };
    set({ ...data, works: [...data.works.filter((w) => w.tooth !== tooth), workKept(tooth, next)] });
    setPlaces(undefined);
  };
  useHotkeys(
    'stage',
    places
      ? [
          { keys: 'Esc', does: 'leave the marking', on: ['escape'], run: leave },
          { keys: '⌫', does: 'take the last place back', on: ['backspace'], run: takeBack },
          { keys: '↵', does: 'keep what is marked', on: ['enter'], run: done },
        ]
      : [],
  );
  return { places, begin: () => setPlaces([]), put, takeBack, done, leave, isEnough };
}
