import { type CaseFile, type CaseState, keysOf, PHOTO_VIEWS } from '@radiant/contract';
import { useState } from 'react';
import { useCase } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day } from '../../ui/format.js';
import { PhotoCard } from './PhotoCard.js';
import { SortPhotos } from './SortPhotos.js';

/** The ten standard views in one state of the mouth; what nobody has sorted yet stands below. */
export function PhotoWall({ photos, state }: { photos: readonly CaseFile[]; state: CaseState }) {
  const [shown, setShown] = useState<string>();
  const [sorting, setSorting] = useState(false);
  const mayWrite = useMayWrite('meet');
  // As cameras number them.
  const unsorted = photos
    .filter((f) => !f.view || !f.state)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const open = photos.find((f) => f.id === shown);
  return (
    <>
      <ul className="grid grid-cols-3 gap-2.5 @[420px]:grid-cols-5">
        {keysOf(PHOTO_VIEWS).map((view) => {
          const own = photos.filter((f) => f.view === view && f.state === state);
          const newest = own.at(-1);
          return (
            <li key={view} data-view={view}>
              {newest ? (
                <Thumb
                  file={newest}
                  caption={PHOTO_VIEWS[view]}
                  more={own.length - 1}
                  onOpen={() => setShown(newest.id)}
                />
              ) : (
                <div className="flex aspect-[3/2] items-end rounded-lg border border-dashed border-[#b9b3a8] p-2 text-fine text-ink-2">
                  {PHOTO_VIEWS[view]}
                </div>
              )}
            </li>
          );
        })}
      </ul>
      {unsorted.length > 0 && (
        <section aria-label="Not sorted yet">
          <div className="mb-1.5 flex items-center gap-3">
            <h3 className="text-note text-ink-2">
              {unsorted.length === 1 ? 'One photograph has' : `${unsorted.length} photographs have`} no view or state
              yet
            </h3>
            {mayWrite && (
              <button type="button" className="btn" onClick={() => setSorting(true)}>
                Sort {unsorted.length === 1 ? 'it' : 'them'}
              </button>
            )}
          </div>
          <ul className="flex flex-wrap gap-2.5">
            {unsorted.map((f) => (
              <li key={f.id} className="w-[120px]">
                <Thumb file={f} caption={f.name} more={0} onOpen={() => setShown(f.id)} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {sorting && <SortPhotos photos={unsorted} state={state} onClose={() => setSorting(false)} />}
      {open && <PhotoCard key={open.id} file={open} onClose={() => setShown(undefined)} />}
    </>
  );
}

function Thumb({ file, caption, more, onOpen }: { file: CaseFile; caption: string; more: number; onOpen: () => void }) {
  const { detail } = useCase();
  return (
    <button type="button" className="group block w-full overflow-hidden rounded-lg bg-bench text-left" onClick={onOpen}>
      <img
        src={photoUrl(detail.id, file, 'thumbnail')}
        alt=""
        className={`aspect-[3/2] w-full object-cover ${file.view?.startsWith('portrait') ? 'object-[50%_62%]' : ''}`}
      />
      <span className="block truncate bg-leaf px-2 pt-1 text-fine group-hover:text-plum">
        {caption}
        {more > 0 && <span className="text-ink-2"> and {more} older</span>}
      </span>
      <span className="block truncate bg-leaf px-2 pb-1 text-tiny text-ink-2">{day(file.takenOn ?? file.at)}</span>
    </button>
  );
}
