import type { Proposal, ToothMeasure } from '@radiant/core';
import { ratioNormsOf } from '@radiant/core';
import { lazy, Suspense, useState } from 'react';
import { useNavigate } from 'react-router';
import { useSection, useSentence } from '../../data/case-context.js';
import { useFront } from '../../engine/use-front.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Waiting } from '../../ui/Waiting.js';
import { AcceptedFindings } from './AcceptedFindings.js';
import { AlignFirst } from './AlignFirst.js';
import { EdgeFields } from './EdgeFields.js';
import { EdgePhoto } from './EdgePhoto.js';
import { FrontDrawing } from './FrontDrawing.js';
import { GumField } from './GumField.js';
import { SchoolSettings } from './SchoolSettings.js';
import { SchoolStrip } from './SchoolStrip.js';
import { SpaceFields } from './SpaceFields.js';
import { TargetTable } from './TargetTable.js';

const RatioChart = lazy(() => import('./RatioChart.js'));

/** Propose: targets by a school beside what is, and the edge level. */
export default function Propose() {
  const state = useFront();
  const sentence = useSentence();
  const { school } = useSection('propose').data;
  const proposal = state.state === 'ready' ? state.proposal : undefined;
  const [look, setLook] = useState<{ readonly name: string; readonly proposal: Proposal }>();
  return (
    <Stage
      bench={
        state.state === 'loading' ? (
          <Waiting what="the scan and measuring its teeth" />
        ) : proposal ? (
          <div className="@container flex h-full flex-col gap-1 overflow-y-auto px-6 py-4 max-sm:px-3">
            {state.apart && (
              <p className="finding text-note" data-weight="watch">
                The scan can’t be taken ({sentence(state.apart)}), so these sizes are the photograph’s alone.
              </p>
            )}
            <Front proposal={look?.proposal ?? proposal} measures={state.front.measures} preview={look?.name} />
            <SchoolStrip front={state.front} onLook={setLook} />
            <div className="mt-1">
              <div className="grid gap-6 @[720px]:grid-cols-[minmax(0,1fr)_290px]">
                <TargetTable proposal={proposal} measures={state.front.measures} />
                <Suspense fallback={null}>
                  <RatioChart proposal={proposal} measures={state.front.measures} model={ratioNormsOf(school)} />
                </Suspense>
              </div>
            </div>
          </div>
        ) : (
          <Empty title="Targets need measures first">
            <p>
              Put in a scan, or set the scale and all four landmarks on the front teeth in read; the targets appear
              here.
            </p>
          </Empty>
        )
      }
      panel={<SchoolPanel proposal={proposal} />}
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

/** The teeth from the front: as a drawing, or the planned edge on a photograph, where it can be moved. */
function Front({
  proposal,
  measures,
  preview,
}: {
  proposal: Proposal;
  measures: readonly ToothMeasure[];
  preview: string | undefined;
}) {
  const [front, setFront] = useState<(typeof FRONTS)[number][0]>('drawing');
  const { edgeMm, gumMm = 0 } = useSection('propose').data;
  const downOf = (tooth: number) => {
    const [then, now] = [
      proposal.targets.find((t) => t.tooth === tooth)?.length.value,
      measures.find((m) => m.tooth === tooth)?.length?.value,
    ];
    return then === undefined || now === undefined ? edgeMm : then - now - gumMm;
  };
  return (
    <div className="flex min-h-[300px] flex-1 flex-col">
      <div className="mb-1 flex flex-wrap gap-1.5">
        {FRONTS.map(([id, word]) => (
          <button
            key={id}
            type="button"
            className="chip chip-flat"
            aria-pressed={front === id}
            onClick={() => setFront(id)}
          >
            {word}
          </button>
        ))}
      </div>
      <div className="flex min-h-0 flex-1 flex-col">
        {front === 'drawing' ? (
          <FrontDrawing proposal={proposal} measures={measures} preview={preview} />
        ) : (
          <EdgePhoto view={front} downOf={downOf} />
        )}
      </div>
    </div>
  );
}

function SchoolPanel({ proposal }: { proposal: Proposal | undefined }) {
  const view = useSection('propose');
  const mayShape = useMayWrite('shape');
  const sentence = useSentence();
  const navigate = useNavigate();
  return (
    <>
      <ReadOnlyNote section="propose" />
      <Refused sentence={view.refusal?.detail} />
      <SchoolSettings row={proposal?.targets.map((t) => t.tooth) ?? []} />
      <h2 className="title mb-1">Edge and gum</h2>
      <p className="mb-2 text-note text-ink-2">
        Central edges against where the lower of them stands today; + is longer. Set it before lengths and widths.
      </p>
      <EdgeFields />
      <GumField />
      {proposal && (
        <>
          <SpaceFields proposal={proposal} />
          {proposal.notes.length > 0 && (
            <div className="mt-3">
              {proposal.notes.map((n) => (
                <p key={n} className="finding text-note" data-weight="watch">
                  {sentence(n)}
                </p>
              ))}
            </div>
          )}
          <AlignFirst />
          {mayShape && (
            <button
              type="button"
              className="btn mt-4 w-full"
              onClick={() => navigate('../shape', { state: { setToProposal: true } })}
            >
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
