import { type CaseFile, EMPTY_SECTIONS } from '@radiant/contract';
import { ImageUp } from 'lucide-react';
import { AlertDialog } from 'radix-ui';
import { type DragEvent, useRef, useState } from 'react';
import { api, sentenceOf } from '../data/api.js';
import { useCase, useSection } from '../data/case-context.js';
import { useMayWrite } from '../shell/ReadOnlyNote.js';
import { Empty } from '../shell/Stage.js';

/** Puts a photograph of one's own on the bench. Landmarks of the one before stay reachable by undo. */
export function PhotoUpload({ compact = false }: { compact?: boolean }) {
  const input = useRef<HTMLInputElement>(null);
  const { take, busy, refusal } = useTakePhoto();
  const { detail } = useCase();
  const { data } = useSection('read');
  const mayWrite = useMayWrite('read');
  const [waiting, setWaiting] = useState<File>();
  if (!mayWrite) return null;
  const photo = detail.files.find((f) => f.id === data.photoId);
  const ask = (file: File | undefined) => (file && data.landmarks.length > 0 ? setWaiting(file) : void take(file));
  return (
    <span className="flex flex-col items-end gap-1.5">
      <button type="button" className={compact ? 'chip' : 'btn'} disabled={busy} onClick={() => input.current?.click()}>
        <ImageUp size={compact ? 15 : 17} aria-hidden="true" /> {busy ? 'Sending …' : photo ? 'other photograph' : 'Choose a photograph'}
      </button>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png"
        className="sr-only"
        tabIndex={-1}
        aria-label="Photograph file"
        onChange={(e) => {
          ask(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      <AlertDialog.Root open={!!waiting} onOpenChange={(open) => !open && setWaiting(undefined)}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
          <AlertDialog.Content className="fixed left-1/2 top-1/2 z-40 w-[440px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-leaf p-7 shadow-xl">
            <AlertDialog.Title className="title">Put {waiting?.name} in its place?</AlertDialog.Title>
            <AlertDialog.Description className="mb-5 mt-2 text-ink-2">
              {data.landmarks.length} landmarks stand on the photograph that is on the bench. They don’t fit another one and go with it; undo brings both back.
            </AlertDialog.Description>
            <span className="flex justify-end gap-2">
              <AlertDialog.Cancel className="btn btn-ghost">Keep the old one</AlertDialog.Cancel>
              <AlertDialog.Action className="btn" onClick={() => void take(waiting)}>
                Put it in
              </AlertDialog.Action>
            </span>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
      {compact && photo?.origin.startsWith('simulated') && <span className="rounded-md bg-ink/70 px-2 py-0.5 text-[12px] text-white">{photo.origin}</span>}
      {refusal && (
        <span role="alert" className="max-w-[360px] rounded-lg bg-leaf px-3 py-2 text-[13px] text-stop shadow">
          {refusal}
        </span>
      )}
    </span>
  );
}

function useTakePhoto() {
  const { detail, refresh } = useCase();
  const { set } = useSection('read');
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string>();
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > 50 * 1024 * 1024) return setRefusal('The file is larger than 50 MB.');
    setBusy(true);
    setRefusal(undefined);
    try {
      const made = await api.upload<CaseFile>(`/cases/${detail.id}/files?kind=photo`, file);
      await refresh();
      set({ ...EMPTY_SECTIONS.read, photoId: made.id, calibration: null });
    } catch (error) {
      setRefusal(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return { take, busy, refusal };
}

/** The bench before there is a photograph: drop one here. */
export function NoPhoto() {
  const { take, refusal } = useTakePhoto();
  const mayWrite = useMayWrite('read');
  const drop = (e: DragEvent) => {
    e.preventDefault();
    void take(e.dataTransfer.files[0]);
  };
  return (
    <section aria-label="Photograph" className="h-full" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Empty title="No photograph yet">
        <p className="mb-5">
          A retracted front view, straight on, with a scale in the plane of the central incisors. JPEG or PNG, up to 50 MB; drop it here or choose it.
        </p>
        {mayWrite ? (
          <span className="flex justify-center">
            <PhotoUpload />
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
