import {
  type AcceptedFinding,
  type CaseComment,
  type CaseDetail,
  contourPlan,
  JAWS,
  mouthOf,
  shortColour,
  standingOf,
  standingWords,
} from '@radiant/contract';
import {
  ask,
  burName,
  type CaseEngine,
  type Fdi,
  isUpper,
  type Jaw,
  type LaidLater,
  label,
  type Notation,
  type PrepFinding,
  type PrepState,
  type PrepVerdict,
  restorationOf,
  type Vec3,
} from '@radiant/core';
import type { Tell } from './tell.js';
import { type ToothPicture, toothPicture } from './tooth-picture.js';

/** A later scan that is judged by, as it is told on paper. */
export interface LaterTold {
  readonly jaw: Jaw;
  readonly state: 'prepared' | 'provisional';
  readonly name: string;
  readonly at: string;
}

/** Something found that is not right, with its number on the map. */
export interface SheetFinding {
  readonly number: number;
  readonly finding: PrepFinding;
  readonly says: string;
  readonly todo: string;
  readonly accepted?: AcceptedFinding | undefined;
  readonly answers: readonly CaseComment[];
  readonly at?: Vec3 | undefined;
}

/** One prepared tooth on paper. */
export interface PrepToothSheet {
  readonly tooth: Fdi;
  readonly design: string;
  readonly state: PrepState;
  readonly findings: readonly SheetFinding[];
  readonly right: number;
  readonly pictures: readonly { readonly words: string; readonly picture: ToothPicture }[];
}

/** What the verdict on the preparations says, computed; the drawing knows nothing of how. */
export interface PrepSheet {
  readonly name: string;
  readonly practice: string;
  readonly notation: Notation;
  readonly contour: string;
  readonly scans: readonly { readonly told: LaterTold; readonly laid: LaidLater }[];
  /** What can't be judged, a sentence each. */
  readonly notJudged: readonly string[];
  readonly teeth: readonly PrepToothSheet[];
  readonly recuts: readonly {
    readonly bur: string;
    readonly tooth: string;
    readonly place: string;
    readonly mm: string;
  }[];
  /** Remarks on points of the surface and on the whole. */
  readonly comments: readonly CaseComment[];
}

/**
 * @param engine holds the first scans and the later ones
 * @returns undefined while no jaw has a scan of its prepared teeth beside a plan
 */
export async function prepSheet(
  detail: CaseDetail,
  practice: string,
  notation: Notation,
  engine: CaseEngine,
  later: readonly LaterTold[],
  tell: Tell = () => undefined,
): Promise<PrepSheet | undefined> {
  const { meet, shape, reduce, verify } = detail.sections;
  engine.setPlan(contourPlan(shape.data.teeth));
  const mouth = mouthOf(meet.data);
  const jaws = JAWS.filter(
    (j) => later.some((l) => l.jaw === j && l.state === 'prepared') && engine.teeth(j).length > 0,
  );
  if (jaws.length === 0) return undefined;
  const verdicts: (readonly [Jaw, PrepVerdict])[] = jaws.map((jaw, i) => {
    tell(`Judging the ${jaw} teeth`, 0.2 + (0.4 * i) / jaws.length);
    return [jaw, ask(engine, 'prepVerdict', jaw, reduce.data, mouth, verify.data.lines)];
  });
  const sentence = (s: string) => s.replaceAll(/\{(\d\d)\}/g, (_, t: string) => label(Number(t), notation));
  const comments = detail.comments.filter((c) => c.stage === 'verify');
  const teeth: PrepToothSheet[] = [];
  for (const [, verdict] of verdicts)
    for (const own of verdict.teeth) {
      tell(`Drawing ${label(own.tooth, notation)}`, 0.6 + 0.03 * teeth.length);
      const view = ask(engine, 'preparedView', own.tooth, reduce.data, mouth, verify.data.lines);
      const open = own.findings.filter((f) => f.state !== 'right');
      const pictures = await Promise.all(
        (['front', 'behind'] as const).map(async (side) => ({
          words: side,
          picture: await toothPicture(view.mesh, view.frame, side, isUpper(own.tooth), (v) =>
            shortColour(view.shortMm[v] as number),
          ),
        })),
      );
      teeth.push({
        tooth: own.tooth,
        design: restorationOf(own.tooth, reduce.data).design.name,
        state: own.state,
        right: own.findings.length - open.length,
        findings: open.map((finding, i) => ({
          number: i + 1,
          finding,
          says: sentence(finding.says),
          todo: sentence(finding.todo ?? ''),
          accepted: verify.data.accepted.find((a) => isOf(a, finding)),
          answers: comments.filter((c) => c.place?.check && isOf({ ...c.place, place: c.place.words }, finding)),
          at: view.marks.find((m) => own.findings[m.finding] === finding)?.at,
        })),
        pictures,
      });
    }
  return {
    name: detail.name,
    practice,
    notation,
    contour: `Contour no. ${shape.version}, ${standingWords(standingOf(shape.data.teeth, detail.contours))}`,
    scans: later.flatMap((told) => {
      const verdict = verdicts.find(([jaw]) => jaw === told.jaw)?.[1];
      const laid = told.state === 'prepared' ? verdict?.laid : verdict?.provisional;
      return laid ? [{ told, laid }] : [];
    }),
    notJudged: verdicts.flatMap(([jaw, v]) => [
      ...(v.laid.doubtful ? [`The scan of the ${jaw} jaw lies too doubtfully to be judged by.`] : []),
      ...v.missing.map((t) => `${label(t, notation)} is not in the scan.`),
      ...v.uncut.map((t) => `Nothing is cut yet on ${label(t, notation)}.`),
    ]),
    teeth,
    recuts: verdicts
      .flatMap(([, v]) => v.recuts)
      .filter((r) => r.findings.some((f) => !verify.data.accepted.some((a) => isOf(a, f))))
      .map((r) => ({
        bur: r.bur ? burName(r.bur) : 'none in the tray',
        tooth: label(r.tooth, notation),
        place: sentence(r.place),
        mm: r.cutMm > 0 ? r.cutMm.toFixed(2) : '–',
      })),
    // What was said to something that is found no longer is not lost.
    comments: comments.filter((c) => !teeth.some((t) => t.findings.some((f) => f.answers.includes(c)))),
  };
}

/** Whether something is on this finding: tooth, check and place tell one from all others of a case. */
const isOf = (
  on: { readonly tooth: number; readonly check?: string; readonly place: string },
  f: PrepFinding,
): boolean => on.tooth === f.tooth && on.check === f.check && on.place === f.place;
