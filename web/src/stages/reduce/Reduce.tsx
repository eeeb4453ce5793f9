import { contourPlan } from '@radiant/contract';
import {
  AT_AXIS,
  across,
  jawOf,
  type SectionPlace,
  STRATEGIES,
  type ToothCutList,
  type ToothReduction,
  ZONES,
  type Zone,
} from '@radiant/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { useMouth } from '../../data/use-mouth.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { useJaw } from '../../engine/use-jaws.js';
import { useLower } from '../../engine/use-lower.js';
import { useTargets } from '../../engine/use-targets.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { CutPanel } from './CutPanel.js';
import { OnTheArch } from './OnTheArch.js';
import { ReductionMap } from './ReductionMap.js';
import { RoomTable } from './RoomTable.js';
import { SectionDrawing } from './SectionDrawing.js';
import { StepByStep } from './StepByStep.js';
import { TargetPanel } from './TargetPanel.js';
import { WhatIfTable } from './WhatIfTable.js';
import { WornAsked } from './WornAsked.js';
import { ZonePanel } from './ZonePanel.js';

const NONE: readonly ToothReduction[] = [];
const NO_LISTS: readonly ToothCutList[] = [];

/** Reduce: what to remove where under the planned contour, with which bur, and what enamel is left. */
export default function Reduce() {
  const contour = useContour();
  const { tooth, selectTooth } = useCase();
  const shape = useSection('shape').data;
  const reduce = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const name = useToothLabel();
  const sentence = useSentence();
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const [zone, setZone] = useState<Zone>('cervical');
  const { from } = reduce.data;
  const lowerPlanned = shape.teeth.some((t) => jawOf(t.tooth) === 'lower');
  const [look, setLook] = useState<Look>('zones');
  const lower = useLower(contour, lowerPlanned || look !== 'steps');
  // Lower teeth count once their scan is there.
  const ready = contour.state === 'ready' && (!lowerPlanned || lower.state !== 'loading');
  const client = ready && shape.teeth.length > 0 ? clientOf(contour) : undefined;
  const mouth = useMouth();
  const all = useMemo(() => [reduce.data, mouth] as const, [reduce.data, mouth]);
  const asked = useAsked(client, plan, 'reductions', all);
  const reductions = shownOf(asked) ?? NONE;
  const own = reductions.find((r) => r.tooth === tooth);
  const stands = useMemo(() => reductions.map((r) => r.tooth), [reductions]);
  const targets = useTargets(look === 'arch' ? client : undefined, plan, stands, all[0], all[1]);
  const arch = useJaw(contour, lower, jawOf(tooth));
  const [place, setPlace] = useState<SectionPlace>(AT_AXIS);
  // Asked again once the teeth across are there.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the state of the lower jaw is no part of the question
  const one = useMemo(() => [tooth, reduce.data, place] as const, [tooth, reduce.data, place, lower.state]);
  const section = useAsked(own && look === 'zones' ? client : undefined, plan, 'sectionOf', one);
  const askedLists = useAsked(look === 'steps' ? client : undefined, plan, 'cutList', all);
  const lists = shownOf(askedLists) ?? NO_LISTS;
  const list = lists.find((l) => l.tooth === tooth);
  const [step, setStep] = useState({ tooth, at: 0 });
  const stepAt = step.tooth === tooth ? step.at : 0;
  const setStepAt = (at: number) => setStep({ tooth, at: Math.max(0, Math.min((list?.steps.length ?? 1) - 1, at)) });

  useHotkeys('stage', [
    {
      keys: '1 … 4',
      does: 'zone: cervical, middle, incisal, edge',
      on: ['1', '2', '3', '4'],
      each: ZONES.map((z) => `zone: ${z}`),
      run: (key) => setZone(ZONES[Number(key) - 1] as Zone),
    },
    {
      keys: 'M',
      does: 'the next strategy',
      on: ['m'],
      off: !mayWrite,
      run: () => {
        const at = STRATEGIES.findIndex((s) => s.id === from);
        reduce.set({ ...reduce.data, from: (STRATEGIES[(at + 1) % STRATEGIES.length] ?? STRATEGIES[0]).id });
      },
    },
    {
      keys: 'V',
      does: 'in zones, on the arch, step by step',
      on: ['v'],
      run: () => setLook((l) => LOOK_ORDER[(LOOK_ORDER.indexOf(l) + 1) % LOOK_ORDER.length] as Look),
    },
    {
      keys: '↓ ↑',
      does: 'the next step, the one before',
      on: ['arrowdown', 'arrowup'],
      each: ['the next step', 'the step before'],
      off: look !== 'steps',
      run: (key) => setStepAt(stepAt + (key === 'arrowdown' ? 1 : -1)),
    },
    { keys: 'J', does: 'the other jaw', on: ['j'], off: !lowerPlanned, run: () => selectTooth(across(tooth)) },
  ]);

  const drawn = section.state === 'ready' ? section.value : undefined;
  const body =
    contour.state === 'no-scan' || shape.teeth.length === 0 ? (
      <Empty title="Targets exist only under a planned contour">
        <p>
          {contour.state === 'no-scan' ? 'There is no scan yet, and no contour. ' : 'No tooth is planned yet. '}
          <Link className="how" to="../shape">
            Go to shape
          </Link>
        </p>
      </Empty>
    ) : contour.state === 'loading' || (lowerPlanned && lower.state === 'loading') ? (
      <Waiting what="the scan and measuring its teeth" />
    ) : contour.state === 'failed' ? (
      <Trouble sentence={sentence(contour.sentence)} retry={contour.retry} />
    ) : asked.state === 'failed' ? (
      <Trouble sentence={sentence(asked.sentence)} retry={asked.retry} />
    ) : asked.state === 'ready' && reductions.length === 0 ? (
      <Empty title="None of the planned teeth stands in the scan">
        <p>
          The contour was planned on another scan, or the scan of its jaw is missing.{' '}
          <Link className="how" to="../shape">
            Go to shape
          </Link>
        </p>
      </Empty>
    ) : reductions.length === 0 ? (
      <Waiting what="the targets" />
    ) : look === 'arch' ? (
      <OnTheArch jaw={arch} targets={targets} />
    ) : look === 'steps' ? (
      askedLists.state === 'failed' ? (
        <Trouble sentence={sentence(askedLists.sentence)} retry={askedLists.retry} />
      ) : list ? (
        <StepByStep list={list} plan={plan} at={stepAt} setAt={setStepAt} />
      ) : lists.length === 0 ? (
        <Waiting what="the cut list" />
      ) : (
        <Empty title={`Nothing is planned for ${name(tooth)}`}>
          <p>Choose a planned tooth on the strip.</p>
        </Empty>
      )
    ) : (
      <div className="flex h-full flex-col px-6 pt-14 pb-4">
        <ReductionMap
          reductions={reductions.filter((r) => jawOf(r.tooth) === jawOf(tooth))}
          plan={plan}
          zone={zone}
          onPick={(t, z) => {
            selectTooth(t);
            setZone(z);
          }}
        />
        <Missing
          planned={shape.teeth.map((t) => t.tooth)}
          reductions={reductions}
          trouble={lower.state === 'failed' ? lower.sentence : undefined}
        />
        <div className="my-3 border-t border-hair" />
        {section.state === 'failed' && <Trouble sentence={sentence(section.sentence)} retry={section.retry} />}
        {drawn && own && (
          <SectionDrawing section={drawn} reductions={reductions} own={own} place={place} setPlace={setPlace} />
        )}
      </div>
    );
  return (
    <Stage
      surround={look === 'arch' ? 'grey' : 'paper'}
      bench={
        <>
          {reductions.length > 0 && <LookChips look={look} setLook={setLook} />}
          {body}
        </>
      }
      panel={
        <>
          <WornAsked />
          {look === 'arch' ? (
            <TargetPanel targets={targets}>
              <RoomTable client={client} plan={plan} choice={all[0]} lower={lower} />
              <WhatIfTable client={client} plan={plan} choice={all[0]} mouth={all[1]} />
            </TargetPanel>
          ) : look === 'steps' ? (
            <CutPanel lists={lists} own={own} />
          ) : (
            <ZonePanel own={own} zone={zone} setZone={setZone} />
          )}
        </>
      }
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['1', '–', '4']} does="zone" />
          <KeyHint keys={['M']} does="strategy" />
          <KeyHint keys={['V']} does="another look" />
          {look === 'steps' && <KeyHint keys={['↓', '↑']} does="step" />}
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">
            Planning aid for {name(tooth)}. The treating clinician decides and checks in the mouth.
          </span>
        </>
      }
    />
  );
}

/** How the targets are looked at. */
type Look = 'zones' | 'arch' | 'steps';
const LOOKS: Readonly<Record<Look, string>> = { zones: 'in zones', arch: 'on the arch', steps: 'step by step' };
const LOOK_ORDER = Object.keys(LOOKS) as readonly Look[];

function LookChips({ look, setLook }: { look: Look; setLook: (l: Look) => void }) {
  return (
    <div className="absolute top-3.5 left-4 z-10 flex gap-1.5">
      {LOOK_ORDER.map((l) => (
        <button
          key={l}
          type="button"
          className={look === 'arch' ? 'chip' : 'chip chip-flat'}
          aria-pressed={look === l}
          onClick={() => setLook(l)}
        >
          {LOOKS[l]}
        </button>
      ))}
    </div>
  );
}

/** Planned teeth for which there is no target, and why. */
function Missing({
  planned,
  reductions,
  trouble,
}: {
  planned: readonly number[];
  reductions: readonly ToothReduction[];
  trouble: string | undefined;
}) {
  const name = useToothLabel();
  const without = planned.filter((t) => !reductions.some((r) => r.tooth === t));
  if (without.length === 0) return null;
  return (
    <p className="finding mt-2 text-note" data-weight="watch">
      No target for {without.map(name).join(', ')}: {trouble ?? 'planned, but not in the scan of that jaw.'}
    </p>
  );
}
