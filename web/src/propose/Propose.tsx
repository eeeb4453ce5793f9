import { type FrontKind, kindOf, RATIO_UNWORN, SCHOOLS, type SchoolId, UPPER_SIX } from '@radiant/core';
import { lazy, Suspense, useId } from 'react';
import { useNavigate } from 'react-router';
import { useSection, useSentence, useToothLabel } from '../data/case-context.js';
import { useProposal, useReading } from '../data/reading.js';
import { Comments } from '../shell/Comments.js';
import { number, signed } from '../shell/format.js';
import { AskedValue, How, Value } from '../shell/How.js';
import { NumberField } from '../shell/NumberField.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../shell/ReadOnlyNote.js';
import { Empty, KeyHint, Stage } from '../shell/Stage.js';
import { AcceptedFindings } from './AcceptedFindings.js';
import { DisplayNorm } from './DisplayNorm.js';
import { FrontDrawing } from './FrontDrawing.js';

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
            <FrontDrawing proposal={proposal} measures={measures} />
            <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,300px)] gap-6">
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

function SchoolPanel() {
  const view = useSection('propose');
  const { data, set, store } = view;
  const proposal = useProposal();
  const mayWrite = useMayWrite('propose');
  const mayShape = useMayWrite('shape');
  const name = useToothLabel();
  const sentence = useSentence();
  const navigate = useNavigate();
  const refId = useId();
  return (
    <>
      <ReadOnlyNote section="propose" />
      <Refused sentence={view.refusal?.detail} />
      <h2 className="title mb-2">School</h2>
      <fieldset className="mb-4 space-y-2" disabled={!mayWrite}>
        <legend className="sr-only">School</legend>
        {SCHOOLS.map((s, i) => (
          <label
            key={s.id}
            className="block cursor-pointer rounded-lg border border-hair p-3 hover:border-ink-3 has-checked:border-plum has-checked:bg-plum-soft has-focus-visible:outline-2 has-focus-visible:outline-plum"
          >
            <input type="radio" name="school" className="sr-only" checked={data.school === s.id} onChange={() => set({ ...data, school: s.id as SchoolId })} />
            <b className="font-semibold">{s.name}</b>
            {i === 0 && <span className="text-[12px] text-ink-2"> · the default: it needs no tooth that is already right</span>}
            <span className="block text-[13px] leading-snug text-ink-2">{s.reason}</span>
            <span className="block text-[13px] leading-snug text-ink-2">Cost: {s.cost.charAt(0).toLowerCase() + s.cost.slice(1)}</span>
          </label>
        ))}
      </fieldset>
      {data.school === 'reference' && (
        <div className="mb-4 flex items-center justify-between">
          <label htmlFor={refId}>Reference tooth</label>
          <select
            id={refId}
            className="field w-[90px]"
            disabled={!mayWrite}
            value={data.referenceTooth}
            onChange={(e) => set({ ...data, referenceTooth: Number(e.target.value) })}
          >
            {UPPER_SIX.map((t) => (
              <option key={t} value={t}>
                {name(t)}
              </option>
            ))}
          </select>
        </div>
      )}
      <h2 className="title mb-1">Edge</h2>
      <p className="mb-2 text-[13px] text-ink-2">Central edges against where the lower of them stands today; + is longer. Set it before lengths and widths.</p>
      <DisplayNorm />
      <NumberField
        label="Edge set down"
        unit="mm"
        value={data.edgeMm}
        min={-3}
        max={4}
        step={0.1}
        digits={1}
        disabled={!mayWrite}
        onChange={(v) => set({ ...data, edgeMm: v }, 'edge')}
        onDone={() => store.endGroup()}
      />
      {proposal && (
        <>
          <h2 className="title mb-1 mt-6">Space</h2>
          <p className="text-[13px] text-ink-2">
            <b className="font-semibold text-ink">
              <Value figure={proposal.space} unit />
            </b>{' '}
            from canine to canine along the arch, always filled, left and right alike. <How figure={proposal.space} what="space" />
          </p>
          {proposal.notes.length > 0 && (
            <div className="mt-3">
              {proposal.notes.map((n) => (
                <p key={n} className="finding text-[13px]" data-weight="watch">
                  {sentence(n)}
                </p>
              ))}
            </div>
          )}
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
    <table className="figures" aria-label="Targets beside what is">
      <thead>
        <tr>
          <th scope="col">tooth</th>
          <th scope="col">length, mm</th>
          <th scope="col">target</th>
          <th scope="col">width, mm</th>
          <th scope="col">target</th>
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
              <td>{m?.ratio ? `${number(m.ratio.value, 0)} %` : '–'}</td>
              <td className="font-[650] text-plum">{number(t.ratio.value, 0)} %</td>
              <td className="text-ink-2">{RATIO_UNWORN[kindOf(t.tooth) as FrontKind].value} %</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Change({ by }: { by: number }) {
  return <span className="pm mr-1.5">{Math.abs(by) < 0.05 ? 'as is' : signed(by, 1)}</span>;
}
