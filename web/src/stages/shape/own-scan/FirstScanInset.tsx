import type { Jaw, Vec3 } from '@radiant/core';
import { useEffect, useMemo, useState } from 'react';
import { MarkedScene, type Pin } from '../../../bench/MarkedScene.js';
import type { JawView } from '../../../engine/views.js';

/** The case's scan beside another that is laid on it: three places are clicked on both in turn. */
export function FirstScanInset({
  jaw,
  url,
  view,
  places,
  turn,
  onClick,
}: {
  jaw: Jaw;
  url: string;
  view: (url: string) => Promise<JawView | undefined>;
  /** What was clicked here so far. */
  places: readonly Vec3[];
  /** Whether the next click belongs here. */
  turn: boolean;
  onClick: (at: Vec3) => void;
}) {
  const [arch, setArch] = useState<JawView>();
  useEffect(() => {
    let gone = false;
    void view(url).then((a) => !gone && setArch(a));
    return () => {
      gone = true;
    };
  }, [url, view]);
  const pins = useMemo(
    () => places.map((at, i): Pin => ({ id: String(i), at, look: i === places.length - 1 ? 'chosen' : 'marked' })),
    [places],
  );
  return (
    <section
      aria-label="The case’s scan"
      className={`absolute bottom-4 left-4 h-[212px] w-[346px] overflow-hidden rounded-xl bg-bench-2 shadow-lg ${turn ? 'ring-2 ring-white' : ''}`}
    >
      {arch ? (
        <MarkedScene label="The case’s scan in three dimensions" jaw={jaw} arch={arch} pins={pins} onClick={onClick} />
      ) : (
        <p className="p-4 text-note text-white">The case’s scan is being read …</p>
      )}
      <p className="absolute inset-x-0 bottom-0 bg-ink/75 px-3 py-1.5 text-fine text-white">the case’s scan</p>
    </section>
  );
}
