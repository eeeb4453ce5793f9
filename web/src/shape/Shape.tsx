import { contourPlan } from '@radiant/contract';
import { type Fdi, isPlannable } from '@radiant/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ArchScene, type Showing } from '../bench/ArchScene.js';
import { ARCH_VIEWS, type View, type ViewName } from '../bench/arch-eye.js';
import { useCase, useSection } from '../data/case-context.js';
import { isTyping } from '../shell/Keys.js';
import { Empty, KeyHint, Stage } from '../shell/Stage.js';
import { Trouble, Waiting } from '../shell/Waiting.js';
import type { BiteWish } from '../workers/bite.js';
import { useContour, usePlanned } from '../workers/use-contour.js';
import { useLower } from '../workers/use-lower.js';
import { useNeighbours } from '../workers/use-neighbours.js';
import { BiteCard, FIRST_BITE } from './BiteCard.js';
import { AMOUNT_STEP, BrushCard, FIRST_BRUSH, RADIUS_STEP, turned } from './BrushCard.js';
import { CutCard } from './CutCard.js';
import { Legend } from './Legend.js';
import { PassingNotes } from './NeighbourNotes.js';
import { ScanUpload } from './ScanUpload.js';
import { SmilePicture } from './SmilePicture.js';
import { ToothPanel } from './ToothPanel.js';
import { useBite } from './use-bite.js';
import { useBrush } from './use-brush.js';
import { type CutSetting, FIRST_CUT, useCut } from './use-cut.js';
import { useSetToProposal } from './use-set-to-proposal.js';

const SHOWING: readonly (readonly [Exclude<Showing, 'bite'>, string])[] = [
  ['existing', 'as scanned'],
  ['planned', 'planned'],
  ['difference', 'added and removed'],
  ['both', 'both'],
];
type Tool = 'brush' | 'cut' | 'bite' | 'smile';
const TOOLS: readonly (readonly [Tool, string, string])[] = [
  ['brush', 'brush', 'b'],
  ['cut', 'section', 'x'],
  ['bite', 'bite', 'o'],
  ['smile', 'in the smile', 's'],
];
const VIEW_WORDS: Readonly<Record<ViewName, string>> = {
  front: 'front',
  right: 'right',
  left: 'left',
  above: 'above',
  'edge-on': 'edge-on',
  twelve: 'twelve o’clock',
  behind: 'behind',
};
/** First letters are the keys. */
const VIEW_KEYS: Readonly<Record<string, ViewName>> = { f: 'front', r: 'right', l: 'left', a: 'above', e: 'edge-on', t: 'twelve', h: 'behind' };

/** Shape: the arch in three dimensions, existing against planned, with brush, section and bite. */
export default function Shape() {
  const contour = useContour();
  const shape = useSection('shape');
  const { tooth, selectTooth } = useCase();
  const [showing, setShowing] = useState<Exclude<Showing, 'bite'>>('difference');
  const [share, setShare] = useState(0.55);
  const [gum, setGum] = useState(true);
  const [view, setView] = useState<View>({ name: 'front', turn: 0 });
  const [tool, setTool] = useState<Tool>();
  const [brush, setBrush] = useState(FIRST_BRUSH);
  const [cutSetting, setCut] = useState<CutSetting>(FIRST_CUT);
  const [wish, setWish] = useState<BiteWish>(FIRST_BITE);
  const [lowerShown, showLower] = useState(true);
  const reading = useRef<HTMLSpanElement>(null);

  const choose = useCallback((t: Fdi) => isPlannable(t) && selectTooth(t), [selectTooth]);
  const kept = useMemo(() => contourPlan(shape.data.teeth), [shape.data.teeth]);
  const strokes = useBrush(contour, brush, choose);
  const plan = useMemo(() => strokes.drawn(kept), [strokes.drawn, kept]);
  const planned = usePlanned(contour, plan);
  const lower = useLower(contour, true);
  const neighbours = useNeighbours(contour, kept, lower);
  const bite = useBite(contour, kept, lower, tool === 'bite' ? wish : undefined);
  const cut = useCut(contour, plan, tooth, tool === 'cut' ? cutSetting : undefined);
  const setToProposal = useSetToProposal(contour);
  const biteMaps = useMemo(() => bite && { which: wish.which, of: new Map(bite.maps) }, [bite, wish.which]);
  const lowerAt = useMemo(
    () => (tool === 'bite' && lowerShown && lower.state === 'ready' ? { view: lower.view, shift: bite?.shift ?? ([0, 0, 0] as const) } : undefined),
    [tool, lowerShown, lower, bite],
  );

  const look = useCallback((name: ViewName) => {
    setView((v) => ({ name, turn: v.turn + 1 }));
    // The lower jaw would stand before what is looked at.
    showLower(name !== 'above' && name !== 'behind');
  }, []);
  const toggle = useCallback((t: Tool) => setTool((now) => (now === t ? undefined : t)), []);
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (isTyping(e) || e.ctrlKey || e.metaKey || e.altKey) return;
      const key = e.key.toLowerCase();
      const named = VIEW_KEYS[key];
      const shown = SHOWING[Number(e.key) - 1];
      const wanted = TOOLS.find((t) => t[2] === key);
      if (named) look(named);
      else if (shown) setShowing(shown[0]);
      else if (wanted) toggle(wanted[0]);
      else if (key === ',' || key === '.') setBrush((b) => turned(b, 'radiusMm', key === ',' ? -RADIUS_STEP : RADIUS_STEP));
      else if (key === ';' || key === "'") setBrush((b) => turned(b, 'amountMm', key === ';' ? -AMOUNT_STEP : AMOUNT_STEP));
      else if (key === 'm') setBrush((b) => ({ ...b, mirror: !b.mirror }));
      else if (e.key === 'Escape') setTool(undefined);
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [look, toggle]);

  const own = planned.get(tooth);
  const drawn: Showing = tool === 'bite' ? 'bite' : showing;
  return (
    <Stage
      surround="grey"
      bench={
        contour.state === 'no-scan' ? (
          <Empty title="No scan yet">
            <p className="mb-5">A scan of the upper jaw as STL or PLY with its teeth numbered, as the simulated scanner writes it.</p>
            <span className="flex justify-center">
              <ScanUpload />
            </span>
          </Empty>
        ) : contour.state === 'loading' ? (
          <div className="h-full bg-porcelain">
            <Waiting what="the scan and measuring its teeth" />
          </div>
        ) : contour.state === 'failed' ? (
          <div className="h-full bg-porcelain">
            <Trouble sentence={contour.sentence} retry={contour.retry} />
          </div>
        ) : (
          <>
            {tool === 'smile' && (
              <div className="absolute inset-0 z-10 bg-bench">
                <SmilePicture contour={contour} plan={kept} />
              </div>
            )}
            <ArchScene
              arch={contour.arch}
              planned={planned}
              showing={drawn}
              share={share}
              gum={gum}
              view={view}
              selected={tooth}
              onSelect={choose}
              lower={lowerAt}
              biteMaps={biteMaps}
              cut={cut.at}
              brush={tool === 'brush' ? strokes.hand : undefined}
              reading={reading}
            />
            <span ref={reading} hidden className="pointer-events-none absolute top-0 left-0 rounded bg-ink/85 px-1.5 py-0.5 text-[12px] text-white" />
            <div className="pointer-events-none absolute inset-x-4 top-3.5 z-20 flex flex-wrap gap-1.5 [&>*]:pointer-events-auto">
              {SHOWING.map(([id, word]) => (
                <button
                  key={id}
                  type="button"
                  className="chip"
                  aria-pressed={tool !== 'bite' && tool !== 'smile' && showing === id}
                  onClick={() => {
                    setShowing(id);
                    if (tool === 'bite' || tool === 'smile') setTool(undefined);
                  }}
                >
                  {word}
                </button>
              ))}
              {showing === 'both' && tool !== 'bite' && (
                <label className="chip">
                  <span className="sr-only">How strongly the plan is shown</span>
                  <input
                    type="range"
                    className="w-24 accent-plum"
                    min={0}
                    max={1}
                    step={0.01}
                    value={share}
                    onChange={(e) => setShare(Number(e.target.value))}
                  />
                </label>
              )}
              <button type="button" className="chip" aria-pressed={gum} onClick={() => setGum(!gum)}>
                gum
              </button>
              <span className="w-1" />
              {TOOLS.map(([id, word]) => (
                <button key={id} type="button" className="chip" aria-pressed={tool === id} onClick={() => toggle(id)}>
                  {word}
                </button>
              ))}
            </div>
            {tool !== 'smile' && (
              <div className="absolute top-14 left-4 max-w-[292px]">
                <PassingNotes contour={contour} neighbours={neighbours} />
              </div>
            )}
            <div className="pointer-events-none absolute bottom-4 left-4 flex flex-col items-start gap-3 [&>*]:pointer-events-auto">
              {(drawn === 'bite' ? lower.state === 'ready' : drawn === 'difference') && <Legend of={drawn === 'bite' ? 'bite' : 'difference'} />}
            </div>
            <div className="pointer-events-none absolute right-4 bottom-4 flex flex-wrap justify-end gap-1.5 [&>*]:pointer-events-auto">
              {ARCH_VIEWS.map((v) => (
                <button key={v} type="button" className="chip" onClick={() => look(v)}>
                  {VIEW_WORDS[v]}
                </button>
              ))}
            </div>
            <span data-testid="planned-count" className="sr-only">
              {planned.size} planned surfaces
            </span>
          </>
        )
      }
      panel={
        <>
          {contour.state === 'ready' && tool && tool !== 'smile' && (
            <div className="-mx-[18px] -mt-4 mb-4 border-b border-hair bg-porcelain px-[18px] py-3.5">
              {tool === 'brush' && <BrushCard brush={brush} setBrush={setBrush} refusal={strokes.refusal} />}
              {tool === 'cut' && <CutCard setting={cutSetting} set={setCut} view={cut.view} />}
              {tool === 'bite' && <BiteCard wish={wish} set={setWish} view={bite} lower={lower} shown={lowerShown} show={showLower} />}
            </div>
          )}
          <ToothPanel contour={contour} planned={own} neighbours={neighbours} setToProposal={setToProposal} />
        </>
      }
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['1', '2', '3', '4']} does="scanned, planned, change, both" />
          <KeyHint keys={['B', 'X', 'O', 'S']} does="brush, section, bite, smile" />
          <KeyHint keys={['F', 'R', 'L', 'A', 'E', 'T', 'H']} does="view" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">drag turns, wheel zooms</span>
        </>
      }
    />
  );
}
