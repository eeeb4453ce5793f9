import type { ByHand, Fdi, FrameMatrix, Jaw, Opened, PickedView, ThreePlaces, Vec3 } from '@radiant/core';
import type { Remote } from 'comlink';
import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import { type Act, isLay, type Lay, type Pick, type ScanWork } from '../../../engine/own-scan-acts.js';
import type { LaidView, RawJawService } from '../../../engine/raw-jaw.worker.js';
import { faultOf } from '../../../engine/work.js';
import { takeEarly } from './early.js';
import { startReading } from './reading.js';
import { type OwnScanState, type ScanSource, type ShownJaw, untold } from './shown-jaw.js';
import { type KeptWork, useKeptWork } from './use-kept-work.js';

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

/** What goes wrong here is said by what is asked next. */
const unsaid = (asked: Promise<unknown>): void => void asked.catch(() => undefined);

/** Questions to the worker: whether one is under way, and why the last one was refused. */
function useAsking(service: RefObject<Remote<RawJawService> | undefined>) {
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string>();

  /** Asks the worker; why it would not is said, and everything stays as it was. */
  const ask = useCallback(
    async <T>(of: (s: Remote<RawJawService>) => Promise<T>): Promise<T | undefined> => {
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
    },
    [service],
  );

  /** The case's scan as it is drawn beside this one, which goes on being worked on; nothing where it can't be fetched. */
  const firstView = useCallback(
    async (other: string) => {
      try {
        return await (service.current as Remote<RawJawService>).firstView(other);
      } catch (error) {
        setRefusal(faultOf(error));
        return undefined;
      }
    },
    [service],
  );

  return { busy, setBusy, refusal, setRefusal, ask, firstView };
}

/** A scan in a worker of its own, opened and laid by its own shape, or as it was left. */
function useOpenedScan(source: ScanSource, missing: readonly Fdi[], kept: KeptWork) {
  const [state, setState] = useState<OwnScanState>({ state: 'reading', what: 'Fetching', share: 0 });
  const [mend, setMend] = useState(true);
  const [steps, setSteps] = useState(NO_STEPS);
  // Read once, when the scan is opened: numbers don't change over under a hand that has begun to set them.
  const known = useRef(missing);
  const service = useRef<Remote<RawJawService> | undefined>(undefined);
  const { setBusy, setRefusal, ...asking } = useAsking(service);
  const { load } = kept;
  const { key } = source;
  const way = useRef(source);
  way.current = source;

  /** What lies under a pointer is asked for once it is drawn. */
  const meet = useCallback(async (laid: LaidView): Promise<void> => {
    const cells = await (service.current as Remote<RawJawService>).cells().catch(() => undefined);
    if (cells) setState((now) => (now.state === 'laid' && now.laid === laid ? { ...now, cells } : now));
  }, []);

  /** Lays what was opened, with all that is to be done to it. */
  const begin = useCallback(
    async (opened: Opened, acts: readonly Act[], from?: string): Promise<void> => {
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
        void meet(laid);
      } catch (error) {
        setState({ state: 'asking', opened, sentence: faultOf(error) });
      } finally {
        setBusy(false);
      }
    },
    [meet, setBusy, setRefusal],
  );

  useEffect(() => {
    const own = (mend && takeEarly(key)) || startReading(way.current.from, mend);
    service.current = own.service;
    let gone = false;
    let seen: ShownJaw | undefined;
    const reads = (what: string, share: number) =>
      setState((now) =>
        gone || now.state === 'laid' ? now : { state: 'reading', what, share, ...(seen && { seen }) },
      );
    setState({ state: 'reading', what: 'Reading', share: 0 });
    setSteps(NO_STEPS);
    own.follow(reads, (glimpse) => {
      const jaw = untold(glimpse);
      seen = jaw;
      setState((now) => (now.state === 'reading' && !gone ? { ...now, seen: jaw } : now));
    });
    unsaid(own.service.know(known.current));
    void (async () => {
      const opened = await own.opened;
      if (gone) return;
      // It is shown as soon as it can be; its teeth follow, and nothing is done to it before it is on record.
      if (seen) setState({ state: 'laid', opened, ...seen, jaw: opened.jaw });
      else reads('Keeping', 1);
      setBusy(true);
      if (opened.unitMm === 1) unsaid(own.service.ahead());
      const { id } = await way.current.onRecord;
      const before = await load(id);
      if (gone) return;
      const left = before?.mend === mend && before.acts.length > 1 ? before : undefined;
      if (left) {
        known.current = left.missing;
        unsaid(own.service.know(left.missing));
      }
      if (opened.unitMm !== 1 && !left) {
        setBusy(false);
        return setState({ state: 'asking', opened });
      }
      if (left) await begin(opened, left.acts, left.at);
      else await begin(opened, [{ do: 'lay', jaw: opened.jaw, unitMm: 1 }]);
    })().catch((error: unknown) => !gone && setState({ state: 'failed', sentence: faultOf(error) }));
    return () => {
      gone = true;
      own.end();
    };
  }, [key, mend, begin, load, setBusy]);

  return { state, setState, mend, setMend, steps, setSteps, begin, known, meet, ...asking };
}

/**
 * A scan without tooth numbers in a worker of its own, which ends with the page. What a hand does to it is kept in the
 * browser until the scan is handed over, and can be taken back step by step.
 */
export function useOwnScan(source: ScanSource, missing: readonly Fdi[]) {
  const kept = useKeptWork(source.id);
  const { state, setState, ask, steps, setSteps, begin, known, meet, ...opened } = useOpenedScan(source, missing, kept);
  const { mend } = opened;
  const { keep } = kept;

  useEffect(() => {
    const work: ScanWork = { mend, missing: known.current, acts: steps.done, at: new Date().toISOString() };
    // As it was brought back it is kept already; while nothing was done, what is kept stays.
    if (!steps.from && (steps.done.length > 1 || steps.undone.length > 0)) keep(work);
  }, [steps, mend, keep, known]);

  /** Shows it as it lies now; where it was not laid anew, with other teeth only. */
  const show = ({ laid, picked }: { laid?: LaidView | undefined; picked: PickedView }, jaw?: Jaw): void => {
    setState((now) => {
      if (now.state !== 'laid') return now;
      const { cells, ...rest } = now;
      const drawn = laid ? { ...rest, laid } : now;
      return { ...drawn, jaw: jaw ?? now.jaw, picked };
    });
    if (laid) void meet(laid);
  };
  /** @returns whether it could be done */
  const run = async (act: Act): Promise<boolean> => {
    const laid = isLay(act) ? await ask((s) => s.lay(act)) : undefined;
    const picked = isLay(act) ? laid?.picked : await ask((s) => s.pick(act));
    if (!picked) return false;
    show({ laid, picked }, jawOf(act));
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
    show({ laid, picked: picked ?? (laid as LaidView).picked }, liesAs(before).jaw);
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
    begin: (as: Opened, jaw: Jaw, unitMm: number) => begin(as, [{ do: 'lay', jaw, unitMm }]),
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
