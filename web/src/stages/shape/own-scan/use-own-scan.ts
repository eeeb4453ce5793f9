import type { ByHand, Cells, Fdi, FrameMatrix, Jaw, PickedView, ThreePlaces, Vec3 } from '@radiant/core';
import type { Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { DrawableMesh } from '../../../engine/drawable.js';
import { type Act, isLay, type Lay, type Pick, type ScanWork } from '../../../engine/own-scan-acts.js';
import type { LaidView, OpenedView, RawJawService } from '../../../engine/raw-jaw.worker.js';
import { faultOf } from '../../../engine/work.js';
import { startReading, takeEarly } from './early.js';
import { type KeptWork, useKeptWork } from './use-kept-work.js';

/** A scan that lies in the mouth, with the teeth that were picked out of it. */
export interface LaidScan {
  readonly state: 'laid';
  readonly opened: OpenedView;
  readonly jaw: Jaw;
  readonly laid: LaidView;
  readonly picked: PickedView;
}

export type OwnScanState =
  | { readonly state: 'reading'; readonly what: string; readonly share: number }
  | { readonly state: 'failed'; readonly sentence: string }
  | { readonly state: 'asking'; readonly opened: OpenedView; readonly sentence?: string }
  | LaidScan;

/** Nothing there that a pointer could meet. */
const UNTOUCHED: Cells = { box: new Float64Array(), first: new Uint32Array(1), faces: new Uint32Array() };

/** A jaw whose teeth nobody has told apart yet, to be looked at only. */
function untold(mesh: DrawableMesh): { laid: LaidView; picked: PickedView } {
  const picked: PickedView = {
    tooth: new Uint8Array(mesh.positions.length / 3).fill(1),
    teeth: [],
    doubts: [],
    necks: [],
  };
  return { laid: { mesh, cells: UNTOUCHED, symmetry: 1, picked }, picked };
}

/** What was done, what of it was taken back, newest last, and when it was brought back from an earlier visit. */
interface Steps {
  readonly done: readonly Act[];
  readonly undone: readonly Act[];
  readonly from?: string;
}

const NO_STEPS: Steps = { done: [], undone: [] };

const jawOf = (act: Act): Jaw | undefined => (act.do === 'layByHand' ? 'lower' : 'jaw' in act ? act.jaw : undefined);

/** As the scan lies after some acts: jaw, and what its unit was taken for. */
function liesAs(acts: readonly Act[]): { readonly jaw: Jaw; readonly unitMm: number } {
  const unit = acts.find((a) => a.do === 'lay');
  return {
    jaw: acts.map(jawOf).findLast((j) => j !== undefined) ?? 'upper',
    unitMm: unit?.do === 'lay' ? unit.unitMm : 1,
  };
}

/** A scan in a worker of its own, opened and laid by its own shape, or as it was left. */
function useOpenedScan(url: string, id: string, missing: readonly Fdi[], kept: KeptWork) {
  const [state, setState] = useState<OwnScanState>({ state: 'reading', what: 'Fetching', share: 0 });
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string>();
  const [mend, setMend] = useState(true);
  const [steps, setSteps] = useState(NO_STEPS);
  // Read once, when the scan is opened: numbers don't change over under a hand that has begun to set them.
  const known = useRef(missing);
  const service = useRef<Remote<RawJawService> | undefined>(undefined);
  const { load } = kept;

  /** Lays what was opened, with all that is to be done to it. */
  const begin = useCallback(async (opened: OpenedView, acts: readonly Act[], from?: string): Promise<void> => {
    setBusy(true);
    try {
      const laid = await (service.current as Remote<RawJawService>).again(acts);
      const { jaw, unitMm } = liesAs(acts);
      setState({
        state: 'laid',
        opened: { ...opened, unitMm: 1, widest: opened.widest * unitMm },
        jaw,
        laid,
        picked: laid.picked,
      });
      setSteps({ done: acts, undone: [], ...(from && { from }) });
      setRefusal(undefined);
    } catch (error) {
      setState({ state: 'asking', opened, sentence: faultOf(error) });
    } finally {
      setBusy(false);
    }
  }, []);

  useEffect(() => {
    const own = (mend && takeEarly(id)) || startReading(url, mend);
    service.current = own.service;
    let gone = false;
    setState({ state: 'reading', what: 'Reading', share: 0 });
    setSteps(NO_STEPS);
    own.follow((what, share) => !gone && setState({ state: 'reading', what, share }));
    void (async () => {
      const before = await load();
      const left = before?.mend === mend && before.acts.length > 1 ? before : undefined;
      void own.service.know(left?.missing ?? known.current);
      if (left) known.current = left.missing;
      const opened = await own.opened;
      if (gone) return;
      if (opened.unitMm !== 1 && !left) return setState({ state: 'asking', opened });
      // It is shown as soon as it lies; its teeth follow.
      if (opened.preview) setState({ state: 'laid', opened, jaw: opened.jaw, ...untold(opened.preview) });
      if (left) await begin(opened, left.acts, left.at);
      else await begin(opened, [{ do: 'lay', jaw: opened.jaw, unitMm: 1 }]);
    })().catch((error: unknown) => !gone && setState({ state: 'failed', sentence: faultOf(error) }));
    return () => {
      gone = true;
      own.end();
    };
  }, [url, id, mend, begin, load]);

  /** Asks the worker; why it would not is said, and everything stays as it was. */
  const ask = useCallback(async <T>(of: (s: Remote<RawJawService>) => Promise<T>): Promise<T | undefined> => {
    setBusy(true);
    try {
      const answer = await of(service.current as Remote<RawJawService>);
      setRefusal(undefined);
      return answer;
    } catch (error) {
      setRefusal(faultOf(error));
      return undefined;
    } finally {
      setBusy(false);
    }
  }, []);

  /** The case's scan as it is drawn beside this one, which goes on being worked on; nothing where it can't be fetched. */
  const firstView = useCallback(async (other: string) => {
    try {
      return await (service.current as Remote<RawJawService>).firstView(other);
    } catch (error) {
      setRefusal(faultOf(error));
      return undefined;
    }
  }, []);

  return { state, setState, busy, refusal, mend, setMend, steps, setSteps, begin, ask, firstView, known };
}

/**
 * A scan without tooth numbers in a worker of its own, which ends with the page. What a hand does to it is kept in the
 * browser until the scan is handed over, and can be taken back step by step.
 */
export function useOwnScan(url: string, id: string, missing: readonly Fdi[]) {
  const kept = useKeptWork(id);
  const { state, setState, ask, steps, setSteps, begin, known, ...opened } = useOpenedScan(url, id, missing, kept);
  const { mend } = opened;
  const { keep } = kept;

  useEffect(() => {
    const work: ScanWork = { mend, missing: known.current, acts: steps.done, at: new Date().toISOString() };
    // As it was brought back it is kept already; while nothing was done, what is kept stays.
    if (!steps.from && (steps.done.length > 1 || steps.undone.length > 0)) keep(work);
  }, [steps, mend, keep, known]);

  const show = (act: Act, { laid, picked }: { laid?: LaidView; picked: PickedView }) =>
    setState((now) =>
      now.state === 'laid' ? { ...now, jaw: jawOf(act) ?? now.jaw, ...(laid && { laid }), picked } : now,
    );
  /** @returns whether it could be done */
  const run = async (act: Act): Promise<boolean> => {
    const laid = isLay(act) ? await ask((s) => s.lay(act)) : undefined;
    const picked = isLay(act) ? laid?.picked : await ask((s) => s.pick(act));
    if (!picked) return false;
    show(act, { ...(laid && { laid }), picked });
    return true;
  };
  const act = async (next: Act): Promise<boolean> => {
    if (!(await run(next))) return false;
    setSteps(({ done }) => ({ done: [...done, next], undone: [] }));
    return true;
  };
  const undo = async (): Promise<void> => {
    const last = steps.done.at(-1);
    if (state.state !== 'laid' || opened.busy || !last || steps.done.length < 2) return;
    const before = steps.done.slice(0, -1);
    // A lay is taken back by laying it as it lay before, with all that was picked then.
    const picked = isLay(last) ? undefined : await ask((s) => s.undoPick());
    const laid = picked ? undefined : await ask((s) => s.again(before));
    if (!picked && !laid) return;
    setState((now) =>
      now.state === 'laid'
        ? { ...now, jaw: liesAs(before).jaw, ...(laid && { laid }), picked: picked ?? (laid as LaidView).picked }
        : now,
    );
    setSteps({ done: before, undone: [...steps.undone, last] });
  };
  const redo = async (): Promise<void> => {
    const next = steps.undone.at(-1);
    if (state.state !== 'laid' || opened.busy || !next || !(await run(next))) return;
    setSteps({ done: [...steps.done, next], undone: steps.undone.slice(0, -1) });
  };
  const lay = (next: Lay) => act(next);
  const pick = async (next: Pick): Promise<void> => void (await act(next));

  return {
    ...opened,
    state,
    steps,
    undo,
    redo,
    /** Lays it as the program would, without what a hand did. */
    anew: async () => {
      const first = steps.done[0];
      if (state.state !== 'laid' || !first) return;
      const { unitMm } = liesAs(steps.done);
      await kept.drop();
      await begin({ ...state.opened, widest: state.opened.widest / unitMm }, [first]);
    },
    /** What was kept in the browser has done its work. */
    handedOver: kept.drop,
    asPlan: (other: string) => ask((s) => s.asPlan(other)),
    finish: () => ask((s) => s.finish()),
    /** Begins with a jaw and a unit that were asked for. */
    begin: (as: OpenedView, jaw: Jaw, unitMm: number) => begin(as, [{ do: 'lay', jaw, unitMm }]),
    layByShape: (jaw: Jaw) => lay({ do: 'lay', jaw, unitMm: liesAs(steps.done).unitMm }),
    layBy: (middle: Vec3, right: Vec3, left: Vec3) => lay({ do: 'layBy', places: [middle, right, left] }),
    layOn: (jaw: Jaw, other: string, places?: readonly [ThreePlaces, ThreePlaces]) =>
      lay({ do: 'layOn', jaw, url: other, places }),
    layByHand: (otherUrl: string, hand: ByHand) => lay({ do: 'layByHand', url: otherUrl, hand }),
    layByBite: (jaw: Jaw, other: FrameMatrix | null) => lay({ do: 'layByBite', jaw, other }),
    renumber: (from: Fdi, to: Fdi | undefined) => pick({ do: 'renumber', from, to }),
    add: (vertex: number, tooth: Fdi) => pick({ do: 'add', vertex, tooth }),
    pull: (tooth: Fdi, from: Vec3, to: Vec3) => pick({ do: 'pull', tooth, from, to }),
    paint: (vertices: readonly number[], radiusMm: number, tooth: Fdi | 0) =>
      pick({ do: 'paint', vertices: [...vertices], radiusMm, tooth }),
  };
}

/** The work on a scan, as the page asks for it. */
export type OwnScanWork = ReturnType<typeof useOwnScan>;
