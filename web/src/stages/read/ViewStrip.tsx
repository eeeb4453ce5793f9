import { keysOf, PHOTO_VIEWS, type PhotoView } from '@radiant/contract';
import { frontRow, LANDMARK_KINDS, pointsOf } from '@radiant/core';
import { memo } from 'react';
import { readBench } from '../../data/bench-reading.js';
import { useCase, useSection } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useReading } from '../../data/reading.js';

const SHORT: Readonly<Record<PhotoView, string>> = {
  'portrait-rest': 'portrait',
  'portrait-smile': 'portrait, smile',
  'close-rest': 'lips, rest',
  'close-smile': 'lips, smile',
  'retracted-front': 'front',
  'retracted-right': 'right',
  'retracted-left': 'left',
  'upper-occlusal': 'upper',
  'lower-occlusal': 'lower',
  'twelve-oclock': 'twelve o’clock',
};

/** The ten standard views in a row: which have a photograph, how far each is marked, and which is on the bench. */
export function ViewStrip({ view, onChange }: { view: PhotoView; onChange: (v: PhotoView) => void }) {
  const { detail } = useCase();
  const { data } = useSection('read');
  const row = frontRow(useReading().roles);
  return (
    <nav aria-label="Views" className="absolute inset-x-0 bottom-0 flex h-[74px] gap-1.5 bg-bench-2 px-3 py-2">
      {keysOf(PHOTO_VIEWS).map((v) => {
        const reading = readBench(data, v, detail.files);
        const outlines = v === 'retracted-front' ? row.length * LANDMARK_KINDS.length : 0;
        const all = pointsOf(v, row).length + outlines;
        const set = reading.points.length + reading.landmarks.length;
        return (
          <ViewButton
            key={v}
            view={v}
            on={v === view}
            all={all}
            set={set}
            src={reading.photo && photoUrl(detail.id, reading.photo, 'thumbnail')}
            onChange={onChange}
          />
        );
      })}
    </nav>
  );
}

interface ButtonProps {
  readonly view: PhotoView;
  readonly on: boolean;
  readonly all: number;
  readonly set: number;
  readonly src: string | undefined;
  readonly onChange: (v: PhotoView) => void;
}

/** One view; drawn again only when what it shows has changed. */
const ViewButton = memo(
  function ViewButton({ view, on, all, set, src, onChange }: ButtonProps) {
    return (
      <button
        type="button"
        aria-current={on ? 'true' : undefined}
        title={PHOTO_VIEWS[view]}
        aria-label={`${SHORT[view]}: ${src ? `${set} of ${all} points` : 'no photograph'}`}
        className={`relative min-w-0 flex-1 overflow-hidden rounded-md text-left ${on ? 'ring-2 ring-white' : 'opacity-80 hover:opacity-100'}`}
        onClick={() => onChange(view)}
      >
        {src ? (
          <img src={src} alt="" className="h-full w-full object-cover" />
        ) : (
          <span className="block h-full w-full border border-dashed border-white/50" />
        )}
        <span className="absolute inset-x-0 bottom-0 truncate bg-ink/75 px-1 py-px text-tiny leading-4 text-white">
          {SHORT[view]}
        </span>
        {set > 0 && all > 0 && (
          <span className="absolute left-0 top-0 h-[3px] bg-[#e3b4dd]" style={{ width: `${(100 * set) / all}%` }} />
        )}
      </button>
    );
  },
  (a, b) => a.on === b.on && a.all === b.all && a.set === b.set && a.src === b.src,
);
