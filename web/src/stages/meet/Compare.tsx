import {
  CASE_STATES,
  type CaseFile,
  keysOf,
  PHOTO_VIEWS,
  type PhotoAlignment,
  type PhotoView,
} from '@radiant/contract';
import { alignOnTwo, Refusal, type Similarity } from '@radiant/core';
import { Dialog } from 'radix-ui';
import { useId, useState } from 'react';
import { useCase, useSection } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day } from '../../ui/format.js';
import { AlignPane } from './AlignPane.js';
import { Laid } from './Laid.js';

type Way = 'side by side' | 'slider' | 'align';

/** The similarity that lays one photograph over another by two points of each; none while a point is missing. */
export function laidOver(upper: PhotoAlignment | undefined, lower: PhotoAlignment | undefined): Similarity | undefined {
  if (!upper || !lower) return undefined;
  const two = (a: PhotoAlignment) =>
    [
      [a.first.x, a.first.y],
      [a.second.x, a.second.y],
    ] as const;
  try {
    return alignOnTwo(two(upper), two(lower));
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}

/** Two states of one view beside each other or under a slider, laid over each other by two points. */
export function Compare({ photos }: { photos: readonly CaseFile[] }) {
  const views = keysOf(PHOTO_VIEWS).filter((v) => photos.filter((f) => f.view === v).length > 1);
  const [open, setOpen] = useState(false);
  if (views.length === 0) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn btn-ghost">Compare</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/60" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-4 z-40 grid grid-rows-[auto_minmax(0,1fr)] overflow-hidden rounded-xl bg-bench shadow-xl"
        >
          <Comparison photos={photos} views={views} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const label = (f: CaseFile) => `${f.state ? CASE_STATES[f.state] : 'state not said'}, ${day(f.takenOn ?? f.at)}`;

function Comparison({ photos, views }: { photos: readonly CaseFile[]; views: readonly PhotoView[] }) {
  const { detail } = useCase();
  const { data, set } = useSection('read');
  const mayWrite = useMayWrite('read');
  const [view, setView] = useState<PhotoView>(views[0] as PhotoView);
  const own = photos.filter((f) => f.view === view);
  const [chosen, choose] = useState<readonly [string | undefined, string | undefined]>([undefined, undefined]);
  const left = own.find((f) => f.id === chosen[0]) ?? (own[0] as CaseFile);
  const right =
    own.find((f) => f.id === chosen[1] && f.id !== left.id) ?? (own.filter((f) => f.id !== left.id).at(-1) as CaseFile);
  const alignmentOf = (f: CaseFile) => data.aligned.find((a) => a.photoId === f.id);
  const lay = laidOver(alignmentOf(right), alignmentOf(left));
  const [way, setWay] = useState<Way>('slider');
  const id = useId();
  const put = (a: PhotoAlignment, group?: string) =>
    set({ ...data, aligned: [...data.aligned.filter((q) => q.photoId !== a.photoId), a] }, group);
  const src = (f: CaseFile) => photoUrl(detail.id, f, 'preview');
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 border-b border-hair bg-leaf px-5 py-3">
        <Dialog.Title className="title mr-2">Compare</Dialog.Title>
        <select
          aria-label="View"
          className="field w-[170px]"
          value={view}
          onChange={(e) => setView(e.target.value as PhotoView)}
        >
          {views.map((v) => (
            <option key={v} value={v}>
              {PHOTO_VIEWS[v]}
            </option>
          ))}
        </select>
        {(
          [
            ['left', left, 0],
            ['right', right, 1],
          ] as const
        ).map(([side, file, k]) => (
          <label key={side} htmlFor={`${id}${side}`} className="flex items-center gap-2">
            {side}
            <select
              id={`${id}${side}`}
              className="field w-[190px]"
              value={file.id}
              onChange={(e) => choose(k === 0 ? [e.target.value, right.id] : [left.id, e.target.value])}
            >
              {own.map((f) => (
                <option key={f.id} value={f.id}>
                  {label(f)}
                </option>
              ))}
            </select>
          </label>
        ))}
        <span className="flex-1" />
        {(['side by side', 'slider', ...(mayWrite ? (['align'] as const) : [])] as Way[]).map((w) => (
          <button key={w} type="button" className="chip chip-flat" aria-pressed={way === w} onClick={() => setWay(w)}>
            {w}
          </button>
        ))}
        <Dialog.Close className="btn">Close</Dialog.Close>
      </div>
      <div className="min-h-0 p-4">
        {way === 'align' ? (
          <div className="grid h-full grid-cols-2 gap-4">
            {[left, right].map((f) => (
              <AlignPane key={f.id} file={f} src={src(f)} caption={label(f)} alignment={alignmentOf(f)} put={put} />
            ))}
          </div>
        ) : (
          <Laid
            left={left}
            right={right}
            srcOf={src}
            lay={lay}
            sideBySide={way === 'side by side'}
            labels={[label(left), label(right)]}
          />
        )}
      </div>
    </>
  );
}
