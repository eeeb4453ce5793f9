import {
  CASE_STATES,
  type CaseFile,
  type CaseState,
  type FileChange,
  keysOf,
  mirroredOf,
  PHOTO_VIEWS,
  type PhotoView,
  readFileName,
  turnedBy,
} from '@radiant/contract';
import { Check, FlipHorizontal2, RotateCcw, RotateCw } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { api, sentenceOf } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';
import { photoUrl } from '../../data/photo-url.js';
import { useGuesses } from './use-guesses.js';

const VIEWS = keysOf(PHOTO_VIEWS);
const toSort = (left: number) => (left === 1 ? 'One photograph to sort' : `${left} photographs to sort`);
/** The digits in the order of the keyboard. */
const keyAt = (i: number) => String((i + 1) % 10);

/**
 * All photographs that nobody has sorted yet, in one screen: one key or one click says a picture's view, and the next
 * one comes up. What the program guesses is marked, and taken only when it is asked for.
 * @param photos to be sorted, in order; those that were sorted since it opened stay in the row
 * @param state in which pictures were taken of which nobody has said it
 */
export function SortPhotos({
  photos,
  state: first,
  onClose,
}: {
  photos: readonly CaseFile[];
  state: CaseState;
  onClose: () => void;
}) {
  const { detail, refresh } = useCase();
  // What was sorted stays in the row; what arrives meanwhile is put behind it.
  const [seen, setSeen] = useState(() => photos.map((f) => f.id));
  const order = [...seen, ...photos.map((f) => f.id).filter((id) => !seen.includes(id))];
  const length = order.length;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the row only grows, so its length tells it
  useEffect(() => setSeen(order), [length]);
  const rows = order.flatMap((id) => detail.files.find((f) => f.id === id) ?? []);
  const guesses = useGuesses(rows);
  const [state, setState] = useState(first);
  const [at, setAt] = useState(0);
  /** Said here and not yet come back from the server. */
  const [said, setSaid] = useState<ReadonlyMap<string, FileChange>>(new Map());
  const going = useRef(new Map<string, Promise<void>>());
  /** Changes that the server has not answered yet: until it has, nothing is called sorted. */
  const [onTheWay, setOnTheWay] = useState(0);
  const [refusal, setRefusal] = useState<string>();
  const nowOf = (f: CaseFile): CaseFile => {
    const { quarterTurns = f.lay.quarterTurns, mirrored = f.lay.mirrored, ...rest } = said.get(f.id) ?? {};
    return { ...f, ...rest, lay: { quarterTurns, mirrored } } as CaseFile;
  };
  const shown = rows.map(nowOf);
  const own = shown[Math.min(at, shown.length - 1)];
  const left = shown.filter((f) => !f.view).length;
  /** As the server has it: a picture that is being turned is shown when it is. */
  const urlOf = (f: CaseFile, size: 'thumbnail' | 'preview') =>
    photoUrl(detail.id, rows.find((q) => q.id === f.id) ?? f, size);
  const guessOf = (f: CaseFile) => guesses.get(urlOf(f, 'thumbnail'));

  const say = async (f: CaseFile, change: FileChange): Promise<void> => {
    setRefusal(undefined);
    setSaid((all) => new Map(all).set(f.id, { ...all.get(f.id), ...change }));
    // What is said of one picture goes one after the other, or an earlier turn could come last.
    const before = going.current.get(f.id);
    const sent = (async () => {
      await before?.catch(() => undefined);
      await api.patch(`/cases/${detail.id}/files/${f.id}`, change);
    })();
    going.current.set(f.id, sent);
    setOnTheWay((n) => n + 1);
    try {
      await sent;
      await refresh();
    } catch (error) {
      setSaid((all) => new Map([...all].filter(([id]) => id !== f.id)));
      setRefusal(`${f.name}: ${sentenceOf(error)}`);
    } finally {
      setOnTheWay((n) => n - 1);
    }
  };
  const sort = (f: CaseFile, view: PhotoView) => {
    void say(f, { view, state: f.state ?? state });
    const next = shown.findIndex((q, i) => i > at && !q.view);
    const any = shown.findIndex((q) => !q.view && q.id !== f.id);
    setAt(next >= 0 ? next : any >= 0 ? any : at);
  };
  const takeAll = () => {
    for (const f of shown) {
      const guess = guessOf(f);
      if (!f.view && guess) void say(f, { view: guess.view, state: f.state ?? state });
    }
  };
  const lie = (change: FileChange) => own && void say(own, change);
  const acts = new Map<string, () => void>([
    ['ArrowRight', () => setAt(Math.min(shown.length - 1, at + 1))],
    ['ArrowLeft', () => setAt(Math.max(0, at - 1))],
    ['r', () => own && lie(turnedBy(own.lay, 1))],
    ['l', () => own && lie(turnedBy(own.lay, -1))],
    ['m', () => own && lie(mirroredOf(own.lay))],
  ]);
  const press = (e: KeyboardEvent) => {
    if (!own || e.ctrlKey || e.metaKey || e.altKey) return;
    const view = VIEWS.find((_, i) => keyAt(i) === e.key);
    const guess = guessOf(own);
    const onButton = (e.target as HTMLElement).tagName === 'BUTTON';
    const act = view
      ? () => sort(own, view)
      : e.key === 'Enter' && guess && !onButton
        ? () => sort(own, guess.view)
        : acts.get(e.key);
    if (!act) return;
    e.preventDefault();
    act();
  };
  if (!own) return null;
  const guess = guessOf(own);
  const guessed = shown.filter((f) => !f.view && guessOf(f)).length;
  const named = readFileName(own.name).state;
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/50" />
        <Dialog.Content
          aria-describedby={undefined}
          onKeyDown={press}
          className="fixed inset-4 z-40 flex flex-col overflow-hidden rounded-xl bg-leaf shadow-xl focus-visible:outline-none"
          onOpenAutoFocus={(e) => {
            // Keys are for the picture, so no button is under Enter at first.
            e.preventDefault();
            (e.currentTarget as HTMLElement).focus();
          }}
        >
          <div className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-hair px-5 py-3">
            <Dialog.Title className="title text-figure">
              {left > 0 ? toSort(left) : onTheWay ? 'Being saved …' : 'All are sorted'}
            </Dialog.Title>
            <span className="flex-1" />
            <span className="text-note text-ink-2">taken</span>
            {keysOf(CASE_STATES).map((s) => (
              <button
                key={s}
                type="button"
                className="chip chip-flat"
                aria-pressed={s === (own.state ?? state)}
                onClick={() => (own.state ? void say(own, { state: s }) : setState(s))}
              >
                {CASE_STATES[s]}
              </button>
            ))}
            {guessed > 1 && (
              <button type="button" className="btn btn-ghost" onClick={takeAll}>
                Take all {guessed} guesses
              </button>
            )}
            <Dialog.Close className="btn">{left === 0 ? 'Done' : 'Later'}</Dialog.Close>
          </div>
          <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_300px] max-md:grid-cols-1 max-md:overflow-y-auto">
            <div className="relative flex min-h-[220px] items-center justify-center bg-bench p-4">
              <img
                key={own.id}
                src={urlOf(own, 'preview')}
                alt={own.name}
                className="max-h-full max-w-full object-contain"
              />
              <span className="absolute bottom-3 left-3 flex gap-1.5">
                <button type="button" className="chip" title="turn left, L" onClick={() => lie(turnedBy(own.lay, -1))}>
                  <RotateCcw size={15} aria-hidden="true" /> turn left
                </button>
                <button type="button" className="chip" title="turn right, R" onClick={() => lie(turnedBy(own.lay, 1))}>
                  <RotateCw size={15} aria-hidden="true" /> turn right
                </button>
                <button type="button" className="chip" title="mirror, M" onClick={() => lie(mirroredOf(own.lay))}>
                  <FlipHorizontal2 size={15} aria-hidden="true" /> mirror
                </button>
              </span>
            </div>
            <div className="flex min-h-0 flex-col gap-1 overflow-y-auto px-4 py-3">
              <p className="break-words font-semibold">{own.name}</p>
              <p className="mb-1.5 min-h-[2.6em] text-note text-ink-2">
                {guess === undefined
                  ? 'Being looked at …'
                  : guess
                    ? `A guess by its colours: ${guess.because}. Enter takes it.`
                    : 'Its colours tell no view.'}
                {named && named !== (own.state ?? state) && ` Its name says “${CASE_STATES[named]}”.`}
              </p>
              {VIEWS.map((view, i) => {
                const there = detail.files.some(
                  (f) => f.id !== own.id && f.view === view && f.state === (own.state ?? state),
                );
                return (
                  <button
                    key={view}
                    type="button"
                    aria-pressed={own.view === view}
                    className={`flex min-h-[34px] items-center gap-2.5 rounded-md px-2 text-left hover:bg-porcelain aria-pressed:bg-plum aria-pressed:text-white ${
                      guess?.view === view ? 'shadow-[inset_0_0_0_2px_var(--color-plum)]' : ''
                    }`}
                    onClick={() => sort(own, view)}
                  >
                    <kbd className="key">{keyAt(i)}</kbd>
                    <span className="flex-1">
                      {PHOTO_VIEWS[view]}
                      {guess?.view === view && <span className="sr-only">(the guess)</span>}
                    </span>
                    {there && <span className="text-tiny opacity-75">has one</span>}
                  </button>
                );
              })}
              {refusal && (
                <p role="alert" className="mt-2 rounded-lg border border-stop px-3 py-2 text-note text-stop">
                  {refusal}
                </p>
              )}
            </div>
          </div>
          <ul className="flex shrink-0 gap-2 overflow-x-auto border-t border-hair px-4 py-2.5" aria-label="In order">
            {shown.map((f, i) => (
              <li key={f.id} className="w-[104px] shrink-0">
                <button
                  type="button"
                  aria-current={f.id === own.id}
                  className="block w-full overflow-hidden rounded-md text-left aria-[current=true]:shadow-[0_0_0_2.5px_var(--color-plum)]"
                  onClick={() => setAt(i)}
                >
                  <img
                    src={urlOf(f, 'thumbnail')}
                    alt={f.name}
                    className="aspect-[3/2] w-full bg-bench object-contain"
                  />
                  <span className="flex items-center gap-1 px-1 py-0.5 text-tiny">
                    {f.view && <Check size={12} aria-hidden="true" className="shrink-0" />}
                    <span className={`truncate ${f.view ? '' : 'text-ink-2'}`}>
                      {f.view ? PHOTO_VIEWS[f.view] : 'to sort'}
                    </span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
