import type { PhotoView } from '@radiant/contract';
import { useCallback, useMemo, useState } from 'react';

export type OverlayId =
  | 'names'
  | 'scan-places'
  | 'edge-level'
  | 'axes'
  | 'gum-line'
  | 'widths'
  | 'midline'
  | 'pupils'
  | 'cants'
  | 'corridor'
  | 'arch'
  | 'plane';

/** What can be laid over a view, in words. */
export const OVERLAYS: Readonly<Record<OverlayId, string>> = {
  names: 'names of the points',
  'scan-places': 'places of the scan',
  'edge-level': 'level of the edges',
  axes: 'long axes',
  'gum-line': 'line of the zeniths',
  widths: 'widths from the front',
  midline: 'facial midline',
  pupils: 'line through the pupils',
  cants: 'commissures and edges',
  corridor: 'corridors',
  arch: 'arch and how teeth stand in it',
  plane: 'plane of the cusps',
};

/** Which overlays a view has. */
export function overlaysFor(view: PhotoView): readonly OverlayId[] {
  if (view === 'retracted-front') return ['scan-places', 'edge-level', 'axes', 'gum-line', 'widths', 'names'];
  if (view.startsWith('portrait')) return ['pupils', 'midline', 'cants', 'names'];
  if (view === 'close-smile') return ['corridor', 'edge-level', 'names'];
  if (view === 'close-rest') return ['edge-level', 'names'];
  if (view.endsWith('occlusal')) return ['arch', 'names'];
  return view.startsWith('retracted') ? ['plane', 'names'] : [];
}

const AT_FIRST: readonly OverlayId[] = ['scan-places', 'pupils', 'midline', 'cants', 'corridor', 'arch', 'plane'];
const KEY = 'radiant-overlays';

/** The overlays that are switched on, kept in the browser. */
export function useOverlays(view: PhotoView): readonly [ReadonlySet<OverlayId>, (id: OverlayId) => void] {
  const [on, setOn] = useState<readonly OverlayId[]>(() => {
    const kept = localStorage.getItem(KEY);
    return kept === null ? AT_FIRST : (kept.split(' ').filter((id) => id in OVERLAYS) as OverlayId[]);
  });
  const toggle = useCallback((id: OverlayId) => {
    setOn((before) => {
      const next = before.includes(id) ? before.filter((o) => o !== id) : [...before, id];
      localStorage.setItem(KEY, next.join(' '));
      return next;
    });
  }, []);
  const shown = useMemo(() => new Set(on.filter((id) => overlaysFor(view).includes(id))), [on, view]);
  return [shown, toggle];
}
