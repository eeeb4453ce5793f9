import {
  CASE_STATES,
  type CaseFile,
  type FileChange,
  keysOf,
  mirroredOf,
  PHOTO_VIEWS,
  turnedBy,
} from '@radiant/contract';
import { FlipHorizontal2, RotateCcw, RotateCw } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

/** One photograph, large, and what is said of it. */
export function PhotoCard({ file, onClose }: { file: CaseFile; onClose: () => void }) {
  const { detail, refresh } = useCase();
  const mayWrite = useMayWrite('meet');
  const [refusal, setRefusal] = useState<string>();
  const path = `/cases/${detail.id}/files/${file.id}`;
  const act = async (work: () => Promise<unknown>) => {
    setRefusal(undefined);
    try {
      await work();
      await refresh();
      return true;
    } catch (error) {
      setRefusal(sentenceOf(error));
      return false;
    }
  };
  const say = (change: FileChange) => void act(() => api.patch(path, change));
  const putAway = async () => {
    if (await act(() => api.remove(path))) onClose();
  };
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (open) return;
        // A field that is left by Esc says what was typed into it.
        (document.activeElement as HTMLElement | null)?.blur();
        onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/50" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-40 grid max-h-[92vh] w-[1060px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 grid-cols-[minmax(0,1fr)_280px] overflow-hidden rounded-xl bg-leaf shadow-xl"
        >
          <div className="flex min-h-[380px] items-center justify-center bg-bench p-4">
            <img
              src={photoUrl(detail.id, file)}
              alt={file.view ? PHOTO_VIEWS[file.view] : file.name}
              className="max-h-[84vh] max-w-full object-contain"
            />
          </div>
          <div className="flex flex-col gap-3 overflow-y-auto p-5">
            <Dialog.Title className="title break-words">{file.view ? PHOTO_VIEWS[file.view] : file.name}</Dialog.Title>
            <p className="text-note text-ink-2">
              {file.width} × {file.height} px, {(file.bytes / 1e6).toFixed(1)} MB, {file.origin}
            </p>
            {mayWrite && (
              <span className="flex flex-wrap gap-1.5">
                <button type="button" className="chip chip-flat" onClick={() => say(turnedBy(file.lay, -1))}>
                  <RotateCcw size={15} aria-hidden="true" /> turn left
                </button>
                <button type="button" className="chip chip-flat" onClick={() => say(turnedBy(file.lay, 1))}>
                  <RotateCw size={15} aria-hidden="true" /> turn right
                </button>
                <button type="button" className="chip chip-flat" onClick={() => say(mirroredOf(file.lay))}>
                  <FlipHorizontal2 size={15} aria-hidden="true" /> mirror
                </button>
              </span>
            )}
            <Choice
              label="View"
              value={file.view}
              words={PHOTO_VIEWS}
              disabled={!mayWrite}
              onChange={(view) => say({ view })}
            />
            <Choice
              label="State of the mouth"
              value={file.state}
              words={CASE_STATES}
              disabled={!mayWrite}
              onChange={(state) => say({ state })}
            />
            <label className="block">
              <span className="mb-1 block text-note">Taken on</span>
              <input
                type="date"
                className="field"
                value={file.takenOn ?? ''}
                disabled={!mayWrite}
                onChange={(e) => say({ takenOn: e.target.value || null })}
              />
            </label>
            <label className="block">
              <span className="mb-1 block text-note">Taken by</span>
              <input
                className="field"
                defaultValue={file.takenBy}
                disabled={!mayWrite}
                onBlur={(e) =>
                  e.target.value.trim() && e.target.value !== file.takenBy && say({ takenBy: e.target.value.trim() })
                }
              />
            </label>
            {refusal && (
              <p role="alert" className="rounded-lg border border-stop px-3 py-2 text-note text-stop">
                {refusal}
              </p>
            )}
            <span className="flex-1" />
            {mayWrite && (
              <button type="button" className="btn btn-ghost" onClick={() => void putAway()}>
                Put away
              </button>
            )}
            <Dialog.Close className="btn">Close</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Choice<K extends string>({
  label,
  value,
  words,
  disabled,
  onChange,
}: {
  label: string;
  value: K | null;
  words: Readonly<Record<K, string>>;
  disabled: boolean;
  onChange: (v: K | null) => void;
}) {
  return (
    <label className="block">
      <span className="mb-1 block text-note">{label}</span>
      <select
        className="field"
        value={value ?? ''}
        disabled={disabled}
        onChange={(e) => onChange((e.target.value || null) as K | null)}
      >
        <option value="">not said</option>
        {keysOf(words).map((k) => (
          <option key={k} value={k}>
            {words[k]}
          </option>
        ))}
      </select>
    </label>
  );
}
