import { differs, difference, type Finding, opposite, type ToothMeasure } from '@radiant/core';
import { useNavigate } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../data/case-context.js';
import { useReading } from '../data/reading.js';
import { signed } from '../shell/format.js';
import { How, Value } from '../shell/How.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../shell/ReadOnlyNote.js';

/** What stands out, the most visible first, and the chosen tooth beside its fellow. */
export function FindingsPanel() {
  const read = useSection('read');
  const { findings, measures, scale, photo } = useReading();
  const quiet = findings.filter((f) => f.notice === 'nobody').length;
  return (
    <>
      <ReadOnlyNote section="read" />
      <Refused sentence={read.refusal?.detail} />
      <h2 className="title">What stands out</h2>
      <p className="mb-3.5 text-[13px] text-ink-2">
        {findings.length === 0
          ? !photo
            ? 'appears here once there is a photograph'
            : !scale
              ? 'set the scale first'
              : measures.some((m) => m.length || m.width)
                ? 'nothing beyond the measuring error so far'
                : 'set landmarks; findings follow live'
          : `most visible first${quiet ? ` · ${quiet} below notice` : ''}`}
      </p>
      <div className="mb-5">
        {findings.map((f) => (
          <FindingView key={f.id} finding={f} />
        ))}
      </div>
      <PairTable measures={measures} />
    </>
  );
}

function FindingView({ finding: f }: { finding: Finding }) {
  const sentence = useSentence();
  const { selectTooth } = useCase();
  return (
    <div className="finding" data-weight={f.notice}>
      <button type="button" className="text-left font-[650]" onClick={() => f.teeth[0] && selectTooth(f.teeth[0])}>
        {sentence(f.title)}
      </button>
      <span className="block text-[13px] text-ink-2">
        {sentence(f.detail)} <How figure={f.figure} what={sentence(f.title)} source={f.source} />
      </span>
    </div>
  );
}

const ROWS = [
  ['length', 'length', 'mm'],
  ['frontWidth', 'width from the front', 'mm'],
  ['width', 'crown width', 'mm'],
  ['ratio', 'width / length', '%'],
  ['edgeLevel', 'edge level', 'mm'],
  ['zenithLevel', 'zenith level', 'mm'],
] as const;

function PairTable({ measures }: { measures: readonly ToothMeasure[] }) {
  const { tooth } = useCase();
  const name = useToothLabel();
  const propose = useSection('propose');
  const mayPropose = useMayWrite('propose');
  const navigate = useNavigate();
  const own = measures.find((m) => m.tooth === tooth);
  const other = measures.find((m) => m.tooth === opposite(tooth));
  if (!own || !ROWS.some(([key]) => own[key])) return null;
  const isReference = propose.data.school === 'reference' && propose.data.referenceTooth === tooth;
  return (
    <section aria-label={`Measures of ${name(tooth)}`}>
      <h2 className="subtitle">
        {name(tooth)} beside {name(opposite(tooth))}
        {isReference && <span className="text-[13px] font-normal text-ink-2"> · reference tooth</span>}
      </h2>
      <table className="figures mt-1">
        <thead>
          <tr>
            <th scope="col">mm</th>
            <th scope="col">{name(tooth)}</th>
            <th scope="col">{name(opposite(tooth))}</th>
            <th scope="col">difference</th>
          </tr>
        </thead>
        <tbody>
          {ROWS.map(([key, word, unit]) => {
            const a = own[key];
            const b = other?.[key];
            return (
              <tr key={key}>
                <td>{a ? <RowLabel word={word} figure={a} tooth={name(tooth)} /> : word}</td>
                <td data-testid={`${key}-${tooth}`}>
                  <Value figure={a} digits={unit === '%' ? 0 : 1} />
                  {unit === '%' && a && ' %'}
                </td>
                <td>
                  <Value figure={b} digits={unit === '%' ? 0 : 1} />
                  {unit === '%' && b && ' %'}
                </td>
                <td className="font-[650]">{a && b ? differs(a, b) ? signed(difference(a, b).value, unit === '%' ? 0 : 1) : <span className="font-normal text-ink-2">none</span> : ''}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {mayPropose && own.length && own.width && !isReference && (
        <button
          type="button"
          className="btn mt-4"
          onClick={() => {
            propose.set({ ...propose.data, school: 'reference', referenceTooth: tooth });
            navigate('../propose');
          }}
        >
          Take {name(tooth)} as reference
        </button>
      )}
    </section>
  );
}

function RowLabel({ word, figure, tooth }: { word: string; figure: NonNullable<ToothMeasure['length']>; tooth: string }) {
  return (
    <span className="inline-flex items-baseline gap-1.5">
      {word} <How figure={figure} what={`${word} of ${tooth}`} />
    </span>
  );
}
