import type { PhotoView } from '@radiant/contract';
import { facePoints, type Px } from '@radiant/core';
import { useCallback, useState } from 'react';
import { faceIn } from '../../engine/face-frame.js';

export interface Face {
  /** Whether faces are looked for on this view. */
  readonly can: boolean;
  readonly state: 'idle' | 'looking' | 'none' | 'found' | 'failed';
  readonly sentence?: string;
  readonly places: ReadonlyMap<string, Px>;
  readonly look: () => void;
}

const NOWHERE: ReadonlyMap<string, Px> = new Map();

/** What a model of faces suggests for the points of a portrait, once it is asked; a person takes them or not. */
export function useFace(view: PhotoView, url: string | undefined): Face {
  const [found, setFound] = useState<Pick<Face, 'state' | 'sentence' | 'places'>>({ state: 'idle', places: NOWHERE });
  const look = useCallback(() => {
    if (!url) return;
    setFound({ state: 'looking', places: NOWHERE });
    faceIn(url).then(
      (mesh) => {
        const places = new Map((mesh ? facePoints(mesh) : []).map((p) => [p.id, p.px] as const));
        setFound({ state: places.size > 0 ? 'found' : 'none', places });
      },
      (error: Error) => setFound({ state: 'failed', sentence: error.message, places: NOWHERE }),
    );
  }, [url]);
  return { can: view.startsWith('portrait') && !!url, ...found, look };
}
