import type { ByHand, Cells, Fdi, FrameMatrix, Jaw, PickedView, ThreePlaces, Vec3 } from '@radiant/core';
import type { Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { DrawableMesh } from '../../../engine/drawable.js';
import type { LaidView, OpenedView, RawJawService } from '../../../engine/raw-jaw.worker.js';
import { faultOf } from '../../../engine/work.js';
import { startReading, takeEarly } from './early.js';

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

/** A scan in a worker of its own, opened and laid by its own shape. */
function useOpenedScan(url: string, id: string, missing: readonly Fdi[]) {
  const [state, setState] = useState<OwnScanState>({ state: 'reading', what: 'Fetching', share: 0 });
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string>();
  const [mend, setMend] = useState(true);
  // Read once, when the scan is opened: numbers don't change over under a hand that has begun to set them.
  const known = useRef(missing);
  const service = useRef<Remote<RawJawService> | undefined>(undefined);

  const lay = useCallback(async (opened: OpenedView, jaw: Jaw, unitMm: number) => {
    setBusy(true);
    try {
      const laid = await (service.current as Remote<RawJawService>).lay(jaw, unitMm);
      setState({
        state: 'laid',
        opened: { ...opened, unitMm: 1, widest: opened.widest * unitMm },
        jaw,
        laid,
        picked: laid.picked,
      });
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
    void own.service.know(known.current);
    let gone = false;
    setState({ state: 'reading', what: 'Reading', share: 0 });
    own.follow((what, share) => !gone && setState({ state: 'reading', what, share }));
    own.opened.then(
      (opened) => {
        if (gone) return;
        if (opened.unitMm !== 1) return setState({ state: 'asking', opened });
        // It is shown as soon as it lies; its teeth follow.
        if (opened.preview) setState({ state: 'laid', opened, jaw: opened.jaw, ...untold(opened.preview) });
        void lay(opened, opened.jaw, 1);
      },
      (error: unknown) => !gone && setState({ state: 'failed', sentence: faultOf(error) }),
    );
    return () => {
      gone = true;
      own.end();
    };
  }, [url, id, mend, lay]);

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

  return { state, setState, busy, refusal, mend, setMend, lay, ask, firstView };
}

/** A scan without tooth numbers in a worker of its own, which ends with the page. */
export function useOwnScan(url: string, id: string, missing: readonly Fdi[]) {
  const { setState, ask, ...opened } = useOpenedScan(url, id, missing);

  const change = async (of: (s: Remote<RawJawService>) => Promise<PickedView>): Promise<void> => {
    const picked = await ask(of);
    if (picked) setState((now) => (now.state === 'laid' ? { ...now, picked } : now));
  };

  /** Lays the scan in another way. Whether that could be. */
  const relay = async (jaw: Jaw | undefined, of: (s: Remote<RawJawService>) => Promise<LaidView>): Promise<boolean> => {
    const laid = await ask(of);
    if (!laid) return false;
    setState((now) => (now.state === 'laid' ? { ...now, jaw: jaw ?? now.jaw, laid, picked: laid.picked } : now));
    return true;
  };

  return {
    ...opened,
    asPlan: (other: string) => ask((s) => s.asPlan(other)),
    layBy: (middle: Vec3, right: Vec3, left: Vec3) => relay(undefined, (s) => s.layBy(middle, right, left)),
    layOn: (jaw: Jaw, url: string, places?: readonly [ThreePlaces, ThreePlaces]) =>
      relay(jaw, (s) => s.layOn(jaw, url, places)),
    layByHand: (otherUrl: string, hand: ByHand) => relay('lower', (s) => s.layByHand(otherUrl, hand)),
    layByBite: (jaw: Jaw, other: FrameMatrix | null) => relay(jaw, (s) => s.layByBite(jaw, other)),
    finish: () => ask((s) => s.finish()),
    renumber: (from: Fdi, to: Fdi | undefined) => change((s) => s.renumber(from, to)),
    add: (vertex: number, tooth: Fdi) => change((s) => s.add(vertex, tooth)),
    pull: (tooth: Fdi, from: Vec3, to: Vec3) => change((s) => s.pull(tooth, from, to)),
    paint: (vertices: readonly number[], radiusMm: number, tooth: Fdi | 0) =>
      change((s) => s.paint(vertices, radiusMm, tooth)),
  };
}

/** The work on a scan, as the page asks for it. */
export type OwnScanWork = ReturnType<typeof useOwnScan>;
