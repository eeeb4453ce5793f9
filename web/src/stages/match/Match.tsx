import { contourPlan, readColour, THIRD_OF, wantedShade } from '@radiant/contract';
import { CEMENTS, type CementId, LETTER_SCALE, READING_ZONES, type ReadingZone, THICKNESSES } from '@radiant/core';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { useMouth } from '../../data/use-mouth.js';

import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { number } from '../../ui/format.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { BleachingField } from './BleachingField.js';
import { CeramicTable } from './CeramicTable.js';
import { CharacterFields } from './CharacterFields.js';
import { InTheMouth } from './InTheMouth.js';
import { ReadingFields } from './ReadingFields.js';
import { ReadingsIn } from './ReadingsIn.js';
import { Swatches } from './Swatches.js';
import { saidOf } from './said.js';
import { WantedField } from './WantedField.js';

const ThicknessChart = lazy(() => import('./ThicknessChart.js'));

/** What the bench shows: one zone's figures, or all planned teeth in the mouth. */
const BENCHES = { zone: 'zone by zone', look: 'in the mouth', stump: 'where the stump shows' } as const;
type Bench = keyof typeof BENCHES;
const BENCH_NAMES = Object.keys(BENCHES) as readonly Bench[];

/** Match: what each ceramic looks like over the stump, as thick as it is planned and thicker. */
export default function Match() {
  const contour = useContour();
  const { tooth } = useCase();
  const { data, set, refusal } = useSection('match');
  const reduce = useSection('reduce').data;
  const shape = useSection('shape').data;
  const mouth = useMouth();
  const mayWrite = useMayWrite('match');
  const name = useToothLabel();
  const sentence = useSentence();
  const [zone, setZone] = useState<ReadingZone>('body');
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const client = contour.state === 'ready' && plan[tooth] ? clientOf(contour) : undefined;
  const ceramic = data.own?.find((o) => o.tooth === tooth)?.ceramic ?? data.ceramic;
  const plates = usePracticeSettings().shown?.plates;
  const [bench, setBench] = useState<Bench>('zone');
  const input = useMemo(() => {
    const colour = readColour(data, tooth, zone);
    const asks = colour && { ...colour, third: THIRD_OF[zone], ceramic, plates: plates ?? [] };
    return asks ? ([tooth, reduce, asks, mouth] as const) : undefined;
  }, [tooth, reduce, zone, ceramic, plates, data, mouth]);
  const asked = useAsked(client, plan, 'colourOverStump', input);
  const match = shownOf(asked);
  const own = match?.candidates.find((c) => c.ceramic === ceramic);
  const [tryMm, setTryMm] = useState<number>();
  // Out of the curve that is there: nothing is asked while the hand moves.
  const tried = tryMm === undefined ? undefined : own?.curve.find((p) => Math.abs(p.mm - tryMm) < 0.026);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another place has another plan
  useEffect(() => setTryMm(undefined), [tooth, zone]);
  const choose = (next: string) =>
    set({ ...data, own: [...(data.own ?? []).filter((o) => o.tooth !== tooth), { tooth, ceramic: next }] });

  useHotkeys('stage', [
    {
      keys: '1 … 3',
      does: 'zone: gum, body, edge',
      on: ['1', '2', '3'],
      each: READING_ZONES.map((z) => `zone: ${z}`),
      run: (key) => {
        setBench('zone');
        setZone(READING_ZONES[Number(key) - 1] as ReadingZone);
      },
    },
    {
      keys: 'P',
      does: 'figures, the teeth in the mouth, where the stump shows',
      on: ['p'],
      run: () => setBench((b) => BENCH_NAMES[(BENCH_NAMES.indexOf(b) + 1) % BENCH_NAMES.length] as Bench),
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
    ) : bench !== 'zone' ? (
      <InTheMouth contour={contour} plan={plan} showing={bench} />
    ) : !plan[tooth] ? (
      <Empty title={`Nothing is planned for ${name(tooth)}`}>
        <p>Choose a planned tooth on the strip.</p>
      </Empty>
    ) : !input ? (
      <Empty title={`${name(tooth)}, ${zone}: what is under the ceramic?`}>
        <p>
          {wantedShade(data) ? '' : 'Choose the wanted shade at the right. '}
          {data.readings.some((r) => r.tooth === tooth && r.zone === zone)
            ? ''
            : 'Enter the colour of the tooth before it is cut, or of its stump after: read wet, before it is isolated.'}
        </p>
      </Empty>
    ) : asked.state === 'failed' ? (
      <Trouble sentence={sentence(asked.sentence)} retry={asked.retry} />
    ) : match && !own ? (
      <Empty title={`The house has no ceramic “${ceramic.replace(/^plate:/, '')}” any more`}>
        <p>Choose another one here, or read its plate in again.</p>
        <CeramicTable match={match} chosen={ceramic} choose={mayWrite ? choose : undefined} />
      </Empty>
    ) : !match || !own ? (
      asked.state === 'ready' ? (
        <Empty title={`No ceramic is planned at the ${zone} of ${name(tooth)}`}>
          <p>Most of it lies over the root, or the plan covers nothing there. Choose another zone.</p>
        </Empty>
      ) : (
        <Waiting what="the colours" />
      )
    ) : (
      <div className="flex h-full flex-col gap-2 overflow-y-auto px-6 pt-14 pb-3">
        <div className="flex items-stretch justify-center">
          <Swatches match={match} own={own} tried={tried} />
        </div>
        <div className="flex flex-wrap items-center justify-between gap-x-6 text-note text-ink-2">
          <h3>
            ΔE00 over the thickness; pale blue: most take it
            {match.deeper ? '; dashed: cut for it' : ''}
          </h3>
          <label className="flex items-center gap-2">
            try
            <input
              type="range"
              aria-label="Thickness to try, mm"
              className="w-36 accent-plum"
              min={THICKNESSES[0]}
              max={THICKNESSES.at(-1)}
              step={0.05}
              value={tryMm ?? match.ceramicMm}
              onChange={(e) => setTryMm(Number(e.target.value))}
            />
            <output className="w-28 text-ink">
              {tried ? `${number(tried.mm, 2)} mm: ΔE00 ${number(tried.dE, 1)}` : 'as planned'}
            </output>
            {tried && (
              <button type="button" className="how" onClick={() => setTryMm(undefined)}>
                as planned
              </button>
            )}
          </label>
        </div>
        <div className="min-h-[140px] flex-1">
          <Suspense fallback={<Waiting what="the chart" />}>
            <ThicknessChart match={match} chosen={ceramic} tried={tried?.mm} />
          </Suspense>
        </div>
        <CeramicTable match={match} chosen={ceramic} choose={mayWrite ? choose : undefined} />
      </div>
    );
  return (
    <Stage
      surround={bench === 'zone' ? 'paper' : 'grey'}
      bench={
        <>
          <div className="absolute inset-x-4 top-3.5 z-10 flex flex-wrap justify-between gap-1.5">
            <fieldset className="flex gap-1.5" aria-label="Zone">
              {bench === 'zone' &&
                READING_ZONES.map((z) => (
                  <button key={z} type="button" className="chip" aria-pressed={z === zone} onClick={() => setZone(z)}>
                    {z}
                  </button>
                ))}
            </fieldset>
            <fieldset className="flex gap-1.5" aria-label="What is shown">
              {BENCH_NAMES.map((b) => (
                <button key={b} type="button" className="chip" aria-pressed={b === bench} onClick={() => setBench(b)}>
                  {BENCHES[b]}
                </button>
              ))}
            </fieldset>
          </div>
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
          <WantedField />
          <ReadingFields of="tooth" zone={zone} />
          <ReadingFields of="stump" zone={zone} />
          <ReadingsIn />
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
          <BleachingField />
          <CharacterFields />
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
          <KeyHint keys={['P']} does="what is shown" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            Planning aid for {name(tooth)}. Dentist, technician and patient judge the colour.
          </span>
        </>
      }
    />
  );
}
