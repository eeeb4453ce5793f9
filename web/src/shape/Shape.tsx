import { contourPlan, planInputs } from '@radiant/contract';
import { type Fdi, PLAN_LIMITS, type ToothPlan, UPPER_SIX } from '@radiant/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { ArchScene, type Showing, type ViewName } from '../bench/ArchScene.js';
import { css, DIFFERENCE_RANGE_MM, differenceColour } from '../bench/colour-scale.js';
import { useCase, useSection, useToothLabel } from '../data/case-context.js';
import { useProposal } from '../data/reading.js';
import { Comments } from '../shell/Comments.js';
import { number, signed } from '../shell/format.js';
import { isTyping } from '../shell/Keys.js';
import { NumberField } from '../shell/NumberField.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../shell/ReadOnlyNote.js';
import { Empty, KeyHint, Stage } from '../shell/Stage.js';
import { Trouble, Waiting } from '../shell/Waiting.js';
import { type ContourState, useContour, usePlanned } from '../workers/use-contour.js';
import { ScanUpload } from './ScanUpload.js';
import { Versions } from './Versions.js';

const SHOWING: readonly (readonly [Showing, string])[] = [
  ['existing', 'as scanned'],
  ['planned', 'planned'],
  ['difference', 'added and removed'],
];
const VIEWS: readonly ViewName[] = ['front', 'right', 'left', 'above'];

/** Shape: the arch in three dimensions, existing against planned, and the crowns' numbers. */
export default function Shape() {
  const contour = useContour();
  const shape = useSection('shape');
  const { tooth, selectTooth } = useCase();
  const plan = useMemo(() => contourPlan(shape.data.teeth), [shape.data.teeth]);
  const planned = usePlanned(contour, plan);
  const [showing, setShowing] = useState<Showing>('difference');
  const [gum, setGum] = useState(true);
  const [view, setView] = useState<{ name: ViewName; turn: number }>({ name: 'front', turn: 0 });
  const setToProposal = useSetToProposal(contour);
  const choose = useCallback((t: Fdi) => UPPER_SIX.includes(t) && selectTooth(t), [selectTooth]);

  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (isTyping(e) || e.ctrlKey || e.metaKey || e.altKey) return;
      const named = VIEWS.find((v) => v[0] === e.key.toLowerCase());
      const shown = SHOWING[Number(e.key) - 1];
      if (named) setView((v) => ({ name: named, turn: v.turn + 1 }));
      else if (shown) setShowing(shown[0]);
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, []);

  const own = planned.get(tooth);
  return (
    <Stage
      surround="grey"
      bench={
        contour.state === 'no-scan' ? (
          <Empty title="No scan yet">
            <p className="mb-5">A scan of the upper jaw as STL with its teeth numbered, as the simulated scanner writes it.</p>
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
            <ArchScene arch={contour.arch} planned={planned} showing={showing} gum={gum} view={view} selected={tooth} onSelect={choose} />
            <div className="pointer-events-none absolute inset-x-4 top-3.5 flex flex-wrap gap-2 [&>*]:pointer-events-auto">
              {SHOWING.map(([id, word]) => (
                <button key={id} type="button" className="chip" aria-pressed={showing === id} onClick={() => setShowing(id)}>
                  {word}
                </button>
              ))}
              <span className="w-2" />
              <button type="button" className="chip" aria-pressed={gum} onClick={() => setGum(!gum)}>
                gum
              </button>
              <span className="flex-1" />
              {VIEWS.map((v) => (
                <button key={v} type="button" className="chip" onClick={() => setView({ name: v, turn: view.turn + 1 })}>
                  {v}
                </button>
              ))}
            </div>
            {showing === 'difference' && <Legend />}
            <span data-testid="planned-count" className="sr-only">
              {planned.size} planned surfaces
            </span>
          </>
        )
      }
      panel={<ToothPanel contour={contour} setToProposal={setToProposal} {...(own && { most: { added: own.mostAddedMm, removed: own.mostRemovedMm } })} />}
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['1', '2', '3']} does="scanned, planned, both" />
          <KeyHint keys={['F', 'R', 'L', 'A']} does="view" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">drag turns, wheel zooms</span>
        </>
      }
    />
  );
}

function Legend() {
  const steps = Array.from({ length: 21 }, (_, i) => ((i - 10) / 10) * DIFFERENCE_RANGE_MM);
  return (
    <figure className="absolute bottom-4 left-4 rounded-xl bg-leaf px-4 py-3 text-[12.5px] shadow-lg">
      <div className="flex" aria-hidden="true">
        {steps.map((mm) => (
          <span key={mm} className="h-2.5 w-[11px]" style={{ background: css(differenceColour(mm)) }} />
        ))}
      </div>
      <div className="mt-1 flex justify-between">
        <span>−{DIFFERENCE_RANGE_MM.toFixed(1)}</span>
        <span>0</span>
        <span>+{DIFFERENCE_RANGE_MM.toFixed(1)} mm</span>
      </div>
      <figcaption className="mt-0.5 flex justify-between font-semibold">
        <span className="text-removed-ink">tooth removed</span>
        <span className="text-added">volume added</span>
      </figcaption>
    </figure>
  );
}

/** Sets all six crowns to the proposal; comes by itself from propose's button and on a case without a contour. */
function useSetToProposal(contour: ContourState): { readonly can: boolean; readonly act: () => Promise<void> } {
  const shape = useSection('shape');
  const propose = useSection('propose');
  const proposal = useProposal();
  const mayWrite = useMayWrite('shape');
  const { detail } = useCase();
  const location = useLocation();
  const navigate = useNavigate();
  const asked = (location.state as { setToProposal?: boolean } | null)?.setToProposal === true;
  const can = mayWrite && contour.state === 'ready' && !!proposal;

  const act = useCallback(async () => {
    if (contour.state !== 'ready' || !proposal) return;
    const plan = await contour.service.first(
      proposal.targets.map((t) => [t.tooth, { lengthMm: t.length.value, widthMm: t.width.value, zenithUpMm: propose.data.gumMm ?? 0 }] as const),
    );
    const scanId = shape.data.scanId ?? detail.files.filter((f) => f.kind === 'scan').at(-1)?.id;
    shape.set({ ...(scanId && { scanId }), proposalVersion: propose.version, teeth: planInputs(plan) });
  }, [contour, proposal, shape, propose.version, propose.data.gumMm, detail.files]);

  const done = useRef(false);
  useEffect(() => {
    if (!asked || !can || done.current) return;
    // The proposal must have its version before the contour can name it.
    if (propose.status === 'waiting' || propose.status === 'saving') return;
    done.current = true;
    navigate('.', { replace: true, state: null });
    void act();
  }, [asked, can, act, navigate, propose.status]);
  return { can, act };
}

const FIELDS: readonly { key: keyof ToothPlan; label: string; unit: string; step: number; digits: number }[] = [
  { key: 'lengthMm', label: 'Length', unit: 'mm', step: 0.05, digits: 2 },
  { key: 'widthMm', label: 'Width', unit: 'mm', step: 0.05, digits: 2 },
  { key: 'facialVolumeMm', label: 'Facial volume', unit: 'mm', step: 0.05, digits: 2 },
  { key: 'rotationDeg', label: 'Rotation, mesial forward', unit: '°', step: 0.5, digits: 1 },
  { key: 'zenithUpMm', label: 'Zenith, up', unit: 'mm', step: 0.05, digits: 2 },
];

function ToothPanel({
  contour,
  setToProposal,
  most,
}: {
  contour: ContourState;
  setToProposal: { can: boolean; act: () => Promise<void> };
  most?: { added: number; removed: number };
}) {
  const { tooth } = useCase();
  const shape = useSection('shape');
  const propose = useSection('propose');
  const proposal = useProposal();
  const mayWrite = useMayWrite('shape');
  const name = useToothLabel();
  const own = shape.data.teeth.find((t) => t.tooth === tooth);
  const there = contour.state === 'ready' ? contour.arch.existing.find((e) => e.tooth === tooth) : undefined;
  const target = proposal?.targets.find((t) => t.tooth === tooth);
  const stale =
    own !== undefined && shape.data.proposalVersion !== undefined && shape.data.proposalVersion !== null && shape.data.proposalVersion < propose.version;
  const change = (key: keyof ToothPlan, v: number) =>
    shape.set({ ...shape.data, teeth: shape.data.teeth.map((t) => (t.tooth === tooth ? { ...t, [key]: v } : t)) }, `${tooth} ${key}`);

  const notes: Partial<Record<keyof ToothPlan, string>> = {
    ...(there && {
      lengthMm: `scan ${number(there.lengthMm, 2)}${target ? ` · proposal ${number(target.length.value, 2)}` : ''}`,
      widthMm: `scan ${number(there.widthMm, 2)}${target ? ` · proposal ${number(target.width.value, 2)}` : ''}`,
      facialVolumeMm: 'against the library form',
      rotationDeg: `scan ${signed(there.rotationDeg, 1)}`,
      zenithUpMm: 'the gum moves with it',
    }),
  };
  return (
    <>
      <ReadOnlyNote section="shape" />
      <Refused sentence={shape.refusal?.detail} />
      <h2 className="title">{name(tooth)} · planned crown</h2>
      {there && (
        <p className="mb-3 text-[13px] text-ink-2">
          scanned tooth measured ±0.05 mm; form fits it to {number(there.fitMm, 2)} mm{there.wearMm > 0 ? `, worn by about ${number(there.wearMm, 1)} mm` : ''}
        </p>
      )}
      {stale && (
        <div className="finding" data-weight="watch">
          <b className="font-[650]">The proposal has changed since</b>
          <span className="block text-[13px] text-ink-2">
            These crowns were set to version {shape.data.proposalVersion}; it is now version {propose.version}.
          </span>
        </div>
      )}
      {own ? (
        <>
          {FIELDS.map((f) => (
            <NumberField
              key={f.key}
              label={f.label}
              unit={f.unit}
              value={own[f.key] ?? 0}
              min={PLAN_LIMITS[f.key].min}
              max={PLAN_LIMITS[f.key].max}
              step={f.step}
              digits={f.digits}
              disabled={!mayWrite}
              {...(notes[f.key] && { note: notes[f.key] as string })}
              onChange={(v) => change(f.key, v)}
              onDone={() => shape.store.endGroup()}
            />
          ))}
          {most && (
            <p className="mb-4 flex gap-6 text-[13px] text-ink-2">
              <span>
                at most <b className="font-semibold text-added">+{number(most.added, 2)}</b> mm added
              </span>
              <span>
                <b className="font-semibold text-removed-ink">−{number(most.removed, 2)}</b> mm removed
              </span>
            </p>
          )}
        </>
      ) : (
        <p className="mb-4 text-ink-2">
          {proposal ? 'No contour yet: set the crowns to the proposal.' : 'No contour yet. It begins from a proposal: measure the six teeth in read first.'}
        </p>
      )}
      {mayWrite && (
        <button type="button" className={own ? 'btn btn-ghost w-full' : 'btn w-full'} disabled={!setToProposal.can} onClick={() => void setToProposal.act()}>
          Set the crowns to the proposal
        </button>
      )}
      {mayWrite && own && (
        <p className="mt-1.5 text-[12px] text-ink-2">
          Aligned to the arch, and full enough to lie at or in front of the teeth: additive first. Undo brings your numbers back.
        </p>
      )}
      <div className="mt-4">{contour.state === 'ready' && <ScanUpload quiet />}</div>
      <Versions />
      <Comments stage="shape" />
    </>
  );
}
