import { keysOf, PHOTO_VIEWS, type PhotoView } from '@radiant/contract';
import { useEffect } from 'react';
import { useSearchParams } from 'react-router';
import { useBenchReading } from '../data/bench-reading.js';
import { isTyping } from '../shell/Keys.js';
import { Bench } from './Bench.js';

/** Read: one view's photograph on the bench, the ten views below it, and what stands out. */
export default function Read() {
  const [search, setSearch] = useSearchParams();
  const asked = search.get('view') as PhotoView | null;
  const view: PhotoView = asked && asked in PHOTO_VIEWS ? asked : 'retracted-front';
  const { photo } = useBenchReading(view);
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const by = e.key === 'PageDown' ? 1 : e.key === 'PageUp' ? -1 : 0;
      if (!by || isTyping(e)) return;
      const all = keysOf(PHOTO_VIEWS);
      const next = all[(all.indexOf(view) + by + all.length) % all.length] as PhotoView;
      setSearch({ view: next }, { replace: true });
      e.preventDefault();
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [view, setSearch]);
  return <Bench key={`${view} ${photo?.id ?? ''}`} view={view} onView={(v) => setSearch({ view: v }, { replace: true })} />;
}
