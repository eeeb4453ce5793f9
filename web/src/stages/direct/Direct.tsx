import { contourPlan, directSettings, soundingsOf, workOn } from '@radiant/contract';
import { across, type DirectTold, isUpper, jawOf } from '@radiant/core';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { useLower } from '../../engine/use-lower.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused, useMayWrite } from '../../shell/ReadOnlyNote.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { ColourLayers } from './ColourLayers.js';
import { Files } from './Files.js';
import { Finishing } from './Finishing.js';
import { GapTable } from './GapTable.js';
import { KindFigures } from './KindFigures.js';
import { LayerSection } from './LayerSection.js';
import { LayerTable } from './LayerTable.js';
import { OnTheTooth } from './OnTheTooth.js';
import { SettingFields } from './SettingFields.js';
import { SideLead } from './SideLead.js';
import { useIsland } from './use-island.js';
import { WorkField } from './WorkField.js';

/** What the bench shows. */
const BENCHES = {
  layers: 'layers',
  tooth: 'on the tooth',
  gaps: 'gaps',
  colour: 'colour',
  side: 'side movement',
  finish: 'finishing',
} as const;
type Bench = keyof typeof BENCHES;
const BENCH_NAMES = Object.keys(BENCHES) as readonly Bench[];

/** Direct: what composite must fill, in which layers. */
export default function Direct() {
  const contour = useContour();
  const { tooth, selectTooth } = useCase();
  const { data, refusal } = useSection('direct');
  const shape = useSection('shape').data;
  const { ageYears } = useSection('meet').data;
  const mayWrite = useMayWrite('direct');
  const name = useToothLabel();
  const sentence = useSentence();
  const lower = useLower(contour, !isUpper(tooth));
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const [bench, setBench] = useState<Bench>('layers');
  const bothPlanned = new Set(shape.teeth.map((t) => jawOf(t.tooth))).size === 2;
  const otherJaw = () => {
    const there = shape.teeth.map((t) => t.tooth).filter((t) => jawOf(t) !== jawOf(tooth));
    selectTooth(there.includes(across(tooth)) ? across(tooth) : (there[0] ?? tooth));
  };
  useHotkeys('stage', [
    { keys: 'J', does: 'the other jaw', on: ['j'], off: !bothPlanned, run: otherJaw },
    {
      keys: 'P',
      does: 'layers, on the tooth, gaps, colour, side movement, finishing',
      on: ['p'],
      run: () => setBench((b) => BENCH_NAMES[(BENCH_NAMES.indexOf(b) + 1) % BENCH_NAMES.length] as Bench),
    },
  ]);
  const work = useMemo(() => workOn(data, tooth), [data, tooth]);
  const settings = useMemo(() => directSettings(data), [data]);
  const there = contour.state === 'ready' && plan[tooth] && (isUpper(tooth) || lower.state === 'ready');
  const input = useMemo(
    () => [tooth, settings, ageYears ?? undefined, work] as const,
    [tooth, settings, ageYears, work],
  );
  const client = there ? clientOf(contour) : undefined;
  const asked = useAsked(client, plan, 'direct', input);
  const gapInput = useMemo(
    () => (bench === 'gaps' ? ([jawOf(tooth), soundingsOf(data)] as const) : undefined),
    [bench, tooth, data],
  );
  const gaps = useAsked(client, plan, 'directGaps', gapInput);
  const both = useLower(contour, bench === 'side');
  const leadInput = useMemo(
    () => (bench === 'side' && both.state !== 'loading' ? ([settings.partMm] as const) : undefined),
    [bench, both.state, settings],
  );
  const lead = useAsked(client, plan, 'directLead', leadInput);
  const island = useIsland();
  const { leave } = island;
  // Marking goes on only where it is seen.
  useEffect(() => {
    if (bench !== 'tooth' || work.kind !== 'worn') leave();
  }, [bench, work.kind, leave]);
  const arch = isUpper(tooth)
    ? contour.state === 'ready'
      ? contour.arch
      : undefined
    : lower.state === 'ready'
      ? lower.view
      : undefined;
  const told = shownOf(asked);
  const shown = told?.tooth === tooth ? told : undefined;
  return (
    <Stage
      bench={
        contour.state === 'no-scan' || shape.teeth.length === 0 ? (
          <Empty title="What composite fills is the plan less the tooth">
            <p>
              {contour.state === 'no-scan' ? 'There is no scan yet, and no contour. ' : 'No tooth is planned yet. '}
              <Link className="how" to="../shape">
                Go to shape
              </Link>
            </p>
          </Empty>
        ) : contour.state === 'loading' || (!isUpper(tooth) && lower.state === 'loading') ? (
          <Waiting what="the scan and measuring its teeth" />
        ) : contour.state === 'failed' ? (
          <Trouble sentence={sentence(contour.sentence)} retry={contour.retry} />
        ) : !plan[tooth] ? (
          <Empty title={`Nothing is planned for ${name(tooth)}`}>
            <p>Choose a planned tooth on the strip.</p>
          </Empty>
        ) : asked.state === 'failed' ? (
          <Empty title={`${name(tooth)}: no composite`}>
            <p>{sentence(asked.sentence)}</p>
          </Empty>
        ) : !shown ? (
          <Waiting what={`the layers of ${name(tooth)}`} />
        ) : (
          <div className="flex h-full flex-col">
            <fieldset className="flex flex-wrap gap-1.5 px-6 pt-4 pb-1" aria-label="What is shown">
              {BENCH_NAMES.map((b) => (
                <button key={b} type="button" className="chip" aria-pressed={b === bench} onClick={() => setBench(b)}>
                  {BENCHES[b]}
                </button>
              ))}
              {bothPlanned && (
                <button type="button" className="chip ml-auto" onClick={otherJaw}>
                  {isUpper(tooth) ? 'the lower teeth' : 'the upper teeth'}
                </button>
              )}
            </fieldset>
            <div className="min-h-0 flex-1 overflow-y-auto max-lg:overflow-visible">
              {bench === 'layers' && <Sections told={shown} label={name(tooth)} />}
              {bench === 'tooth' && arch && (
                <OnTheTooth client={client} plan={plan} settings={settings} work={work} arch={arch} island={island} />
              )}
              {bench === 'gaps' &&
                (gaps.state === 'failed' ? (
                  <Trouble sentence={sentence(gaps.sentence)} />
                ) : shownOf(gaps) ? (
                  <GapTable gaps={shownOf(gaps) ?? []} mayWrite={mayWrite} />
                ) : (
                  <Waiting what="the spaces between the teeth" />
                ))}
              {bench === 'colour' && <ColourLayers client={client} plan={plan} settings={settings} work={work} />}
              {bench === 'side' &&
                ((lead.state === 'waiting' && !shownOf(lead)) || both.state === 'loading' ? (
                  <Waiting what="both jaws, moved to the sides" />
                ) : (
                  <SideLead told={shownOf(lead)} partMm={settings.partMm} />
                ))}
              {bench === 'finish' && <Finishing />}
            </div>
          </div>
        )
      }
      panel={
        <>
          <ReadOnlyNote section="direct" />
          <Refused sentence={refusal && (refusal.errors?.[0]?.message ?? refusal.detail)} />
          {plan[tooth] && (
            <WorkField
              mayWrite={mayWrite}
              markIsland={() => {
                setBench('tooth');
                island.begin();
              }}
            />
          )}
          {shown && (
            <section aria-label={`Layers of ${name(tooth)}`}>
              <h2 className="title mb-2">
                {name(tooth)}: {shown.missingMm3.toFixed(1)} mm³ to fill
              </h2>
              {shown.notes.map((n) => (
                <p key={n.says} className="finding mb-2 text-note" data-weight={n.state === 'stop' ? 'stop' : 'watch'}>
                  {sentence(n.says)}
                </p>
              ))}
              <KindFigures told={shown} />
              <LayerTable plan={shown} />
            </section>
          )}
          {shown && <Files jaw={jawOf(tooth)} />}
          <SettingFields mayWrite={mayWrite} kind={work.kind} />
          <Comments stage="direct" />
        </>
      }
      foot={
        <>
          <KeyHint keys={['P']} does="what is shown" />
          {bothPlanned && <KeyHint keys={['J']} does="the other jaw" />}
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            Thicknesses are common practice; the composite’s own directions say how deep its lamp cures.
          </span>
        </>
      }
    />
  );
}

const WORDS = ['half way to one side', 'in the middle', 'half way to the other'] as const;

/** Three sections beside each other, in one scale. */
function Sections({ told, label }: { told: DirectTold; label: string }) {
  const rows = told.sections.flatMap((s) => s.rows);
  const ends = rows.flatMap((r) => [r.planned, r.tooth].filter((s) => s !== undefined));
  const frame = {
    from: ends.reduce((a, s) => Math.min(a, s.from), Infinity),
    to: ends.reduce((a, s) => Math.max(a, s.to), -Infinity),
    edge: rows.reduce((a, r) => Math.min(a, r.z), Infinity),
    neck: rows.reduce((a, r) => Math.max(a, r.z), -Infinity),
  };
  return (
    <section aria-label={`Sections of ${label}`} className="flex h-full flex-col gap-2 px-6 pt-4 pb-4">
      <h2 className="subtitle text-lead">Sections of {label}, from front to back</h2>
      <p className="text-note text-ink-2">Facial left. Plum is the planned contour, black the tooth as it stands.</p>
      <div className="flex min-h-0 flex-1 gap-4">
        {told.sections.map((s, i) => (
          <LayerSection key={s.x} section={s} tooth={told.tooth} words={WORDS[i] as string} frame={frame} />
        ))}
      </div>
    </section>
  );
}
