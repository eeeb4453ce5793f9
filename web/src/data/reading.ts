import {
  type CaseFile,
  type FreeMeasure,
  frontLandmarks,
  frontOf,
  frontScale,
  frontSeen,
  keysOf,
  landmarkSet,
  lengthWish,
  type MeetSection,
  PHOTO_VIEWS,
  type PhotoView,
  photographed,
  type ReadSection,
  readingOf,
  recordFindings,
  viewPoints,
  viewReadingOf,
} from '@radiant/contract';
import {
  byNotice,
  type Figure,
  type Finding,
  findings,
  freeAngle,
  freeLength,
  type LipContext,
  measureFrontDetails,
  measureView,
  Refusal,
  type Roles,
  type ToothMeasure,
  type ViewFigure,
  viewFindings,
} from '@radiant/core';
import { useCase, useSection } from './case-context.js';

export interface Reading {
  readonly photo: CaseFile | undefined;
  readonly scale: Figure | undefined;
  /** For which kind of tooth each stands, as far as record and photograph tell. */
  readonly roles: Roles;
  readonly measures: readonly ToothMeasure[];
  /** Of all views together, the most visible first. */
  readonly findings: readonly Finding[];
  /** What each view tells beside the tooth measures. */
  readonly figures: Readonly<Partial<Record<PhotoView, readonly ViewFigure[]>>>;
}

/** One answer for each reading of a view, for as long as that reading is the one that is held. */
const known = new WeakMap<object, { readonly context: string; readonly figures: readonly ViewFigure[] }>();

function figuresOf(read: ReadSection, view: PhotoView, context: LipContext, key: string): readonly ViewFigure[] {
  const own = read.views.find((v) => v.view === view);
  if (!own || own.points.length === 0) return [];
  const kept = known.get(own);
  if (kept?.context === key) return kept.figures;
  const held = viewReadingOf(read, view);
  const figures = held ? measureView(held, context) : [];
  known.set(own, { context: key, figures });
  return figures;
}

/** Everything that the photographs tell. */
export function readAll(read: ReadSection, meet: MeetSection, files: readonly CaseFile[]): Reading {
  const front = readingOf(read, 'retracted-front');
  const photo = files.find((f) => f.id === front.photoId);
  const scale = frontScale(read);
  const set = landmarkSet(frontLandmarks(read));
  // The scan says nothing here of where teeth stand: what is read is the photograph.
  const { roles } = frontOf(read, meet, []);
  const measures = photographed(read, roles);
  const lengths = Object.fromEntries(measures.flatMap((m) => (m.length ? [[m.tooth, m.length]] : [])));
  const key = measures.map((m) => `${m.tooth} ${m.length?.value ?? ''}`).join();
  const figures: Partial<Record<PhotoView, readonly ViewFigure[]>> = {};
  for (const view of keysOf(PHOTO_VIEWS)) {
    figures[view] =
      view === 'retracted-front'
        ? scale
          ? measureFrontDetails(set, viewPoints(front.points), scale, roles, frontSeen(read))
          : []
        : figuresOf(read, view, { lengths }, key);
  }
  const centrals = [lengths[11]?.value, lengths[21]?.value].filter((v) => v !== undefined);
  const lipMm = figures['close-rest']?.find((f) => f.id === 'lip-length')?.figure.value;
  const context = {
    ageYears: meet.ageYears ?? null,
    sex: meet.sexAtBirth ?? null,
    wish: lengthWish(meet),
    ...(centrals.length > 0 && { centralLengthMm: Math.max(...centrals) }),
    ...(lipMm !== undefined && { lipMm }),
  };
  const found = [...findings(measures), ...viewFindings(oncePerSide(figures), context), ...recordFindings(meet)];
  return {
    photo,
    scale,
    roles,
    measures,
    findings: found.sort(byNotice),
    figures,
  };
}

/**
 * All figures; what two views tell alike (cants at rest and in smile, overjet from both sides) counts once, the surer
 * one.
 */
function oncePerSide(figures: Reading['figures']): ViewFigure[] {
  const best = new Map<string, ViewFigure>();
  for (const f of Object.values(figures).flat()) {
    const before = best.get(f.id);
    if (!before || f.figure.pm < before.figure.pm) best.set(f.id, f);
  }
  return [...best.values()];
}

/** The last answer: several parts of a page ask the same at one moment. */
let last:
  | {
      readonly read: ReadSection;
      readonly meet: MeetSection;
      readonly files: readonly CaseFile[];
      readonly answer: Reading;
    }
  | undefined;

function readOnce(read: ReadSection, meet: MeetSection, files: readonly CaseFile[]): Reading {
  if (last?.read !== read || last.meet !== meet || last.files !== files)
    last = { read, meet, files, answer: readAll(read, meet, files) };
  return last.answer;
}

/** What the photographs tell, worked out live from scales and points. */
export function useReading(): Reading {
  const { detail } = useCase();
  const { data } = useSection('read');
  const { data: meet } = useSection('meet');
  return readOnce(data, meet, detail.files);
}

/** A measure that a person drew, with its figure where there is a scale. */
export interface Drawn {
  readonly measure: FreeMeasure;
  readonly figure: Figure | undefined;
}

/** The drawn lengths and angles of a view. */
export function drawnOf(drawn: readonly FreeMeasure[], scale: Figure | undefined): readonly Drawn[] {
  return drawn.map((measure) => ({ measure, figure: scale && figureOf(measure, scale) }));
}

function figureOf(m: FreeMeasure, scale: Figure): Figure | undefined {
  const [a, b, c] = m.points.map((p) => [p.x, p.y] as const);
  try {
    return a && b && c ? freeAngle(a, b, c, scale) : a && b ? freeLength(a, b, scale) : undefined;
  } catch (error) {
    // While two of its points are dragged over each other a measure has no value.
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}
