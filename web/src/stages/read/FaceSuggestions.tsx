import { ScanFace } from 'lucide-react';
import type { Face } from './use-face.js';
import type { useGuided } from './use-guided.js';

/** Asks the model of faces for the points of a portrait, and takes what it suggests all at once. */
export function FaceSuggestions({ face, guided }: { face: Face; guided: ReturnType<typeof useGuided> }) {
  const { marks, placeAll } = guided;
  const suggested = marks.filter((m) => m.guessBy === 'face' && m.guess);
  if (!marks.some((m) => !m.at)) return null;
  return (
    <div className="absolute bottom-3 left-4 flex max-w-[420px] flex-wrap items-center gap-2 rounded-lg bg-leaf px-3 py-2 text-note shadow-lg">
      {face.state === 'found' && suggested.length > 0 ? (
        <>
          <span className="text-ink-2">
            {suggested.length} points suggested by a model of faces, dashed. Look at each before you take them.
          </span>
          <button
            type="button"
            className="btn h-8 px-3"
            onClick={() => placeAll?.(suggested.map((m) => ({ id: m.id, px: m.guess as readonly [number, number] })))}
          >
            Take all {suggested.length}
          </button>
        </>
      ) : (
        <>
          <button
            type="button"
            className="how flex items-center gap-1.5"
            disabled={face.state === 'looking'}
            onClick={face.look}
          >
            <ScanFace size={15} aria-hidden="true" />{' '}
            {face.state === 'looking' ? 'Looking for the face …' : 'suggest the points'}
          </button>
          {face.state === 'none' && <span className="text-ink-2">No face is seen; set the points by hand.</span>}
          {face.state === 'failed' && (
            <span role="alert" className="text-stop">
              {face.sentence}
            </span>
          )}
        </>
      )}
    </div>
  );
}
