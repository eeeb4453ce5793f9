import { CROWN_LIMITS, type FrontKind, kindOf, type Proposal, RATIO_UNWORN, type ToothMeasure } from '@radiant/core';
import { Lock, LockOpen } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { useNavigate } from 'react-router';
import { useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { useProposal, useReading } from '../../data/reading.js';
import { Comments } from '../../shell/Comments.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number, signed } from '../../ui/format.js';
import { AskedValue, How } from '../../ui/How.js';
import { NumberField } from '../../ui/NumberField.js';
import { NumberInput } from '../../ui/NumberInput.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { AcceptedFindings } from './AcceptedFindings.js';
import { AlignFirst } from './AlignFirst.js';
import { EdgeFields } from './EdgeFields.js';
import { EdgePhoto } from './EdgePhoto.js';
import { FrontDrawing } from './FrontDrawing.js';
import { SchoolSettings } from './SchoolSettings.js';
import { SchoolStrip } from './SchoolStrip.js';
import { SpaceFields } from './SpaceFields.js';

const RatioChart = lazy(() => import('./RatioChart.js'));

/** Propose: targets by a school beside what is, and the edge level. */
export default function Propose() {
  const { measures } = useReading();
  const proposal = useProposal();
  return (
    <Stage
      bench={
        proposal ? (
          <div className="flex h-full flex-col gap-1 overflow-y-auto px-6 py-4">
            <Front proposal={proposal} measures={measures} />
            <SchoolStrip />
            <div className="mt-1 grid grid-cols-[minmax(0,1fr)_minmax(0,290px)] gap-6">
              <TargetTable />
              <Suspense fallback={null}>
                <RatioChart proposal={proposal} measures={measures} />
              </Suspense>
            </div>
          </div>
        ) : (
          <Empty title="Targets need measures first">
            <p>Set the scale and all four landmarks on each of the six teeth in read; the targets appear here.</p>
          </Empty>
        )
      }
      panel={<SchoolPanel />}
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">Planning aid. The treating clinician decides and checks in the mouth.</span>
        </>
      }
    />
  );
}

const FRONTS = [
  ['drawing', 'as drawing'],
  ['close-smile', 'on the smile'],
  ['close-rest', 'on the lips at rest'],
] as const;

/** The six teeth from the front: as a drawing, or the planned edge on a photograph, where it can be moved. */
function Front({ proposal, measures }: { proposal: Proposal; measures: readonly ToothMeasure[] }) {
  const [front, setFront] = useState<(typeof FRONTS)[number][0]>('drawing');
  const { edgeMm, gumMm = 0 } = useSection('propose').data;
  const downOf = (tooth: number) => {
    const [then, now] = [proposal.targets.find((t) => t.tooth === tooth)?.length.value, measures.find((m) => m.tooth === tooth)?.length?.value];
    return then === undefined || now === undefined ? edgeMm : then - now - gumMm;
  };
  return (
    <div className="flex min-h-[300px] flex-1 flex-col">
      <div className="mb-1 flex gap-1.5">
        {FRONTS.map(([id, word]) => (
          <button key={id} type="button" className="chip chip-flat" aria-pressed={front === id} onClick={() => setFront(id)}>
            {word}
          </button>
        ))}
      </div>
      <div className="flex min-h-0 flex-1 flex-col">
        {front === 'drawing' ? <FrontDrawing proposal={proposal} measures={measures} /> : <EdgePhoto view={front} downOf={downOf} />}
      </div>
    </div>
  );
}

function SchoolPanel() {
  const view = useSection('propose');
  const { data, set, store } = view;
  const proposal = useProposal();
  const mayWrite = useMayWrite('propose');
  const mayShape = useMayWrite('shape');
  const sentence = useSentence();
  const navigate = useNavigate();
  return (
    <>
      <ReadOnlyNote section="propose" />
      <Refused sentence={view.refusal?.detail} />
      <SchoolSettings />
      <h2 className="title mb-1">Edge and gum</h2>
      <p className="mb-2 text-[13px] text-ink-2">Central edges against where the lower of them stands today; + is longer. Set it before lengths and widths.</p>
      <EdgeFields />
      <NumberField
        label="Gum moved up"
        unit="mm"
        value={data.gumMm ?? 0}
        min={0}
        max={4}
        step={0.1}
        digits={1}
        disabled={!mayWrite}
        onChange={(v) => set({ ...data, gumMm: v }, 'gum')}
        onDone={() => store.endGroup()}
      />
      {proposal && (
        <>
          <SpaceFields proposal={proposal} />
          {proposal.notes.length > 0 && (
            <div className="mt-3">
              {proposal.notes.map((n) => (
                <p key={n} className="finding text-[13px]" data-weight="watch">
                  {sentence(n)}
                </p>
              ))}
            </div>
          )}
          <AlignFirst />
          {mayShape && (
            <button type="button" className="btn mt-4 w-full" onClick={() => navigate('../shape', { state: { setToProposal: true } })}>
              Shape the crowns to this
            </button>
          )}
        </>
      )}
      <AcceptedFindings />
      <Comments stage="propose" />
    </>
  );
}

function TargetTable() {
  const { measures } = useReading();
  const proposal = useProposal();
  const name = useToothLabel();
  if (!proposal) return null;
  return (
    <FigureTable aria-label="Targets beside what is">
      <thead>
        <tr>
          <th scope="col">tooth</th>
          <th scope="col">length, mm</th>
          <th scope="col">target</th>
          <th scope="col">width, mm</th>
          <th scope="col">target</th>
          <td />
          <th scope="col">w / l</th>
          <th scope="col">target</th>
          <th scope="col">norm</th>
        </tr>
      </thead>
      <tbody>
        {proposal.targets.map((t) => {
          const m = measures.find((q) => q.tooth === t.tooth);
          return (
            <tr key={t.tooth} data-testid={`target-${t.tooth}`}>
              <td className="font-[650]">{name(t.tooth)}</td>
              <td>
                <AskedValue figure={m?.length} what={`length of ${name(t.tooth)}`} />
              </td>
              <td className="font-[650] text-plum">
                <Change by={t.length.value - (m?.length?.value ?? t.length.value)} />{' '}
                <How figure={t.length} what={`target length of ${name(t.tooth)}`}>
                  {number(t.length.value, 1)}
                </How>
              </td>
              <td>
                <AskedValue figure={m?.width} what={`crown width of ${name(t.tooth)}`} />
              </td>
              <td className="font-[650] text-plum">
                <Change by={t.width.value - (m?.width?.value ?? t.width.value)} />{' '}
                <How figure={t.width} what={`target width of ${name(t.tooth)}`}>
                  {number(t.width.value, 1)}
                </How>
              </td>
              <td className="pl-0 text-left">
                <WidthLock tooth={t.tooth} widthMm={t.width.value} />
              </td>
              <td>{m?.ratio ? `${number(m.ratio.value, 0)} %` : '–'}</td>
              <td className="font-[650] text-plum">{number(t.ratio.value, 0)} %</td>
              <td className="text-ink-2">{RATIO_UNWORN[kindOf(t.tooth) as FrontKind].value} %</td>
            </tr>
          );
        })}
      </tbody>
    </FigureTable>
  );
}

/** Holds a width as it is, or lets it go; the others share what is left. */
function WidthLock({ tooth, widthMm }: { tooth: number; widthMm: number }) {
  const { data, set, store } = useSection('propose');
  const mayWrite = useMayWrite('propose');
  const name = useToothLabel();
  const locked = data.locked ?? [];
  const on = locked.some((l) => l.tooth === tooth);
  if (!mayWrite) return on ? <Lock size={13} aria-label={`width of ${name(tooth)} is held`} /> : null;
  const toggle = () => set({ ...data, locked: on ? locked.filter((l) => l.tooth !== tooth) : [...locked, { tooth, widthMm: Math.round(widthMm * 10) / 10 }] });
  return (
    <span className="ml-0.5 flex items-center gap-1">
      <button
        type="button"
        aria-pressed={on}
        aria-label={`hold the width of ${name(tooth)}`}
        className={`flex h-6 w-6 items-center justify-center ${on ? 'text-plum' : 'text-ink-2 hover:text-plum'}`}
        onClick={toggle}
      >
        {on ? <Lock size={14} aria-hidden="true" /> : <LockOpen size={14} aria-hidden="true" />}
      </button>
      {on && (
        <NumberInput
          label={`width of ${name(tooth)}, mm`}
          className="field h-6 w-[54px] px-1 text-right text-[13px]"
          value={locked.find((l) => l.tooth === tooth)?.widthMm ?? null}
          min={CROWN_LIMITS.widthMm.min}
          max={CROWN_LIMITS.widthMm.max}
          step={0.1}
          digits={1}
          unit="mm"
          onChange={(next) => next !== null && set({ ...data, locked: locked.map((l) => (l.tooth === tooth ? { tooth, widthMm: next } : l)) }, `lock ${tooth}`)}
          onDone={() => store.endGroup()}
        />
      )}
    </span>
  );
}

function Change({ by }: { by: number }) {
  return <span className="pm mr-1.5">{Math.abs(by) < 0.05 ? 'as is' : signed(by, 1)}</span>;
}
