import { COLOUR_ZONES, type ColourZone, contourPlan, mouthOf } from '@radiant/contract';
import { CEMENTS, type CementId, type CeramicId, LETTER_SCALE, screenColour, shadeOf } from '@radiant/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { readColour } from '../../data/read-colour.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { CeramicTable } from './CeramicTable.js';
import { ReadingFields, readingAt } from './ReadingFields.js';
import { Swatches } from './Swatches.js';
import { saidOf } from './said.js';

const ThicknessChart = lazy(() => import('./ThicknessChart.js'));

/** The third of the face that each zone is. */
const THIRD_OF = { gum: 'cervical', body: 'middle', edge: 'incisal' } as const satisfies Record<ColourZone, string>;

/** Match: what each ceramic looks like over the stump, as thick as it is planned and thicker. */
export default function Match() {
  const contour = useContour();
  const { tooth } = useCase();
  const { data, set, refusal } = useSection('match');
  const reduce = useSection('reduce').data;
  const shape = useSection('shape').data;
  const { cautions, ageYears } = useSection('meet').data;
  const mayWrite = useMayWrite('match');
  const name = useToothLabel();
  const sentence = useSentence();
  const [zone, setZone] = useState<ColourZone>('body');
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const client = contour.state === 'ready' && plan[tooth] ? clientOf(contour) : undefined;
  const ceramic = data.own?.find((o) => o.tooth === tooth)?.ceramic ?? data.ceramic;
  const [whole, stump] = [
    readingAt(data.readings, tooth, 'tooth', zone),
    readingAt(data.readings, tooth, 'stump', zone),
  ];
  const input = useMemo(() => {
    const colour = readColour(data, tooth, zone);
    const asks = colour && { ...colour, third: THIRD_OF[zone], ceramic };
    return asks ? ([tooth, reduce, asks, mouthOf({ cautions, ageYears })] as const) : undefined;
  }, [tooth, reduce, zone, ceramic, data, cautions, ageYears]);
  const asked = useAsked(client, plan, 'colourOverStump', input);
  const match = shownOf(asked);
  const own = match?.candidates.find((c) => c.ceramic === ceramic);
  const choose = (next: CeramicId) =>
    set({ ...data, own: [...(data.own ?? []).filter((o) => o.tooth !== tooth), { tooth, ceramic: next }] });

  useHotkeys('stage', [
    {
      keys: '1 … 3',
      does: 'zone: gum, body, edge',
      on: ['1', '2', '3'],
      each: COLOUR_ZONES.map((z) => `zone: ${z}`),
      run: (key) => setZone(COLOUR_ZONES[Number(key) - 1] as ColourZone),
    },
  ]);

  const body =
    contour.state === 'no-scan' || shape.teeth.length === 0 ? (
      <Empty title="How thick a ceramic is, is told by the contour">
        <p>
          {contour.state === 'no-scan' ? 'There is no scan yet, and no contour. ' : 'No tooth is planned yet. '}
          <Link className="how" to="../shape">
            Go to shape
          </Link>
        </p>
      </Empty>
    ) : contour.state === 'loading' ? (
      <Waiting what="the scan and measuring its teeth" />
    ) : contour.state === 'failed' ? (
      <Trouble sentence={sentence(contour.sentence)} retry={contour.retry} />
    ) : !plan[tooth] ? (
      <Empty title={`Nothing is planned for ${name(tooth)}`}>
        <p>Choose a planned tooth on the strip.</p>
      </Empty>
    ) : !input ? (
      <Empty title={`${name(tooth)}, ${zone}: what is under the ceramic?`}>
        <p>
          {data.wanted ? '' : 'Choose the wanted shade at the right. '}
          {whole || stump
            ? ''
            : 'Enter the colour of the tooth before it is cut, or of its stump after: read wet, before it is isolated.'}
        </p>
      </Empty>
    ) : asked.state === 'failed' ? (
      <Trouble sentence={sentence(asked.sentence)} retry={asked.retry} />
    ) : !match || !own ? (
      asked.state === 'ready' ? (
        <Empty title={`No ceramic is planned at the ${zone} of ${name(tooth)}`}>
          <p>Most of it lies over the root, or the plan covers nothing there. Choose another zone.</p>
        </Empty>
      ) : (
        <Waiting what="the colours" />
      )
    ) : (
      <div className="flex h-full flex-col gap-3 px-6 pt-14 pb-3">
        <div className="flex items-stretch justify-center">
          <Swatches match={match} own={own} />
        </div>
        <h3 className="text-note text-ink-2">
          ΔE00 to the wanted shade over the thickness of each ceramic; pale blue: most people take it
        </h3>
        <div className="min-h-[160px] flex-1">
          <Suspense fallback={<Waiting what="the chart" />}>
            <ThicknessChart match={match} chosen={ceramic} />
          </Suspense>
        </div>
        <CeramicTable match={match} chosen={ceramic} choose={mayWrite ? choose : undefined} />
      </div>
    );
  return (
    <Stage
      bench={
        <>
          <fieldset className="absolute top-3.5 left-4 z-10 flex gap-1.5" aria-label="Zone">
            {COLOUR_ZONES.map((z) => (
              <button key={z} type="button" className="chip" aria-pressed={z === zone} onClick={() => setZone(z)}>
                {z}
              </button>
            ))}
          </fieldset>
          {body}
        </>
      }
      panel={
        <>
          <ReadOnlyNote section="match" />
          <Refused sentence={refusal?.detail} />
          <h2 className="title mb-2">
            {name(tooth)}, {zone}
          </h2>
          {match &&
            own &&
            saidOf(match, own).map((s) => (
              <p key={s.text} className="finding mb-2 text-note" data-weight={s.weight}>
                {s.text}
              </p>
            ))}
          <label className="mb-3 flex items-center gap-2 text-note">
            wanted shade
            {data.wanted && (
              <span
                className="h-6 w-6 rounded border border-hair"
                style={{ background: screenColour(shadeOf(data.wanted).lab) }}
                aria-hidden
              />
            )}
            <select
              aria-label="Wanted shade"
              className="field h-8 flex-1 px-2"
              disabled={!mayWrite}
              value={data.wanted ?? ''}
              onChange={(e) => set({ ...data, wanted: e.target.value || null })}
            >
              <option value="">not chosen</option>
              {LETTER_SCALE.shades.map((s) => (
                <option key={s.name}>{s.name}</option>
              ))}
            </select>
          </label>
          <ReadingFields of="tooth" zone={zone} />
          <ReadingFields of="stump" zone={zone} />
          <label className="mb-3 flex items-center gap-2 text-note">
            cement
            <select
              aria-label="Cement"
              className="field h-8 flex-1 px-2"
              disabled={!mayWrite}
              value={data.cement}
              onChange={(e) => set({ ...data, cement: e.target.value as CementId })}
            >
              {CEMENTS.map((c) => {
                const told = match?.cements.find((u) => u.cement === c.id);
                return (
                  <option key={c.id} value={c.id}>
                    {c.name}
                    {told ? `: ΔE00 ${number(told.dE, 1)}` : ''}
                  </option>
                );
              })}
            </select>
          </label>
          {match && (
            <p className="mb-3 text-tiny text-ink-2">
              {number(match.cutMm, 2)} mm are cut there of about {number(match.enamelMm, 2)} mm of enamel, by the norm;{' '}
              {number(match.ceramicMm, 2)} mm of ceramic are planned.
            </p>
          )}
          <p className="text-tiny text-ink-2">
            Ceramics and cements are generic and their optical values illustrative: a laboratory’s own readings over
            black and white say more. Shades by {LETTER_SCALE.source.text}; tabs differ. A screen does not show colour
            exactly: try it in with paste, over wet teeth, before anything is bonded.
          </p>
          <Comments stage="match" />
        </>
      }
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['1', '–', '3']} does="zone" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            Planning aid for {name(tooth)}. Dentist, technician and patient judge the colour.
          </span>
        </>
      }
    />
  );
}
