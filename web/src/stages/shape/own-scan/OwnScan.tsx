import { CASE_STATES, type CaseFile, planInputs, plannedOn } from '@radiant/contract';
import { type ByHand, type Fdi, type Jaw, LOWER_TEN, type ThreePlaces, UPPER_TEN, type Vec3 } from '@radiant/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { ARCH_VIEWS, type View, type ViewName } from '../../../bench/arch-eye.js';
import { OwnScanScene } from '../../../bench/OwnScanScene.js';
import { api, sentenceOf } from '../../../data/api.js';
import { useCase, useSection, useToothLabel } from '../../../data/case-context.js';
import type { JawView } from '../../../engine/views.js';
import { useMayWrite } from '../../../shell/ReadOnlyNote.js';
import { number } from '../../../ui/format.js';
import { useHotkeys } from '../../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../../ui/StageLayout.js';
import { Legend } from '../Legend.js';
import { Asking } from './Asking.js';
import { FirstScanInset } from './FirstScanInset.js';
import { HandBite } from './HandBite.js';
import { PickedTeeth } from './PickedTeeth.js';
import { useOwnScan } from './use-own-scan.js';

type Hand = 'choose' | 'add' | 'neck' | 'paint' | 'gum' | 'places' | 'both';
const HANDS: readonly (readonly [Hand, string, string])[] = [
  ['choose', 'choose', 'c'],
  ['add', 'add a tooth', 'n'],
  ['neck', 'drag the neck line', 'd'],
  ['paint', 'paint tooth', 'p'],
  ['gum', 'paint gum', 'g'],
];
/** Begins three clicks that lay it anew. */
const PLACES_KEY = 'k';
/** How the name of a working copy ends, for people. */
const PICKED_OUT = ', teeth picked out.ply';
/** How the scan is laid into the mouth. */
type Way = 'shape' | 'clicks' | 'first' | 'bite' | 'hand';
const WAYS: readonly (readonly [Way, string])[] = [
  ['shape', 'by its own shape'],
  ['clicks', 'by three clicks'],
  ['first', 'on the case’s scan'],
  ['bite', 'by the scanned bite'],
  ['hand', 'by hand, closed'],
];
const VIEW_WORDS: Partial<Record<ViewName, string>> = { 'edge-on': 'edge-on' };
const VIEWS = ARCH_VIEWS.filter((v) => v !== 'twelve');
const VIEW_KEYS: Readonly<Record<string, ViewName>> = {
  f: 'front',
  r: 'right',
  l: 'left',
  a: 'above',
  e: 'edge-on',
  h: 'behind',
};
/** Where a lower jaw is put at first: a usual overjet, middle on middle. Common practice, no source. */
const USUAL_BITE: ByHand = { overjetMm: 2.5, leftMm: 0, turnDeg: 0 };
const PLACES = [
  'between the edges of the centrals',
  'the canine’s tip on the patient’s right',
  'the canine’s tip on the patient’s left',
];
/** Round a stroke of the brush, mm. */
const BRUSH_MM = 0.6;
/** A scan from any scanner becomes the case's: mended, laid into the mouth, its teeth picked out and numbered. */
export function OwnScan({ file }: { file: CaseFile }) {
  const { detail, refresh } = useCase();
  const shape = useSection('shape');
  const mayWrite = useMayWrite('shape');
  const name = useToothLabel();
  const navigate = useNavigate();
  const meet = useSection('meet').data;
  const missing = useMemo(() => meet.teeth.filter((t) => t.past.includes('missing')).map((t) => t.tooth), [meet]);
  const scan = useOwnScan(`/api/cases/${detail.id}/files/${file.id}`, file.id, missing);
  const { state } = scan;
  const [hand, setHand] = useState<Hand>('choose');
  const [chosen, setChosen] = useState<Fdi>();
  const [places, setPlaces] = useState<Vec3[]>([]);
  /** The same places on the case's scan. */
  const [fellows, setFellows] = useState<Vec3[]>([]);
  const [view, setView] = useState<View>({ name: 'front', jaw: 'upper', turn: 0 });
  const [own, setOwn] = useState(false);
  const [way, setWay] = useState<Way>('shape');
  const [byHand, setByHand] = useState<ByHand>(USUAL_BITE);
  const [off, setOff] = useState(true);
  const [saving, setSaving] = useState<string>();
  const labels = useRef<HTMLDivElement>(null);
  const jaw: Jaw = state.state === 'laid' ? state.jaw : state.state === 'asking' ? state.opened.jaw : 'upper';
  const picked = state.state === 'laid' ? state.picked : undefined;
  const numbers = useMemo(() => picked?.teeth.map((t) => t.tooth) ?? [], [picked]);
  const row = jaw === 'upper' ? UPPER_TEN : LOWER_TEN;
  const free = row.filter((t) => !numbers.includes(t));

  useEffect(() => setView((v) => ({ ...v, jaw, turn: v.turn + 1 })), [jaw]);
  const take = useCallback((h: Hand) => {
    setHand(h);
    setPlaces([]);
    setFellows([]);
  }, []);
  useHotkeys('stage', [
    {
      keys: 'C N D P G',
      does: 'choose, add, drag the neck line, paint tooth, paint gum',
      on: HANDS.map((h) => h[2]),
      run: (key) => take((HANDS.find((h) => h[2] === key) as (typeof HANDS)[number])[0]),
    },
    { keys: 'K', does: 'lay it anew by three clicks', on: [PLACES_KEY], run: () => take('places') },
    {
      keys: 'F R L A E H',
      does: 'view from front, right, left, above, edge-on, from behind',
      on: Object.keys(VIEW_KEYS),
      run: (key) => setView((v) => ({ ...v, name: VIEW_KEYS[key] as ViewName, turn: v.turn + 1 })),
    },
    { keys: 'Esc', does: 'choose again', on: ['escape'], run: () => take('choose') },
  ]);

  const click = (vertex: number, at: readonly [number, number, number]) => {
    if (!picked || scan.busy) return;
    if (hand === 'choose') setChosen((picked.tooth[vertex] as Fdi) || undefined);
    else if (hand === 'add') {
      const next = free[0];
      if (next === undefined) return;
      setChosen(next);
      void scan.add(vertex, next);
      take('choose');
    } else if (hand === 'both') {
      if (places.length === fellows.length && places.length < 3) setPlaces([...places, [...at] as Vec3]);
    } else if (hand === 'places') {
      const all = [...places, [...at] as Vec3];
      setPlaces(all);
      if (all.length === 3) {
        void scan.layBy(all[0] as Vec3, all[1] as Vec3, all[2] as Vec3).then((done) => done && setWay('clicks'));
        take('choose');
      }
    }
  };
  const stroke = (vertices: readonly number[]) => {
    if (hand === 'gum') void scan.paint(vertices, BRUSH_MM, 0);
    else if (hand === 'paint' && chosen !== undefined) void scan.paint(vertices, BRUSH_MM, chosen);
  };
  const pull = (tooth: Fdi, from: Vec3, to: Vec3) => {
    setChosen(tooth);
    void scan.pull(tooth, from, to);
  };
  // The case's scan is clicked after this one, each time.
  const clicked = useRef(0);
  clicked.current = places.length;
  const fellow = useCallback(
    (at: Vec3) => setFellows((all) => (all.length < clicked.current ? [...all, at] : all)),
    [],
  );
  /** What the hand is asked to do. */
  const asked = (): string => {
    if (hand === 'both')
      return places.length > fellows.length
        ? `Now the same place on the case’s scan, ${places.length} of 3`
        : `Click a place that both scans have, ${places.length + 1} of 3: a cusp, a corner of an edge`;
    if (hand === 'places') return `Click ${PLACES[places.length] ?? ''}`;
    if (hand === 'add')
      return free[0] === undefined ? 'All ten teeth are there' : `Click the crown; it becomes ${name(free[0])}`;
    if (hand === 'neck') return 'Take a line between tooth and gum and drag it; beside it the view turns';
    if (hand === 'gum') return 'Draw over what is gum';
    return chosen === undefined ? 'Choose a tooth first' : `Draw over what belongs to ${name(chosen)}`;
  };
  const urlOf = (id: string) => `/api/cases/${detail.id}/files/${id}`;
  const same = plannedOn(detail, jaw);
  const across = plannedOn(detail, jaw === 'upper' ? 'lower' : 'upper');
  /** The upper jaw, drawn while the lower one is put on it. */
  const [upper, setUpper] = useState<JawView>();
  const put = async (hand: ByHand) => {
    setByHand(hand);
    if (!across || !(await scan.layByHand(urlOf(across.id), hand))) return;
    setWay('hand');
    if (!upper) setUpper(await scan.firstView(urlOf(across.id)));
  };
  const lay = async (w: Way) => {
    if (state.state !== 'laid') return;
    if (w === 'shape') {
      await scan.lay(state.opened, jaw, 1);
      setWay(w);
    } else if (w === 'clicks') take('places');
    else if (w === 'first' && same && (await scan.layOn(jaw, urlOf(same.id)))) setWay(w);
    else if (w === 'bite' && across && (await scan.layByBite(jaw, across.frame))) setWay(w);
    else if (w === 'hand') await put(byHand);
  };
  // Once three places are clicked on both scans, it is laid by them.
  const byPlaces = useRef<() => void>(() => undefined);
  byPlaces.current = () => {
    if (!same) return;
    void scan
      .layOn(jaw, urlOf(same.id), [places as unknown as ThreePlaces, fellows as unknown as ThreePlaces])
      .then((done) => done && setWay('first'));
    take('choose');
  };
  useEffect(() => {
    if (fellows.length === 3) byPlaces.current();
  }, [fellows]);
  // A lower jaw of the same sitting lies by the bite as it was scanned; where it is of another one, by its own shape.
  const tried = useRef(false);
  const byBite = useRef(lay);
  byBite.current = lay;
  const lowerLaid = state.state === 'laid' && jaw === 'lower' && !!across?.frame && numbers.length > 0;
  useEffect(() => {
    if (!lowerLaid || tried.current) return;
    tried.current = true;
    void byBite.current('bite');
  }, [lowerLaid]);
  const becomePlan = async () => {
    if (!same) return;
    setSaving('Setting the crowns to it …');
    const done = await scan.asPlan(urlOf(same.id));
    if (!done) return setSaving(undefined);
    const made = planInputs(done.plan);
    const kept = shape.data.teeth.filter((t) => !made.some((m) => m.tooth === t.tooth));
    shape.set({ ...shape.data, ...(jaw === 'upper' && { scanId: same.id }), teeth: [...kept, ...made] });
    navigate('.', { replace: true });
  };
  const isGround = (file.state ?? 'before') === 'before';
  const use = async () => {
    setSaving('Closing the teeth …');
    const done = await scan.finish();
    if (!done) return setSaving(undefined);
    try {
      setSaving('Saving …');
      const bare = file.name.replace(/\.[a-z]+$/i, '');
      const made = await api.upload<CaseFile>(
        `/cases/${detail.id}/files?${new URLSearchParams({ kind: 'scan', parentId: file.id, frame: done.frame.join() })}`,
        new File([done.bytes as BlobPart], `${bare}${PICKED_OUT}`),
      );
      await refresh();
      if (made.jaw === 'upper' && isGround) shape.set({ ...shape.data, scanId: made.id });
      navigate('.', { replace: true });
    } catch (error) {
      setSaving(sentenceOf(error));
    }
  };

  const back = (
    <button type="button" className="how" onClick={() => navigate('.', { replace: true })}>
      leave it as it is
    </button>
  );
  return (
    <Stage
      surround="grey"
      bench={
        state.state === 'reading' ? (
          <div className="flex h-full items-center justify-center bg-porcelain">
            <div role="status" className="w-[320px]">
              <p className="mb-2">{state.what} …</p>
              <div className="h-1.5 overflow-hidden rounded bg-hair">
                <div className="h-full bg-plum" style={{ width: `${Math.round(100 * state.share)}%` }} />
              </div>
              <p className="mt-3 text-[13px]">{back}</p>
            </div>
          </div>
        ) : state.state === 'failed' ? (
          <div className="h-full bg-porcelain">
            <Empty title="This scan can’t be used">
              <p className="mb-4">{state.sentence}</p>
              {back}
            </Empty>
          </div>
        ) : state.state === 'asking' ? (
          <div className="h-full bg-porcelain">
            <Asking opened={state.opened} sentence={state.sentence} busy={scan.busy} lay={scan.lay} back={back} />
          </div>
        ) : (
          <>
            <OwnScanScene
              laid={state.laid}
              picked={state.picked}
              chosen={chosen}
              view={view}
              painting={hand === 'paint' || hand === 'gum'}
              pulling={hand === 'neck'}
              own={own}
              off={off ? state.laid.on?.offMm : undefined}
              across={way === 'hand' && state.laid.bite ? upper : undefined}
              places={places}
              labels={labels}
              onClick={click}
              onStroke={stroke}
              onPull={pull}
            />
            <div ref={labels} className="pointer-events-none absolute inset-0 overflow-hidden" aria-hidden="true">
              {state.picked.teeth.map((t) => (
                <span
                  key={t.tooth}
                  className={`absolute top-0 left-0 rounded px-1.5 text-[12px] ${t.tooth === chosen ? 'bg-plum text-white' : 'bg-ink/75 text-white'}`}
                >
                  {name(t.tooth)}
                </span>
              ))}
            </div>
            <div className="pointer-events-none absolute inset-x-4 top-3.5 flex flex-wrap gap-1.5 [&>*]:pointer-events-auto">
              {HANDS.map(([id, word]) => (
                <button key={id} type="button" className="chip" aria-pressed={hand === id} onClick={() => take(id)}>
                  {word}
                </button>
              ))}
              {state.laid.on && (
                <button type="button" className="chip" aria-pressed={off} onClick={() => setOff(!off)}>
                  how far off
                </button>
              )}
              {state.laid.colours && (
                <button type="button" className="chip" aria-pressed={own} onClick={() => setOwn(!own)}>
                  scanner’s colours
                </button>
              )}
            </div>
            {hand !== 'choose' && (
              <p role="status" className="absolute top-14 left-4 rounded-lg bg-leaf px-3 py-1.5 text-[13px] shadow-lg">
                {asked()}
              </p>
            )}
            {hand === 'both' && same && (
              <FirstScanInset
                jaw={jaw}
                url={urlOf(same.id)}
                view={scan.firstView}
                places={fellows}
                turn={places.length > fellows.length}
                onClick={fellow}
              />
            )}
            {state.laid.on && off && hand !== 'both' && (
              <div className="absolute bottom-4 left-4">
                <Legend of="off" jaw={jaw} />
              </div>
            )}
            {scan.busy && (
              <p className="absolute bottom-4 left-4 rounded-lg bg-leaf px-3 py-1.5 text-[13px] shadow-lg">
                {numbers.length === 0 ? 'Telling the teeth apart …' : 'Working …'}
              </p>
            )}
            <div className="pointer-events-none absolute right-4 bottom-4 flex flex-wrap justify-end gap-1.5 [&>*]:pointer-events-auto">
              {VIEWS.map((v) => (
                <button
                  key={v}
                  type="button"
                  className="chip"
                  onClick={() => setView((w) => ({ ...w, name: v, turn: w.turn + 1 }))}
                >
                  {VIEW_WORDS[v] ?? v}
                </button>
              ))}
            </div>
          </>
        )
      }
      panel={
        <>
          <h2 className="title">Own scan</h2>
          <p className="mb-3 text-[13px] text-ink-2">
            {file.name}
            {file.state && `, ${CASE_STATES[file.state]}`}. The file stays as it came; a copy is made to work on.
            {!isGround && ' The plan goes on standing on the scan from before.'}
          </p>
          {(state.state === 'laid' || state.state === 'asking') && (
            <section aria-label="What was mended" className="mb-4 text-[13px]">
              <p>
                {state.opened.format}, {state.opened.triangles.toLocaleString('en-GB')} triangles,{' '}
                {number(state.opened.widest, 1)} mm across
              </p>
              <ul className="mt-1 list-disc pl-4 text-ink-2">
                {state.opened.repairs.map((r) => (
                  <li key={r.kind}>{r.sentence}</li>
                ))}
                {scan.mend && state.opened.repairs.length === 0 && <li>nothing had to be mended</li>}
                {!scan.mend && <li>as it came, nothing mended</li>}
              </ul>
              <button type="button" className="how mt-1" onClick={() => scan.setMend(!scan.mend)}>
                {scan.mend ? 'undo all mending' : 'mend it'}
              </button>
            </section>
          )}
          {state.state === 'laid' && (
            <>
              <div className="mb-3 flex gap-1">
                {(['upper', 'lower'] as const).map((j) => (
                  <button
                    key={j}
                    type="button"
                    className="chip chip-flat"
                    aria-pressed={jaw === j}
                    disabled={scan.busy}
                    onClick={() => {
                      if (j === jaw) return;
                      setWay('shape');
                      void scan.lay(state.opened, j, 1);
                    }}
                  >
                    {j} jaw
                  </button>
                ))}
              </div>
              <div className="mb-3 flex flex-wrap gap-1">
                {WAYS.map(([w, word]) =>
                  w === 'shape' ||
                  w === 'clicks' ||
                  (w === 'first' ? same : across && (w === 'bite' || jaw === 'lower')) ? (
                    <button
                      key={w}
                      type="button"
                      className="chip chip-flat"
                      aria-pressed={hand === 'places' ? w === 'clicks' : way === w}
                      disabled={scan.busy}
                      onClick={() => void lay(w)}
                    >
                      {word}
                    </button>
                  ) : null,
                )}
              </div>
              {way === 'hand' && state.laid.bite && (
                <HandBite hand={byHand} bite={state.laid.bite} busy={scan.busy} put={put} />
              )}
              {same && mayWrite && way !== 'hand' && (
                <p className="mb-3 text-[13px]">
                  <button
                    type="button"
                    className="how"
                    disabled={scan.busy}
                    onClick={() => take(hand === 'both' ? 'choose' : 'both')}
                  >
                    {hand === 'both' ? 'leave it as it lies' : 'lay it by three places on both scans'}
                  </button>
                </p>
              )}
              {state.laid.on && (
                <div className="finding mb-3" data-weight={state.laid.on.doubt ? 'stop' : 'good'} role="status">
                  <b className="font-[650]">
                    {state.laid.on.doubt
                      ? 'Doubtful'
                      : `${Math.round(100 * state.laid.on.share)} % of it is the same; 95 % of that lies within ${number(state.laid.on.p95Mm, 2)} mm`}
                  </b>
                  {state.laid.on.doubt && <span className="block text-[13px] text-ink-2">{state.laid.on.doubt}</span>}
                </div>
              )}
              {state.picked.doubt && (
                <div className="finding mb-3" data-weight="stop" role="status">
                  <b className="font-[650]">Hardly a row of teeth</b>
                  <span className="block text-[13px] text-ink-2">{state.picked.doubt}</span>
                </div>
              )}
              {state.laid.symmetry < 0.7 && !state.picked.doubt && (
                <div className="finding mb-3" data-weight="watch">
                  <b className="font-[650]">The two sides are unlike</b>
                  <span className="block text-[13px] text-ink-2">
                    Look whether the front is in front; three clicks lay it anew (K).
                  </span>
                </div>
              )}
              <PickedTeeth
                picked={state.picked}
                chosen={chosen}
                setChosen={setChosen}
                row={row}
                renumber={scan.renumber}
                disabled={scan.busy}
              />
              <p className="mb-4 text-[13px]">{back}</p>
              <div className="sticky -bottom-4 -mx-[18px] border-t border-hair bg-leaf px-[18px] py-3">
                {(scan.refusal ?? saving) && (
                  <p role="alert" className="mb-2 text-[13px] text-stop">
                    {scan.refusal ?? saving}
                  </p>
                )}
                {mayWrite && (
                  <>
                    <button
                      type="button"
                      className="btn w-full"
                      disabled={scan.busy || numbers.length === 0}
                      onClick={() => void use()}
                    >
                      {isGround ? 'Use this scan' : `Keep it as the ${jaw} jaw, ${CASE_STATES[file.state ?? 'before']}`}
                    </button>
                    {state.laid.on && (
                      <button
                        type="button"
                        className="btn btn-ghost mt-2 w-full"
                        disabled={scan.busy}
                        onClick={() => void becomePlan()}
                      >
                        Make its front teeth the planned contour
                      </button>
                    )}
                  </>
                )}
              </div>
            </>
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
