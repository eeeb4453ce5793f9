import { type FindingVerdict, PHOTO_VIEWS, type PhotoView } from '@radiant/contract';
import type { Finding } from '@radiant/core';
import { memo } from 'react';
import { useCase, useSentence } from '../../data/case-context.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { How } from '../../ui/How.js';

interface Shown {
  readonly finding: Finding;
  readonly view: PhotoView;
  readonly own: FindingVerdict | undefined;
  /** Whether it stands on another view than the one on the bench. */
  readonly elsewhere: boolean;
  readonly onShow: (v: PhotoView) => void;
  readonly onJudge: (id: string, next: FindingVerdict | undefined, group?: string) => void;
  readonly onDone: () => void;
}

/**
 * One finding, its working, and what the dentist makes of it: accepted, it goes on to propose as a wish; dismissed, it
 * steps back.
 */
export const FindingView = memo(
  FindingPlain,
  (a, b) =>
    a.finding.id === b.finding.id &&
    a.finding.title === b.finding.title &&
    a.finding.detail === b.finding.detail &&
    a.finding.notice === b.finding.notice &&
    a.own === b.own &&
    a.elsewhere === b.elsewhere,
);

function FindingPlain({ finding: f, view, own, elsewhere, onShow, onJudge, onDone }: Shown) {
  const sentence = useSentence();
  const { selectTooth } = useCase();
  const mayWrite = useMayWrite('read');
  const judge = (next: FindingVerdict | undefined, group?: string) => onJudge(f.id, next, group);
  const toggle = (verdict: FindingVerdict['verdict']) =>
    judge(own?.verdict === verdict ? undefined : { ...own, id: f.id, verdict });
  return (
    <div className={`finding ${own?.verdict === 'dismissed' ? 'opacity-70' : ''}`} data-weight={f.notice}>
      <button
        type="button"
        className="text-left font-[650]"
        onClick={() => {
          if (f.teeth[0]) selectTooth(f.teeth[0]);
          if (elsewhere) onShow(view);
        }}
      >
        {sentence(f.title)}
      </button>
      <span className="block text-note text-ink-2">{sentence(f.detail)}</span>
      <span className="mt-0.5 flex flex-wrap items-center gap-x-3 text-note">
        {elsewhere && (
          <button
            type="button"
            className="text-ink-2 underline-offset-4 hover:text-plum hover:underline"
            onClick={() => onShow(view)}
          >
            {PHOTO_VIEWS[view]}
          </button>
        )}
        {f.figure ? (
          <How figure={f.figure} what={sentence(f.title)} source={f.source} />
        ) : (
          <span className="text-ink-2">from the record</span>
        )}
        {mayWrite && (
          <>
            <Verdict
              on={own?.verdict === 'accepted'}
              word={own?.verdict === 'accepted' ? 'accepted' : 'accept'}
              about={sentence(f.title)}
              act={() => toggle('accepted')}
            />
            <Verdict
              on={own?.verdict === 'dismissed'}
              word={own?.verdict === 'dismissed' ? 'dismissed' : 'dismiss'}
              about={sentence(f.title)}
              act={() => toggle('dismissed')}
            />
          </>
        )}
        {!mayWrite && own && <b className="font-semibold">{own.verdict}</b>}
      </span>
      {own && (
        <input
          className="field mt-1 h-7 text-note"
          aria-label={`Word on: ${sentence(f.title)}`}
          placeholder="why, in a word"
          maxLength={200}
          value={own.word ?? ''}
          disabled={!mayWrite}
          onChange={(e) => {
            const { word: _, ...rest } = own;
            judge(e.target.value ? { ...rest, word: e.target.value } : rest, `word ${f.id}`);
          }}
          onBlur={onDone}
        />
      )}
    </div>
  );
}

function Verdict({ on, word, about, act }: { on: boolean; word: string; about: string; act: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      className={on ? 'font-semibold text-plum' : 'text-ink-2 underline-offset-4 hover:text-plum hover:underline'}
      onClick={act}
    >
      {word}
      <span className="sr-only">: {about}</span>
    </button>
  );
}
