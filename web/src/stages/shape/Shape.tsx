import { contourPlan, type ToothPlanInput } from '@radiant/contract';
import { across, type BiteWish, type Fdi, isPlannable, jawOf } from '@radiant/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { ArchScene, type Showing } from '../../bench/ArchScene.js';
import { newHandlePlaces } from '../../bench/CrownHandles.js';
import { ViewChips } from '../../bench/ViewChips.js';
import { useCase, useSection } from '../../data/case-context.js';
import { shownOf } from '../../engine/use-asked.js';
import { type ContourState, useContour } from '../../engine/use-contour.js';
import { type JawState, useDrawable, useJaw } from '../../engine/use-jaws.js';
import { useLower } from '../../engine/use-lower.js';
import { useNeighbours } from '../../engine/use-neighbours.js';
import { usePlanned } from '../../engine/use-planned.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { BiteCard, FIRST_BITE } from './BiteCard.js';
import { BrushCard, FIRST_BRUSH } from './BrushCard.js';
import { ChosenHandles } from './ChosenHandles.js';
import { CutCard } from './CutCard.js';
import { Legend } from './Legend.js';
import { LightCard, useFaces } from './LightCard.js';
import { PassingNotes } from './NeighbourNotes.js';
import { COMING, useComing } from './own-scan/early.js';
import { OwnScan } from './own-scan/OwnScan.js';
import { ScanUpload } from './ScanUpload.js';
import { ShapeChips } from './ShapeChips.js';
import { SmilePicture } from './SmilePicture.js';
import { ToothPanel } from './ToothPanel.js';
import type { ShownPlan, Tool } from './tools.js';
import { useBite } from './use-bite.js';
import { useBrush } from './use-brush.js';
import { useCrownEdits } from './use-crown-edits.js';
import { type CutSetting, FIRST_CUT, useCut } from './use-cut.js';
import { useLook } from './use-look.js';
import { useSetToProposal } from './use-set-to-proposal.js';
import { useShapeKeys } from './use-shape-keys.js';

/** Shape; or, while a scan from outside is being made the case's, that. */
export default function Shape() {
  const { detail } = useCase();
  const [asked] = useSearchParams();
  const coming = useComing(detail.id);
  const id = asked.get('scan');
  const own = detail.files.find((f) => f.id === (id === COMING ? coming?.kept?.id : id) && f.role === 'original');
  // The same bench before and after the file is on record.
  if (coming && (id === COMING || (own && own.id === coming.kept?.id)))
    return <OwnScan key={coming.key} file={own} coming={coming} />;
  return own ? <OwnScan key={own.id} file={own} /> : <Bench />;
}

/** The arch in three dimensions, existing against planned, with brush, section and bite. */
function Bench() {
  const contour = useContour();
  const shape = useSection('shape');
  const { tooth, selectTooth } = useCase();
  const [showing, setShowing] = useState<ShownPlan>('difference');
  const [share, setShare] = useState(0.55);
  const [gum, setGum] = useState(true);
  const mayShape = useMayWrite('shape');
  const [tool, setTool] = useState<Tool>();
  const [brush, setBrush] = useState(FIRST_BRUSH);
  const [cutSetting, setCut] = useState<CutSetting>(FIRST_CUT);
  const [wish, setWish] = useState<BiteWish>(FIRST_BITE);
  const reading = useRef<HTMLSpanElement>(null);

  const choose = useCallback((t: Fdi) => isPlannable(t) && selectTooth(t), [selectTooth]);
  const kept = useMemo(() => contourPlan(shape.data.teeth), [shape.data.teeth]);
  const strokes = useBrush(contour, brush, choose);
  const edits = useCrownEdits(contour, tooth);
  const [tried, tryOut] = useState<Partial<ToothPlanInput>>();
  const plan = useMemo(() => {
    const drawn = strokes.drawn(kept);
    const own = drawn[tooth];
    return own && tried ? { ...drawn, [tooth]: { ...own, ...tried } } : drawn;
  }, [strokes.drawn, kept, tried, tooth]);
  const lower = useLower(contour, true);
  const jaw = jawOf(tooth);
  const inBite = tool === 'bite';
  const { view, look, acrossShown, showAcross } = useLook(jaw, inBite);
  const { views: planned, troubles } = usePlanned(contour, useDrawable(plan, lower));
  const own = useJaw(contour, lower, jaw);
  const neighbours = useNeighbours(contour, kept, lower);
  const biteAsked = useBite(contour, kept, lower, tool === 'bite' ? wish : undefined);
  const bite = shownOf(biteAsked);
  const cut = useCut(contour, plan, tooth, tool === 'cut' ? cutSetting : undefined);
  const setToProposal = useSetToProposal(contour);
  const biteMaps = useMemo(() => bite && { which: wish.which, of: new Map(bite.maps) }, [bite, wish.which]);
  const lowerAt = useMemo(
    () =>
      inBite && (acrossShown || jaw === 'lower') && lower.state === 'ready'
        ? { view: lower.view, shift: bite?.shift ?? ([0, 0, 0] as const) }
        : undefined,
    [inBite, acrossShown, jaw, lower, bite],
  );

  const otherJaw = useCallback(() => selectTooth(across(tooth)), [selectTooth, tooth]);
  const toggle = useCallback((t: Tool) => setTool((now) => (now === t ? undefined : t)), []);
  useShapeKeys({ look, otherJaw, setShowing, toggle, setBrush, putAway: () => setTool(undefined), mayShape });

  const places = useRef(newHandlePlaces());
  // While a tool is in the hand, or the crown is not seen alone, nothing is in its way.
  const chosen =
    mayShape && !tool && showing !== 'existing' ? shape.data.teeth.find((t) => t.tooth === tooth) : undefined;
  const faces = useFaces(contour, plan, tool === 'light' ? jaw : undefined);
  // A map of millimetres would hide what the light shows.
  const drawn: Showing = tool === 'bite' ? 'bite' : tool === 'light' && showing === 'difference' ? 'planned' : showing;
  return (
    <Stage
      surround="grey"
      bench={
        contour.state !== 'ready' ? (
          <NoContour of={contour} />
        ) : (
          <>
            {tool === 'smile' && (
              <div className="absolute inset-0 z-10 bg-bench">
                <SmilePicture contour={contour} plan={kept} />
              </div>
            )}
            {own.state !== 'ready' && tool !== 'bite' && tool !== 'smile' && <NoLowerJaw of={own} back={otherJaw} />}
            <ArchScene
              arch={
                inBite
                  ? acrossShown || jaw === 'upper'
                    ? contour.arch
                    : undefined
                  : own.state === 'ready'
                    ? own.arch
                    : undefined
              }
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
              brush={tool === 'brush' && mayShape ? strokes.hand : undefined}
              reading={reading}
              lit={tool === 'light'}
              handles={chosen && places}
            />
            {chosen && planned.has(tooth) && <ChosenHandles own={chosen} edits={edits} places={places} />}
            <span
              ref={reading}
              hidden
              className="pointer-events-none absolute top-0 left-0 rounded bg-ink/85 px-1.5 py-0.5 text-tiny text-white"
            />
            <ShapeChips
              showing={showing}
              setShowing={setShowing}
              share={share}
              setShare={setShare}
              gum={gum}
              setGum={setGum}
              tool={tool}
              setTool={setTool}
              toggle={toggle}
              jaw={jaw}
              otherJaw={otherJaw}
              mayShape={mayShape}
            />
            {tool !== 'smile' && (
              <div className="absolute top-14 left-4 max-w-[292px] max-xl:top-[92px]">
                <PassingNotes contour={contour} neighbours={neighbours} troubles={troubles} />
              </div>
            )}
            <div className="pointer-events-none absolute inset-x-4 bottom-4 flex flex-wrap items-end justify-between gap-3 [&>*]:pointer-events-auto">
              {(drawn === 'bite' ? lower.state === 'ready' : drawn === 'difference') && (
                <Legend of={drawn === 'bite' ? 'bite' : 'difference'} jaw={jaw} />
              )}
              <ViewChips jaw={jaw} look={look} />
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
              {tool === 'brush' && mayShape && (
                <BrushCard brush={brush} setBrush={setBrush} refusal={strokes.refusal} />
              )}
              {tool === 'light' && <LightCard asked={faces} jaw={jaw} />}
              {tool === 'cut' && <CutCard setting={cutSetting} set={setCut} asked={cut.asked} />}
              {tool === 'bite' && (
                <BiteCard
                  wish={wish}
                  set={setWish}
                  asked={biteAsked}
                  lower={lower}
                  jaw={jaw}
                  shown={acrossShown}
                  show={showAcross}
                />
              )}
            </div>
          )}
          <ToothPanel
            contour={contour}
            jaw={own}
            planned={planned.get(tooth)}
            neighbours={neighbours}
            setToProposal={setToProposal}
            edits={edits}
            tryOut={tryOut}
          />
        </>
      }
      foot={<Foot />}
    />
  );
}

/** What stands on the bench until there is a contour. */
function NoContour({ of }: { of: Exclude<ContourState, { state: 'ready' }> }) {
  if (of.state === 'no-scan')
    return (
      <Empty title="No scan yet">
        <p className="mb-5">
          A scan of the upper jaw as STL, PLY or OBJ, wherever it lies; where its teeth have no numbers yet you mark
          them here.
        </p>
        <span className="flex justify-center">
          <ScanUpload />
        </span>
      </Empty>
    );
  return (
    <div className="h-full bg-porcelain">
      {of.state === 'failed' ? (
        <Trouble sentence={of.sentence} retry={of.retry} />
      ) : (
        <Waiting what="the scan and measuring its teeth" />
      )}
    </div>
  );
}

/** What stands on the bench while the lower jaw can't be shown. */
function NoLowerJaw({ of, back }: { of: Exclude<JawState, { state: 'ready' }>; back: () => void }) {
  return (
    <div className="absolute inset-0 z-10 bg-porcelain">
      {of.state === 'loading' ? (
        <Waiting what="the lower jaw and measuring its teeth" />
      ) : (
        <Empty title={of.state === 'none' ? 'No scan of the lower jaw yet' : 'The lower jaw can’t be shaped'}>
          <p className="mb-5">
            {of.state === 'failed' ? of.sentence : 'Scanned in the closed bite with the upper jaw.'}
          </p>
          {of.state === 'failed' && (
            <p className="mb-5">
              <button type="button" className="how" onClick={of.retry}>
                try again
              </button>
            </p>
          )}
          <span className="flex items-center justify-center gap-4">
            <ScanUpload />
            <button type="button" className="how" onClick={back}>
              back to the upper teeth
            </button>
          </span>
        </Empty>
      )}
    </div>
  );
}

function Foot() {
  return (
    <>
      <KeyHint keys={['[', ']']} does="tooth" />
      <KeyHint keys={['1', '2', '3', '4']} does="scanned, planned, change, both" />
      <KeyHint keys={['B', 'X', 'O', 'I', 'S']} does="brush, section, bite, light, smile" />
      <KeyHint keys={['F', 'R', 'L', 'A', 'E', 'T', 'H']} does="view" />
      <KeyHint keys={['?']} does="all keys" />
      <span className="ml-auto">drag turns, wheel zooms</span>
    </>
  );
}
