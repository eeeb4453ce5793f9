import { type CommentPlace, contourPlan } from '@radiant/contract';
import {
  type ContourPlan,
  type CutChoice,
  type Fdi,
  type FinishByHand,
  type HandWay,
  handFindings,
  type Jaw,
  jawOf,
  onlyAdded,
  type PrepFinding,
  type PrepToothVerdict,
  type PrepVerdict,
  restorationOf,
  type Vec3,
  worstState,
} from '@radiant/core';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { useMouth } from '../../data/use-mouth.js';
import { useSettled } from '../../data/use-settled.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { useJaw } from '../../engine/use-jaws.js';
import { useLater } from '../../engine/use-later.js';
import { useLower } from '../../engine/use-lower.js';
import { Comments } from '../../shell/Comments.js';
import { ReadOnlyNote, Refused } from '../../shell/ReadOnlyNote.js';
import { useHotkeys } from '../../ui/hotkeys.js';
import { Empty, KeyHint, Stage } from '../../ui/StageLayout.js';
import { Trouble, Waiting } from '../../ui/Waiting.js';
import { ByHand } from './ByHand.js';
import { LaidLine, ProofLine } from './LaidLine.js';
import { LineField } from './LineField.js';
import { OnTheArch } from './OnTheArch.js';
import { PinField } from './PinField.js';
import { RecutList } from './RecutList.js';
import { ScanField } from './ScanField.js';
import { ShellField } from './ShellField.js';
import { Together } from './Together.js';
import { useLine } from './use-line.js';
import { usePins } from './use-pins.js';
import { usePrepared } from './use-prepared.js';
import { useVerdict } from './use-verdict.js';
import { Verdict } from './Verdict.js';
import { WaysOut } from './WaysOut.js';
import { findingKey } from './words.js';

type Look = 'arch' | 'list' | 'hand';
const LOOKS: Readonly<Record<Look, string>> = { arch: 'on the arch', list: 'cut list', hand: 'by hand' };
const LOOK_ORDER = Object.keys(LOOKS) as readonly Look[];
const NO_TEETH: readonly Fdi[] = [];
/** A line that is drawn is judged once the hand rests, ms. */
const SETTLED_MS = 350;
const NO_LINES: readonly FinishByHand[] = [];

/** Verify: whether the preparation is right, where more, and whether it all comes off. */
export default function Verify() {
  const contour = useContour();
  const { tooth, selectTooth, detail } = useCase();
  const name = useToothLabel();
  const sentence = useSentence();
  const shape = useSection('shape').data;
  const reduce = useSection('reduce').data;
  const verify = useSection('verify');
  const jaw = jawOf(tooth);
  const plan = useMemo(() => contourPlan(shape.teeth), [shape.teeth]);
  const lower = useLower(contour, true);
  const later = useLater(contour, jaw, 'prepared', verify.data.scanId);
  const proof = useLater(contour, jaw, 'provisional');
  const [wished, setLook] = useState<Look>();
  const look: Look = wished ?? (later.state === 'none' ? 'hand' : 'arch');
  const [way, setWay] = useState<HandWay>('index');
  const [chosen, setChosen] = useState<string>();
  const mouth = useMouth();
  const client = contour.state === 'ready' && lower.state !== 'loading' ? clientOf(contour) : undefined;
  const ready = later.state === 'ready' && proof.state !== 'loading' ? client : undefined;
  // Asked again of another scan.
  const scans = `${later.state === 'ready' && later.id} ${proof.state === 'ready' && proof.id}`;
  const lines = useSettled(verify.data.lines ?? NO_LINES, SETTLED_MS);
  const asked = useVerdict(ready, plan, jaw, reduce, mouth, lines, scans);
  const { verdict } = asked;
  const verdictTeeth = verdict?.judged ?? NO_TEETH;
  const prepared = usePrepared(look === 'arch' ? ready : undefined, plan, verdictTeeth, reduce, mouth, lines, scans);
  const line = useLine(prepared.views);
  const arch = useJaw(contour, lower, jaw);
  const handTeeth = useMemo(() => teethToCut(plan, reduce, jaw), [plan, reduce, jaw]);
  const own = useFoundOn(tooth, look, way, verdict);
  const findings = own?.findings ?? [];
  const shown = prepared.views.get(tooth);
  const marked = findings.find((f) => findingKey(f) === chosen);
  const mark = marked && shown?.marks.find((m) => own && own.findings[m.finding] === marked);
  const places = findings.filter((f) => f.state !== 'right' && f.at);
  const choose = (f: PrepFinding) => {
    selectTooth(f.tooth);
    setChosen(findingKey(f));
    setShownPin(undefined);
    setLook('arch');
  };
  const pins = usePins(jaw);
  const [shownPin, setShownPin] = useState<Vec3>();
  const showPlace = ({ tooth: t, check, words, at }: CommentPlace) => {
    selectTooth(t);
    setLook('arch');
    setChosen(check && findingKey({ tooth: t, check, place: words }));
    setShownPin(at && [at[0], at[1], at[2]]);
  };
  useEffect(() => setChosen((c) => (c?.startsWith(`${tooth} `) ? c : undefined)), [tooth]);
  useHotkeys('stage', [
    {
      keys: 'N',
      does: 'the next place that was found',
      on: ['n'],
      off: places.length === 0,
      run: () => {
        const at = places.findIndex((f) => findingKey(f) === chosen);
        choose(places[(at + 1) % places.length] as PrepFinding);
      },
    },
    {
      keys: 'V',
      does: 'on the arch, cut list, by hand',
      on: ['v'],
      run: () => setLook(LOOK_ORDER[(LOOK_ORDER.indexOf(look) + 1) % LOOK_ORDER.length] as Look),
    },
  ]);
  const scan = later.state === 'ready' ? detail.files.find((f) => f.id === later.id) : undefined;
  const body =
    contour.state === 'no-scan' || shape.teeth.length === 0 ? (
      <Empty title="A preparation is checked against a planned contour">
        <p>
          {contour.state === 'no-scan' ? 'There is no scan yet, and no contour. ' : 'No tooth is planned yet. '}
          <Link className="how" to="../shape">
            Go to shape
          </Link>
        </p>
      </Empty>
    ) : contour.state === 'failed' ? (
      <Trouble sentence={sentence(contour.sentence)} retry={contour.retry} />
    ) : look === 'hand' ? (
      <ByHand teeth={handTeeth} way={way} setWay={setWay} />
    ) : later.state === 'none' ? (
      <Empty title={`No scan of the prepared ${jaw} teeth yet`}>
        <p>
          Put it in and mark its teeth in{' '}
          <Link className="how" to="../shape">
            shape
          </Link>
          , in the state <em>prepared</em>; it is laid on the first scan by what was not cut. Without a scanner read the
          room under the index{' '}
          <button type="button" className="how" onClick={() => setLook('hand')}>
            by hand
          </button>
          .
        </p>
      </Empty>
    ) : later.state === 'failed' ? (
      <Trouble sentence={sentence(later.sentence)} retry={later.retry} />
    ) : asked.failed ? (
      <Trouble sentence={sentence(asked.failed)} retry={asked.retry} />
    ) : !verdict ? (
      <Waiting what="the prepared teeth and measuring them" />
    ) : look === 'list' ? (
      <RecutList verdict={verdict} onChoose={choose} />
    ) : (
      <OnTheArch
        jaw={arch}
        prepared={prepared}
        of={verdict.judged.length}
        marked={mark?.at ?? shownPin}
        pins={pins.pins}
        line={line}
        drawn={verify.data.lines ?? NO_LINES}
        onPoint={line.on ? undefined : pins.take}
      />
    );
  return (
    <Stage
      surround={look === 'arch' && verdict ? 'grey' : 'paper'}
      bench={
        <>
          {shape.teeth.length > 0 && (
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
          )}
          {body}
        </>
      }
      panel={
        <>
          <ReadOnlyNote section="verify" />
          <Refused sentence={verify.refusal?.detail} />
          {look !== 'hand' && verdict && (
            <>
              <ScanField jaw={jaw} shown={later.state === 'ready' ? later.id : undefined} />
              <LaidLine laid={verdict.laid} name={scan?.name ?? ''} />
              {proof.state === 'failed' && <Trouble sentence={sentence(proof.sentence)} retry={proof.retry} />}
              {verdict.provisional && proof.state === 'ready' && (
                <ProofLine laid={verdict.provisional} name={detail.files.find((f) => f.id === proof.id)?.name ?? ''} />
              )}
              <ChangedSince at={scan?.at} />
              <NotJudged verdict={verdict} />
            </>
          )}
          {own ? (
            <>
              <CameOff tooth={tooth} />
              <Verdict verdict={own} chosen={chosen} onChoose={choose} />
              {look === 'arch' && shown && (
                <>
                  <LineField line={line} />
                  <WaysOut own={shown} />
                  <ShellField client={ready} plan={plan} choice={reduce} tooth={tooth} />
                  <Together client={ready} plan={plan} choice={reduce} teeth={verdictTeeth} />
                </>
              )}
            </>
          ) : (
            <p className="text-note text-ink-2">Nothing is found out about {name(tooth)} yet.</p>
          )}
          <Comments stage="verify" place={pins.place} onSent={pins.drop} onShow={showPlace}>
            {look === 'arch' && verdict && <PinField pins={pins} />}
          </Comments>
        </>
      }
      foot={
        <>
          <KeyHint keys={['[', ']']} does="tooth" />
          <KeyHint keys={['N']} does="next place" />
          <KeyHint keys={['V']} does="another look" />
          {look === 'hand' && <KeyHint keys={['+', '−']} does="a tenth" />}
          <KeyHint keys={['?']} does="all keys" />
          <span className="ml-auto">A scan shows surfaces, not the tooth: the treating clinician decides.</span>
        </>
      }
    />
  );
}

/** The planned teeth of a jaw on which something is cut, in the order of the arch. */
function teethToCut(plan: ContourPlan, choice: CutChoice, jaw: Jaw): readonly Fdi[] {
  const side = (t: Fdi) => ([1, 4].includes(Math.floor(t / 10)) ? -(t % 10) : t % 10);
  return Object.keys(plan)
    .map(Number)
    .filter((t) => jawOf(t) === jaw && !onlyAdded(restorationOf(t, choice).design))
    .sort((a, b) => side(a) - side(b));
}

/** What is found on a tooth: by its scan, or by the readings where these are looked at. */
function useFoundOn(
  tooth: Fdi,
  look: Look,
  way: HandWay,
  verdict: PrepVerdict | undefined,
): Pick<PrepToothVerdict, 'tooth' | 'state' | 'findings'> | undefined {
  const { data: reduce } = useSection('reduce');
  const { data } = useSection('verify');
  const { data: decide } = useSection('decide');
  return useMemo(() => {
    if (look === 'hand') {
      const findings = handFindings(tooth, restorationOf(tooth, reduce).design, data.readings, way);
      return findings.length > 0 ? { tooth, state: worstState(findings), findings } : undefined;
    }
    const own = verdict?.teeth.find((t) => t.tooth === tooth);
    if (!own || !decide.cameOff?.includes(tooth)) return own;
    const walls = own.findings.filter((f) => f.check === 'walls');
    return { ...own, findings: [...walls, ...own.findings.filter((f) => f.check !== 'walls')] };
  }, [tooth, look, way, verdict, reduce, data.readings, decide.cameOff]);
}

/** A contour that was changed after the teeth were cut is another one than they were cut for. */
function ChangedSince({ at }: { at: string | undefined }) {
  const shape = useSection('shape');
  if (!at || !shape.at || shape.at <= at) return null;
  return (
    <p className="finding mb-3 text-note" data-weight="watch">
      The contour was changed after this scan came: the teeth were cut for an earlier one, and are judged by the one
      that stands now.
    </p>
  );
}

/** A provisional that came off while it was splinted says that the walls hold too little. */
function CameOff({ tooth }: { tooth: Fdi }) {
  const { data } = useSection('decide');
  const name = useToothLabel();
  if (!data.cameOff?.includes(tooth)) return null;
  return (
    <p className="finding mb-3 text-note" data-weight="stop">
      The splinted provisional of {name(tooth)} came off: look at its walls first.
    </p>
  );
}

/** Planned teeth that are not judged, and why. */
function NotJudged({ verdict }: { verdict: PrepVerdict }) {
  const name = useToothLabel();
  return (
    <>
      {verdict.missing.length > 0 && (
        <p className="finding mb-2 text-note" data-weight="watch">
          {verdict.missing.map(name).join(', ')}: not in this scan.
        </p>
      )}
      {verdict.uncut.length > 0 && (
        <p className="finding mb-2 text-note" data-weight="watch">
          {verdict.uncut.map(name).join(', ')}: nothing is cut yet, or the scan is of an earlier day.
        </p>
      )}
    </>
  );
}
