import {
  CASE_STATES,
  type CaseFile,
  megabytes,
  PHOTO_MOST_BYTES,
  PHOTO_TOO_LARGE,
  PHOTO_VIEWS,
  type PhotoView,
  PICTURE_ACCEPT,
  PICTURE_NAMES,
  type ReadSection,
} from '@radiant/contract';
import { ImageUp } from 'lucide-react';
import { AlertDialog, Popover } from 'radix-ui';
import { type DragEvent, memo, useRef, useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { readBench, withReading } from '../../data/bench-reading.js';
import { useCase, useSection } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useLatest } from '../../data/use-latest.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day } from '../../ui/format.js';
import { Empty } from '../../ui/StageLayout.js';

/** What would be put on the bench: a file of one's own, or a photograph that the case holds. */
type Other = { readonly name: string; readonly file: File } | { readonly name: string; readonly held: CaseFile };

/** Puts another photograph of the view on the bench. Points of the one before stay reachable by undo. */
export function PhotoUpload({ view, compact = false }: { view: PhotoView; compact?: boolean }) {
  const { take, busy, refusal } = useTakePhoto(view);
  const { detail } = useCase();
  const { data } = useSection('read');
  const mayWrite = useMayWrite('read');
  const { photo, points, landmarks } = readBench(data, view, detail.files);
  const count = points.length + landmarks.length;
  const latest = useLatest(take);
  if (!mayWrite) return null;
  return (
    <Choice view={view} compact={compact} photo={photo} count={count} busy={busy} refusal={refusal} take={latest} />
  );
}

interface ChoiceProps {
  readonly view: PhotoView;
  readonly compact: boolean;
  readonly photo: CaseFile | undefined;
  readonly count: number;
  readonly busy: boolean;
  readonly refusal: string | undefined;
  readonly take: { readonly current: (other: Other) => Promise<void> };
}

/** A photograph that the case holds, or a file of one's own; asks before points are put aside. */
const Choice = memo(function Choice({ view, compact, photo, count, busy, refusal, take }: ChoiceProps) {
  const input = useRef<HTMLInputElement>(null);
  const { detail } = useCase();
  const [waiting, setWaiting] = useState<Other>();
  const ask = (other: Other) => (count > 0 ? setWaiting(other) : void take.current(other));
  const words = busy ? (
    'Sending …'
  ) : !photo ? (
    'Choose a photograph'
  ) : compact ? (
    <span className="sr-only">other photograph</span>
  ) : (
    'other photograph'
  );
  const held = detail.files.filter((f) => f.kind === 'photo' && f.view === view && f.id !== photo?.id);
  return (
    <span className="flex flex-col items-end gap-1.5">
      {held.length > 0 ? (
        <Popover.Root>
          <Popover.Trigger className={compact ? 'chip' : 'btn'} disabled={busy} title="other photograph">
            <ImageUp size={compact ? 15 : 17} aria-hidden="true" /> {words}
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              align="end"
              sideOffset={8}
              className="z-20 w-[290px] rounded-xl border border-hair bg-leaf p-3 shadow-lg"
            >
              {held.map((f) => (
                <Popover.Close
                  key={f.id}
                  className="flex w-full items-center gap-3 rounded-md p-1.5 text-left hover:bg-porcelain"
                  onClick={() => ask({ name: f.name, held: f })}
                >
                  <img
                    src={photoUrl(detail.id, f, 'thumbnail')}
                    alt=""
                    className="h-10 w-[60px] rounded object-cover"
                  />
                  <span className="min-w-0 flex-1 truncate text-note">
                    {f.state ? CASE_STATES[f.state] : 'state not said'}
                    <span className="block text-ink-2">{day(f.takenOn ?? f.at)}</span>
                  </span>
                </Popover.Close>
              ))}
              <Popover.Close className="how mt-2 px-1.5" onClick={() => input.current?.click()}>
                a new file …
              </Popover.Close>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      ) : (
        <button
          type="button"
          className={compact ? 'chip' : 'btn'}
          disabled={busy}
          title={photo ? 'other photograph' : undefined}
          onClick={() => input.current?.click()}
        >
          <ImageUp size={compact ? 15 : 17} aria-hidden="true" /> {words}
        </button>
      )}
      <input
        ref={input}
        type="file"
        accept={PICTURE_ACCEPT}
        className="sr-only"
        tabIndex={-1}
        aria-label="Photograph file"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) ask({ name: file.name, file });
          e.target.value = '';
        }}
      />
      <AlertDialog.Root open={!!waiting} onOpenChange={(open) => !open && setWaiting(undefined)}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
          <AlertDialog.Content className="fixed left-1/2 top-1/2 z-40 w-[440px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-leaf p-7 shadow-xl">
            <AlertDialog.Title className="title">Put {waiting?.name} in its place?</AlertDialog.Title>
            <AlertDialog.Description className="mb-5 mt-2 text-ink-2">
              {count} {view === 'retracted-front' ? 'landmarks' : 'points'} stand on the photograph that is on the
              bench. They don’t fit another one and go with it; undo brings both back.
            </AlertDialog.Description>
            <span className="flex justify-end gap-2">
              <AlertDialog.Cancel className="btn btn-ghost">Keep the old one</AlertDialog.Cancel>
              <AlertDialog.Action className="btn" onClick={() => waiting && void take.current(waiting)}>
                Put it in
              </AlertDialog.Action>
            </span>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
      {compact && photo?.origin.startsWith('simulated') && (
        <span className="rounded-md bg-ink/70 px-2 py-0.5 text-tiny text-white">{photo.origin}</span>
      )}
      {refusal && (
        <span role="alert" className="max-w-[360px] rounded-lg bg-leaf px-3 py-2 text-note text-stop shadow">
          {refusal}
        </span>
      )}
    </span>
  );
});

/** The section with another photograph on a view's bench and nothing marked on it. */
function withPhoto(read: ReadSection, view: PhotoView, photoId: string): ReadSection {
  const bare = { photoId, calibration: null, check: null, points: [], landmarks: [], drawn: [] };
  return withReading(read, view, bare);
}

function useTakePhoto(view: PhotoView) {
  const { detail, refresh } = useCase();
  const { data, set } = useSection('read');
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string>();
  const take = async (other: Other): Promise<void> => {
    setRefusal(undefined);
    if ('held' in other) return set(withPhoto(data, view, other.held.id));
    if (other.file.size > PHOTO_MOST_BYTES) return setRefusal(PHOTO_TOO_LARGE);
    setBusy(true);
    try {
      const made = await api.upload<CaseFile>(`/cases/${detail.id}/files?kind=photo&view=${view}`, other.file);
      await refresh();
      set(withPhoto(data, view, made.id));
    } catch (error) {
      setRefusal(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return { take, busy, refusal };
}

const WHAT: Readonly<Partial<Record<PhotoView, string>>> = {
  'retracted-front': 'A retracted front view, straight on, with a scale in the plane of the central incisors.',
  'portrait-smile': 'The whole face in full smile, eyes open, the camera level with the mouth.',
  'portrait-rest': 'The whole face, lips at rest and slightly apart, the camera level with the mouth.',
  'close-rest': 'The lips at rest, slightly apart, straight on.',
  'close-smile': 'The lips in full smile, straight on, both corners in the picture.',
  'upper-occlusal': 'The upper arch from below, by a mirror, the front at the top, the patient’s left at the right.',
  'lower-occlusal': 'The lower arch from above, by a mirror, the front at the foot, the patient’s left at the right.',
};

/** The bench before there is a photograph: drop one here. */
export function NoPhoto({ view }: { view: PhotoView }) {
  const { take, refusal } = useTakePhoto(view);
  const mayWrite = useMayWrite('read');
  const drop = (e: DragEvent) => {
    e.preventDefault();
    const file = e.dataTransfer.files[0];
    if (file) void take({ name: file.name, file });
  };
  return (
    <section aria-label="Photograph" className="h-full" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Empty title="No photograph yet">
        <p className="mb-5">
          {WHAT[view] ?? `${PHOTO_VIEWS[view].replace(/^./, (c) => c.toUpperCase())} view.`} {PICTURE_NAMES}, up to{' '}
          {megabytes(PHOTO_MOST_BYTES)}; drop it here or choose it.
        </p>
        {mayWrite ? (
          <span className="flex justify-center">
            <PhotoUpload view={view} />
          </span>
        ) : (
          <p>The practice adds photographs.</p>
        )}
        {refusal && (
          <p role="alert" className="mt-3 text-stop">
            {refusal}
          </p>
        )}
      </Empty>
    </section>
  );
}
