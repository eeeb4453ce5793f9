import { CASE_STATES, type CaseState, keysOf, type PhotoView, PICTURE_ACCEPT } from '@radiant/contract';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { useCase } from '../../data/case-context.js';
import { useUploads } from '../../data/uploads.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { KeyHint, Stage } from '../../ui/StageLayout.js';
import { Compare } from './Compare.js';
import { PhotoWall } from './PhotoWall.js';
import { PutAway } from './PutAway.js';
import { QueueList } from './QueueList.js';
import { Record } from './Record.js';
import { ToothHistory } from './ToothHistory.js';

/** Meet: who, what they want, by when, what to beware of; the photo wall and what the teeth have behind them. */
export default function Meet() {
  const { detail } = useCase();
  const mayWrite = useMayWrite('meet');
  const photos = detail.files.filter((f) => f.kind === 'photo');
  const [state, setState] = useState<CaseState>('before');
  const { queue, items } = useUploads(detail.id);

  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    disabled: !mayWrite,
    onDrop: (files, _, event) => {
      const slot = (event.target as HTMLElement | null)?.closest<HTMLElement>('[data-view]')?.dataset.view as
        | PhotoView
        | undefined;
      queue.add(files, slot ? { view: slot, state } : { state });
    },
  });
  return (
    <Stage
      bench={
        <div
          {...getRootProps({
            className: `@container flex h-full flex-col gap-3 overflow-y-auto px-6 py-4 max-sm:px-3 ${isDragActive ? 'bg-plum-soft' : ''}`,
          })}
        >
          <input {...getInputProps({ 'aria-label': 'Photograph files', accept: PICTURE_ACCEPT })} />
          <div className="flex flex-wrap items-center gap-1.5">
            <h2 className="title mr-1.5 text-figure">Photographs</h2>
            {keysOf(CASE_STATES).map((s) => (
              <button
                key={s}
                type="button"
                className="chip chip-flat"
                aria-pressed={s === state}
                onClick={() => setState(s)}
              >
                {CASE_STATES[s]}{' '}
                <span className={s === state ? '' : 'text-ink-2'}>{photos.filter((f) => f.state === s).length}</span>
              </button>
            ))}
            <span className="flex-1" />
            <PutAway />
            <Compare photos={photos} />
            {mayWrite && (
              <button type="button" className="btn" aria-label="Add photographs" onClick={open}>
                Add
              </button>
            )}
          </div>
          <PhotoWall photos={photos} state={state} />
          <QueueList items={items} queue={queue} />
          <ToothHistory />
        </div>
      }
      panel={<Record />}
      foot={
        <>
          <span>
            {mayWrite
              ? 'drop pictures anywhere; on a place of the wall they take its view'
              : 'the practice adds photographs'}
          </span>
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">Cautions warn; the treating clinician decides.</span>
        </>
      }
    />
  );
}
