import { type FindingVerdict, frontScale, keysOf, PHOTO_VIEWS, type PhotoView, repeatsOf } from '@radiant/contract';
import {
  difference,
  differs,
  doubtfulMeasures,
  type Finding,
  opposite,
  spreadLearned,
  type ToothMeasure,
} from '@radiant/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useBenchReading } from '../../data/bench-reading.js';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { useReading } from '../../data/reading.js';
import { useLatest } from '../../data/use-latest.js';
import { FigureTable } from '../../shell/FigureTable.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number, signed } from '../../ui/format.js';
import { AskedValue } from '../../ui/How.js';
import { DrawnList } from './DrawnList.js';
import { FindingView } from './FindingView.js';
import { LinkedMeasures, type ScanPlace } from './LinkedMeasures.js';
import { ReferenceRanking } from './ReferenceRanking.js';
import { SideLeads } from './SideLeads.js';
import type { PhotoScan } from './use-photo-on-scan.js';
import { ViewFigures } from './ViewFigures.js';

/** So many findings are shown at once; the measures below must stay in sight. */
const SHOWN = 3;

/** What of the measures can hardly be, before anything is made of them. */
function Doubts({ measures }: { measures: readonly ToothMeasure[] }) {
  const sentence = useSentence();
  return doubtfulMeasures(measures).map((d) => (
    <p key={d.sentence} role="alert" className="finding text-note" data-weight="stop">
      {sentence(d.sentence)}
    </p>
  ));
}

/** What stands out, the most visible first, and the chosen tooth beside its fellow. */
export function FindingsPanel({
  view,
  onView,
  match,
  missing,
  onTakeAll,
}: {
  view: PhotoView;
  onView: (v: PhotoView) => void;
  /** How the photograph lies on the scan, and the scan's places of landmarks that nobody has set. */
  match: PhotoScan;
  missing: readonly ScanPlace[];
  onTakeAll: ((places: readonly ScanPlace[]) => void) | undefined;
}) {
  const [all, setAll] = useState(false);
  const read = useSection('read');
  const { findings, measures, figures } = useReading();
  const bench = useBenchReading(view);
  const { photo, scale } = bench;
  const viewOf = (f: Finding) =>
    keysOf(PHOTO_VIEWS).find((v) => v !== 'retracted-front' && figures[v]?.some((q) => q.id === f.id)) ??
    'retracted-front';
  const acts = useLatest({
    onView,
    judge: (id: string, next: FindingVerdict | undefined, group?: string) =>
      read.set(
        { ...read.data, verdicts: [...read.data.verdicts.filter((v) => v.id !== id), ...(next ? [next] : [])] },
        group,
      ),
    done: () => read.store.endGroup(),
  });
  const verdictOf = (f: Finding) => read.data.verdicts.find((v) => v.id === f.id)?.verdict;
  const open = findings.filter((f) => verdictOf(f) !== 'dismissed');
  const dismissed = findings.filter((f) => verdictOf(f) === 'dismissed');
  const quiet = open.filter((f) => f.notice === 'nobody').length;
  return (
    <>
      <ReadOnlyNote section="read" />
      <Refused sentence={read.refusal?.detail} />
      <Doubts measures={measures} />
      <h2 className="title">What stands out</h2>
      <p className="mb-3.5 text-note text-ink-2">
        {findings.length === 0
          ? !photo
            ? 'appears here once there is a photograph'
            : !scale
              ? 'set the scale first'
              : measures.some((m) => m.length || m.width) || bench.points.length > 0
                ? 'nothing beyond the measuring error so far'
                : 'set landmarks; findings follow live'
          : `most visible first${quiet ? ` · ${quiet} below notice` : ''}${dismissed.length ? ` · ${dismissed.length} dismissed` : ''}`}
      </p>
      <div className="mb-5">
        {(all ? [...open, ...dismissed] : open.slice(0, SHOWN)).map((f) => (
          <FindingView
            key={f.id}
            finding={f}
            view={viewOf(f)}
            own={read.data.verdicts.find((q) => q.id === f.id)}
            elsewhere={viewOf(f) !== view}
            onShow={(v) => acts.current.onView(v)}
            onJudge={(id, next, group) => acts.current.judge(id, next, group)}
            onDone={() => acts.current.done()}
          />
        ))}
        {findings.length > Math.min(SHOWN, open.length) && (
          <button type="button" className="how text-note" aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? 'show fewer' : `show all ${findings.length}`}
          </button>
        )}
      </div>
      {view === 'retracted-front' && <PairTable measures={measures} />}
      {view === 'retracted-front' && (
        <LinkedMeasures measures={measures} match={match} missing={missing} onTakeAll={onTakeAll} />
      )}
      <ViewFigures view={view} figures={figures[view] ?? []} />
      {(view === 'retracted-right' || view === 'retracted-left') && <SideLeads />}
      <DrawnList reading={bench} />
      {view === 'retracted-front' && <ReferenceRanking measures={measures} />}
    </>
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

/** How well this hand sets points, once some were set twice. */
function SpreadNote() {
  const { data } = useSection('read');
  const repeats = repeatsOf(data);
  const scale = frontScale(data);
  if (repeats.length === 0 || !scale) return null;
  const spread = spreadLearned(repeats, scale.value);
  return (
    <p className="mt-2 text-fine text-ink-2" data-testid="spread-note">
      {repeats.length} {repeats.length === 1 ? 'point was' : 'points were'} set twice: this hand sets a zenith again to{' '}
      {number(spread.zenith, 2)}, an edge to {number(spread.edge, 2)}, the sides to {number(spread.mesial, 2)} and{' '}
      {number(spread.distal, 2)} mm (one standard deviation, with what is usual as eight repeats more). The ± of this
      view follows.
    </p>
  );
}

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
        {isReference && <span className="text-note font-normal text-ink-2"> · reference tooth</span>}
      </h2>
      <FigureTable className="mt-1" aria-label="Measures of a pair">
        <thead>
          <tr>
            <th scope="col">mm; click for how</th>
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
                <td>{word}</td>
                <td data-testid={`${key}-${tooth}`}>
                  <AskedValue
                    figure={a}
                    what={`${word} of ${name(tooth)}`}
                    digits={unit === '%' ? 0 : 1}
                    suffix={unit === '%' ? ' %' : ''}
                  />
                </td>
                <td>
                  <AskedValue
                    figure={b}
                    what={`${word} of ${name(opposite(tooth))}`}
                    digits={unit === '%' ? 0 : 1}
                    suffix={unit === '%' ? ' %' : ''}
                  />
                </td>
                <td className="font-[650]">
                  {a && b ? (
                    differs(a, b) ? (
                      signed(difference(a, b).value, unit === '%' ? 0 : 1)
                    ) : (
                      <span className="font-normal text-ink-2">none</span>
                    )
                  ) : (
                    ''
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </FigureTable>
      {own.edgeLevel?.working.note && (
        <p className="mt-2 text-fine text-ink-2" data-testid="level-note">
          {own.edgeLevel.working.note}
        </p>
      )}
      <SpreadNote />
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
