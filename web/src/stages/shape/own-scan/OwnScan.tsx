import { CASE_STATES, type CaseFile } from '@radiant/contract';
import { type Jaw, rowOf } from '@radiant/core';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { View, ViewName } from '../../../bench/arch-eye.js';
import { api, sentenceOf } from '../../../data/api.js';
import { useCase, useSection } from '../../../data/case-context.js';
import { useMayWrite } from '../../../shell/ReadOnlyNote.js';
import { number } from '../../../ui/format.js';
import { useHotkeys } from '../../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../../ui/StageLayout.js';
import { Asking } from './Asking.js';
import type { Coming } from './early.js';
import { HANDS, PLACES_KEY, VIEW_KEYS } from './hands.js';
import { LaidBench } from './LaidBench.js';
import { LaidPanel } from './LaidPanel.js';
import type { ScanSource } from './shown-jaw.js';
import { isGround } from './use-hand-over.js';
import { useHands } from './use-hands.js';
import { type OwnScanWork, useOwnScan } from './use-own-scan.js';
import { useWays } from './use-ways.js';

/** A scan from any scanner becomes the case's: mended, laid into the mouth, its teeth picked out and numbered. */
export function OwnScan(props: { file: CaseFile } | { file: CaseFile | undefined; coming: Coming }) {
  const { file } = props;
  const coming = 'coming' in props ? props.coming : undefined;
  const navigate = useNavigate();
  const meet = useSection('meet').data;
  const missing = useMemo(() => meet.teeth.filter((t) => t.past.includes('missing')).map((t) => t.tooth), [meet]);
  const scan = useOwnScan(useSource(file, coming), missing);
  const { state } = scan;
  const shown = state.state === 'laid' ? state : state.state === 'reading' ? state.seen : undefined;
  const jaw: Jaw = shown ? shown.jaw : state.state === 'asking' ? state.opened.jaw : 'upper';
  const picked = state.state === 'laid' ? state.picked : undefined;
  const [view, setView] = useState<View>({ name: 'front', jaw: 'upper', turn: 0 });
  useEffect(() => setView((v) => ({ ...v, jaw, turn: v.turn + 1 })), [jaw]);
  const free = rowOf(jaw).filter((t) => !picked?.teeth.some((p) => p.tooth === t));
  const hands = useHands(scan, picked, free);
  const ways = useWays(scan, jaw, !!picked && picked.teeth.length > 0, hands);
  useHotkeys('stage', [
    {
      keys: 'C N D P G',
      does: 'choose, add, drag the neck line, paint tooth, paint gum',
      on: HANDS.map((h) => h[2]),
      each: HANDS.map((h) => h[1]),
      run: (key) => hands.take((HANDS.find((h) => h[2] === key) as (typeof HANDS)[number])[0]),
    },
    { keys: 'K', does: 'orient it with three clicks', on: [PLACES_KEY], run: () => hands.take('places') },
    {
      keys: 'F R L A E H',
      does: 'view from front, right, left, above, edge-on, from behind',
      on: Object.keys(VIEW_KEYS),
      each: Object.values(VIEW_KEYS).map((v) => `view: ${v}`),
      run: (key) => setView((v) => ({ ...v, name: VIEW_KEYS[key] as ViewName, turn: v.turn + 1 })),
    },
    {
      keys: 'Ctrl Z, Ctrl Y',
      does: 'take back what was done to the scan, do it again',
      on: ['mod+z', 'mod+y', 'mod+shift+z'],
      each: ['take back what was done to the scan', 'do it again', 'do it again'],
      run: (key) => void (key === 'mod+z' ? scan.undo() : scan.redo()),
    },
    { keys: 'Esc', does: 'choose again', on: ['escape'], run: () => hands.take('choose') },
  ]);
  const back = (
    <button type="button" className="how" onClick={() => navigate('.', { replace: true })}>
      leave without using it
    </button>
  );
  return (
    <Stage
      surround="grey"
      bench={
        shown ? (
          <LaidBench scan={scan} state={shown} hands={hands} ways={ways} view={[view, setView]} />
        ) : (
          <NotYetLaid scan={scan} back={back} away={file && <PutAway file={file} />} />
        )
      }
      panel={
        <>
          <h2 className="title">Own scan</h2>
          <p className="mb-3 text-note text-ink-2">
            {file?.name ?? coming?.file.name}
            {file?.state && `, ${CASE_STATES[file.state]}`}. The file stays as it came; a copy is made to work on.
            {file && !isGround(file) && ' The plan goes on standing on the scan from before.'}
          </p>
          <Mended scan={scan} />
          {!file && shown && (
            <p role="status" className="mb-4 text-note">
              The file is on its way to the case’s record. {back}
            </p>
          )}
          {file && state.state === 'laid' && (
            <LaidPanel file={file} scan={scan} state={state} hands={hands} ways={ways} back={back} />
          )}
        </>
      }
      foot={
        <>
          <KeyHint
            keys={['C', 'N', 'D', 'P', 'G', 'K']}
            does="choose, add, neck line, paint tooth, paint gum, three clicks"
          />
          <KeyHint keys={['F', 'R', 'L', 'A', 'E', 'H']} does="view" />
          <span className="ml-auto">drag turns, wheel zooms</span>
        </>
      }
    />
  );
}

/** Where the scan comes from: the file that was just chosen, or the one on record. */
function useSource(file: CaseFile | undefined, coming: Coming | undefined): ScanSource {
  const { detail } = useCase();
  const navigate = useNavigate();
  const kept = coming && file?.id;
  useEffect(() => {
    if (kept) navigate(`?scan=${kept}`, { replace: true });
  }, [kept, navigate]);
  return useMemo((): ScanSource => {
    const id = file?.id;
    const from = id && `/api/cases/${detail.id}/files/${id}`;
    if (coming) return { key: coming.key, from: from ?? coming.file, id, onRecord: coming.onRecord };
    if (!from) throw new Error('A scan is on its way or on record.');
    return { key: id, from, id, onRecord: Promise.resolve({ id }) };
  }, [file, coming, detail.id]);
}

/** What stands on the bench until the scan lies: how far it is, why it can't be used, or what has to be known. */
function NotYetLaid({ scan, back, away }: { scan: OwnScanWork; back: ReactNode; away: ReactNode }) {
  const { state } = scan;
  if (state.state === 'reading')
    return (
      <div className="flex h-full items-center justify-center bg-porcelain">
        <div role="status" className="w-[320px]">
          <p className="mb-2">{state.what} …</p>
          <div className="h-1.5 overflow-hidden rounded bg-hair">
            <div className="h-full bg-plum" style={{ width: `${Math.round(100 * state.share)}%` }} />
          </div>
          <p className="mt-3 text-note">{back}</p>
        </div>
      </div>
    );
  return (
    <div className="h-full bg-porcelain">
      {state.state === 'failed' && (
        <Empty title="This scan can’t be used">
          <p className="mb-4">{state.sentence}</p>
          {away}
          {back}
        </Empty>
      )}
      {state.state === 'asking' && (
        <Asking opened={state.opened} sentence={state.sentence} busy={scan.busy} begin={scan.begin} back={back} />
      )}
    </div>
  );
}

/** A file that can't be used need not stand in the case's list. */
function PutAway({ file }: { file: CaseFile }) {
  const { detail, refresh } = useCase();
  const navigate = useNavigate();
  const mayWrite = useMayWrite('meet');
  const [refusal, setRefusal] = useState<string>();
  if (!mayWrite) return null;
  const go = async () => {
    try {
      await api.remove(`/cases/${detail.id}/files/${file.id}`);
      await refresh();
      navigate('.', { replace: true });
    } catch (error) {
      setRefusal(sentenceOf(error));
    }
  };
  return (
    <>
      <p className="mb-3">
        <button type="button" className="btn" onClick={() => void go()}>
          Put the file away
        </button>
      </p>
      {refusal && (
        <p role="alert" className="mb-3 text-stop">
          {refusal}
        </p>
      )}
    </>
  );
}

/** What the file holds, and what was mended in it. */
function Mended({ scan }: { scan: OwnScanWork }) {
  const { state, mend } = scan;
  if (state.state !== 'laid' && state.state !== 'asking') return null;
  const { format, triangles, widest, repairs, jaw } = state.opened;
  return (
    <section aria-label="What was mended" className="mb-4 text-note">
      <p>
        {format}, {triangles.toLocaleString('en-GB')} triangles, {number(widest, 1)} mm across; it looks like{' '}
        {jaw === 'upper' ? 'an upper' : 'a lower'} jaw
      </p>
      <ul className="mt-1 list-disc pl-4 text-ink-2">
        {repairs.map((r) => (
          <li key={r.kind}>{r.sentence}</li>
        ))}
        {mend && repairs.length === 0 && <li>nothing had to be mended</li>}
        {!mend && <li>as it came, nothing mended</li>}
      </ul>
      <button type="button" className="how mt-1" onClick={() => scan.setMend(!mend)}>
        {mend ? 'undo all mending' : 'mend it'}
      </button>
    </section>
  );
}
