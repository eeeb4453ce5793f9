import type { CommentPlace } from '@radiant/contract';
import type { Fdi, Jaw, Vec3 } from '@radiant/core';
import { jawOf } from '@radiant/core';
import { useCallback, useMemo, useState } from 'react';
import { useCase } from '../../data/case-context.js';
import { useHotkeys } from '../../ui/hotkeys.js';

/** Points of the surface that comments are on, and the one on which the next will be. */
export function usePins(jaw: Jaw) {
  const { detail } = useCase();
  const [asking, setAsking] = useState(false);
  const [place, setPlace] = useState<CommentPlace>();
  const { comments } = detail;
  const pins = useMemo(
    () =>
      [...comments.flatMap((c) => (c.stage === 'verify' && c.place && !c.place.check ? [c.place] : [])), place].flatMap(
        (p): Vec3[] => (p?.at && jawOf(p.tooth) === jaw ? [p.at] : []),
      ),
    [comments, place, jaw],
  );
  const take = useCallback((tooth: Fdi, at: Vec3) => {
    setPlace({ tooth, words: 'a point of its surface', at: [at[0], at[1], at[2]] });
    setAsking(false);
  }, []);
  useHotkeys('stage', [
    {
      keys: 'Esc',
      does: 'no point for the comment',
      on: ['Escape'],
      off: !asking && !place,
      run: () => {
        setAsking(false);
        setPlace(undefined);
      },
    },
  ]);
  return {
    pins,
    place,
    asking,
    ask: () => setAsking(true),
    drop: () => setPlace(undefined),
    take: asking ? take : undefined,
  };
}
