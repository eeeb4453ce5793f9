import { keysOf, PHOTO_VIEWS, type PhotoView } from '@radiant/contract';
import { useSearchParams } from 'react-router';
import { useBenchReading } from '../../data/bench-reading.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Bench } from './Bench.js';

/** Read: one view's photograph on the bench, the ten views below it, and what stands out. */
export default function Read() {
  const [search, setSearch] = useSearchParams();
  const asked = search.get('view') as PhotoView | null;
  const view: PhotoView = asked && asked in PHOTO_VIEWS ? asked : 'retracted-front';
  const { photo } = useBenchReading(view);
  useHotkeys('stage', [
    {
      keys: 'PageUp PageDown',
      does: 'view before, view after',
      on: ['pageup', 'pagedown'],
      each: ['view before', 'view after'],
      run: (key) => {
        const all = keysOf(PHOTO_VIEWS);
        const next = all[(all.indexOf(view) + (key === 'pagedown' ? 1 : -1) + all.length) % all.length] as PhotoView;
        setSearch({ view: next }, { replace: true });
      },
    },
  ]);
  return (
    <Bench key={`${view} ${photo?.id ?? ''}`} view={view} onView={(v) => setSearch({ view: v }, { replace: true })} />
  );
}
