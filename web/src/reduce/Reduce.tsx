import { contourPlan } from '@radiant/contract';
import { type Fdi, type ToothReduction, type ToothSection, UPPER_SIX, ZONES, type Zone } from '@radiant/core';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useToothLabel } from '../data/case-context.js';
import { isTyping } from '../shell/Keys.js';
import { useMayWrite } from '../shell/ReadOnlyNote.js';
import { Empty, KeyHint, Stage } from '../shell/Stage.js';
import { Trouble, Waiting } from '../shell/Waiting.js';
import { useContour } from '../workers/use-contour.js';
import { ReductionMap } from './ReductionMap.js';
import { SectionDrawing } from './SectionDrawing.js';
import { ZonePanel } from './ZonePanel.js';

/** Reduce: what to remove where under the planned contour, with which bur, and what enamel is left. */
export default function Reduce() {
  const contour = useContour();
  const { tooth, selectTooth } = useCase();
  const shape = useSection('shape').data;
  const reduce = useSection('reduce');
  const mayWrite = useMayWrite('reduce');
  const name = useToothLabel();
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const complete = UPPER_SIX.every((t) => plan[t]);
  const [zone, setZone] = useState<Zone>('cervical');
  const [reductions, setReductions] = useState<readonly ToothReduction[]>([]);
  const [section, setSection] = useState<{ tooth: Fdi; lines: ToothSection }>();
  const service = contour.state === 'ready' ? contour.service : undefined;
  const { design, from } = reduce.data;

  useEffect(() => {
    if (!service || !complete) return;
    let gone = false;
    void service.reduce(plan, design, from).then((r) => !gone && setReductions(r));
    return () => {
      gone = true;
    };
  }, [service, complete, plan, design, from]);
  useEffect(() => {
    if (!service || !complete) return;
    let gone = false;
    void service.section(plan, tooth, design).then((lines) => !gone && setSection({ tooth, lines }));
    return () => {
      gone = true;
    };
  }, [service, complete, plan, tooth, design]);

  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (isTyping(e) || e.ctrlKey || e.metaKey || e.altKey) return;
      const chosen = ZONES[Number(e.key) - 1];
      if (chosen) setZone(chosen);
      else if (e.key.toLowerCase() === 'm' && mayWrite) reduce.set({ ...reduce.data, from: from === 'mock-up' ? 'tooth' : 'mock-up' });
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [reduce, from, mayWrite]);

  const own = reductions.find((r) => r.tooth === tooth);
  const body =
    contour.state === 'no-scan' || !complete ? (
      <Empty title="Targets exist only under a planned contour">
        <p>
          {contour.state === 'no-scan' ? 'There is no scan yet, and no contour. ' : 'The contour of the six teeth is not set yet. '}
          <Link className="how" to="../shape">
            Go to shape
          </Link>
        </p>
      </Empty>
    ) : contour.state === 'loading' ? (
      <Waiting what="the scan and measuring its teeth" />
    ) : contour.state === 'failed' ? (
      <Trouble sentence={contour.sentence} retry={contour.retry} />
    ) : reductions.length === 0 ? (
      <Waiting what="the targets" />
    ) : (
      <div className="flex h-full flex-col px-6 py-4">
        <ReductionMap
          reductions={reductions}
          plan={plan}
          zone={zone}
          onPick={(t, z) => {
            selectTooth(t);
            setZone(z);
          }}
        />
        <div className="my-3 border-t border-hair" />
        {section && section.tooth === tooth && own && <SectionDrawing section={section.lines} reductions={reductions} own={own} />}
      </div>
    );
  return (
    <Stage
      bench={body}
      panel={<ZonePanel own={own} zone={zone} setZone={setZone} />}
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['1', '–', '4']} does="zone" />
          <KeyHint keys={['M']} does="mock-up or tooth" />
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">Planning aid for {name(tooth)}. The treating clinician decides and checks in the mouth.</span>
        </>
      }
    />
  );
}
