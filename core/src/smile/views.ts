import { type Fdi, LOWER_TEN, UPPER_TEN } from '../teeth/notation.js';
import { frontRow } from '../teeth/roles.js';
import type { Px } from './calibration.js';

/** The standard views of a smile analysis. */
export type ViewId =
  | 'portrait-rest'
  | 'portrait-smile'
  | 'close-rest'
  | 'close-smile'
  | 'retracted-front'
  | 'retracted-right'
  | 'retracted-left'
  | 'upper-occlusal'
  | 'lower-occlusal'
  | 'twelve-oclock';

/** A place that is marked on one view. */
export interface PointSpec {
  readonly id: string;
  /** In words; a tooth stands as `{11}`. */
  readonly name: string;
  /** How well it is set again, one standard deviation, mm. Common practice, no source. */
  readonly sdMm: number;
  readonly tooth?: Fdi;
  /** The same place on the other side. */
  readonly fellow?: string;
  /** Which line of the view it belongs to, drawn through its points in order. */
  readonly curve?: 'upper lip' | 'lower lip';
}

/** Points of one view by id, px. */
export type ViewPoints = Readonly<Partial<Record<string, Px>>>;

const mirror = (id: string): string =>
  id.endsWith('-right') ? `${id.slice(0, -6)}-left` : id.endsWith('-left') ? `${id.slice(0, -5)}-right` : id;

function point(id: string, name: string, sdMm: number, more: Partial<PointSpec> = {}): PointSpec {
  const other = mirror(id);
  return { id, name, sdMm, ...(other !== id && { fellow: other }), ...more };
}

const CORNERS: readonly PointSpec[] = [
  point('corner-right', 'right corner of the mouth', 0.4),
  point('corner-left', 'left corner of the mouth', 0.4),
];

/** Knots of a lip border between the corners, the patient's right first. */
export const LIP_KNOTS = 5;

function lip(which: 'upper' | 'lower'): PointSpec[] {
  return Array.from({ length: LIP_KNOTS }, (_, i) => {
    const other = `${which}-lip-${LIP_KNOTS - i}`;
    const id = `${which}-lip-${i + 1}`;
    const place = ['far right', 'right', 'middle', 'left', 'far left'][i] as string;
    return {
      id,
      name: `border of the ${which} lip, ${place}`,
      sdMm: 0.2,
      curve: `${which} lip` as const,
      ...(other !== id && { fellow: other }),
    };
  });
}

const swap = (tooth: Fdi): Fdi => [0, 20, 10, 40, 30][Math.trunc(tooth / 10)] as number;
const across = (tooth: Fdi): Fdi => (swap(tooth) ? swap(tooth) + (tooth % 10) : tooth);

function ofTeeth(teeth: readonly Fdi[], kind: string, name: string, sdMm: number): PointSpec[] {
  return teeth.map((tooth) => ({
    id: `${kind}-${tooth}`,
    name: `${name} of {${tooth}}`,
    sdMm,
    tooth,
    fellow: `${kind}-${across(tooth)}`,
  }));
}

/** Two teeth that stand beside each other, the one towards the patient's right first. */
export type Neighbours = readonly [Fdi, Fdi];

/** The contacts within a row. */
export const contactsOf = (row: readonly Fdi[]): readonly Neighbours[] =>
  row.slice(1).map((t, i): Neighbours => [row[i] as Fdi, t]);

/** Any two upper teeth that may come to stand beside each other where others are missing. */
const ANY_CONTACTS: readonly Neighbours[] = UPPER_TEN.flatMap((a, i) =>
  UPPER_TEN.slice(i + 1).map((b): Neighbours => [a, b]),
);

function ofContacts(pairs: readonly Neighbours[], kind: string, name: string, sdMm: number): PointSpec[] {
  return pairs.map(([a, b]) => {
    const other = `${kind}-${across(b)}-${across(a)}`;
    const id = `${kind}-${a}-${b}`;
    return {
      id,
      name: `${name} between {${a}} and {${b}}`,
      sdMm,
      tooth: a < 20 ? a : b,
      ...(other !== id && { fellow: other }),
    };
  });
}

const PORTRAIT: readonly PointSpec[] = [
  point('pupil-right', 'right pupil', 0.4),
  point('pupil-left', 'left pupil', 0.4),
  point('glabella', 'middle between the brows', 0.6),
  point('nose-base', 'base of the nose', 0.5),
  point('chin', 'middle of the chin', 0.9),
  ...CORNERS,
];

const SIDE: readonly PointSpec[] = [
  point('plane-front', 'tip of the upper canine', 0.1),
  point('plane-back', 'cusp tip of the second upper premolar', 0.15),
  point('upper-edge', 'facial corner of the upper central’s edge', 0.1),
  point('lower-facial', 'facial surface of the lower central at the upper edge', 0.15),
];

const occlusal = (teeth: readonly Fdi[]): PointSpec[] =>
  teeth.flatMap((t) => [
    ...ofTeeth([t], 'facial', 'middle of the facial edge', 0.12),
    ...ofTeeth([t], 'mesial', 'mesial end', 0.12),
    ...ofTeeth([t], 'distal', 'distal end', 0.12),
  ]);

type Points = Readonly<Record<ViewId, readonly PointSpec[]>>;

/** The points of all views where these teeth stand in front and these contacts are between them. */
const pointsWhere = (row: readonly Fdi[], contacts: readonly Neighbours[]): Points => ({
  'portrait-rest': PORTRAIT,
  'portrait-smile': [
    ...PORTRAIT,
    point('midline-edge', 'contact of the upper centrals at the edge', 0.25),
    point('canine-right', 'tip of the right upper canine', 0.25, { tooth: 13 }),
    point('canine-left', 'tip of the left upper canine', 0.25, { tooth: 23 }),
  ],
  'close-rest': [
    ...CORNERS,
    ...lip('upper'),
    ...lip('lower'),
    ...ofTeeth(row, 'edge', 'edge', 0.07),
    point('nose-base', 'base of the nose', 0.5),
  ],
  'close-smile': [
    ...CORNERS,
    ...lip('upper'),
    ...lip('lower'),
    ...ofTeeth(row, 'edge', 'edge', 0.07),
    ...ofTeeth(row, 'zenith', 'zenith, where it is seen,', 0.1),
    point('outer-right', 'outer border of the last tooth seen on the right', 0.15),
    point('outer-left', 'outer border of the last tooth seen on the left', 0.15),
  ],
  'retracted-front': [
    ...ofContacts(contacts, 'papilla', 'tip of the papilla', 0.08),
    ...ofContacts(contacts, 'contact', 'upper end of the contact', 0.08),
    ...ofContacts(contacts, 'embrasure', 'lower end of the contact', 0.08),
    ...ofTeeth(row, 'neck', 'middle of the neck', 0.12),
    point('lower-margin', 'lowest gum margin of a lower central', 0.1),
  ],
  'retracted-right': SIDE,
  'retracted-left': SIDE,
  'upper-occlusal': occlusal(UPPER_TEN),
  'lower-occlusal': occlusal(LOWER_TEN),
  'twelve-oclock': [],
});

/** The ten views. */
export const VIEW_IDS = Object.keys(pointsWhere([], [])) as readonly ViewId[];

/** A fellow counts where it is asked for as well. */
const withFellows = (all: readonly PointSpec[]): readonly PointSpec[] => {
  const ids = new Set(all.map((s) => s.id));
  return all.map(({ fellow, ...s }) => (fellow && ids.has(fellow) ? { ...s, fellow } : s));
};

/**
 * What is marked on each view, in the order in which it is set. The retracted front view's four outline points of each
 * tooth are held apart, in `LANDMARK_KINDS`; here stand those that go further.
 * @param row the upper teeth that stand in front
 */
export function pointsOf(view: ViewId, row: readonly Fdi[] = frontRow()): readonly PointSpec[] {
  return withFellows(pointsWhere(row, contactsOf(row))[view]);
}

const byId = new Map<string, PointSpec>();
for (const [view, specs] of Object.entries(pointsWhere(UPPER_TEN, ANY_CONTACTS)))
  for (const s of specs) byId.set(`${view} ${s.id}`, s);

/** The ids of all points that a view may be asked for, whichever teeth stand in front. */
export const VIEW_POINT_IDS: ReadonlySet<string> = new Set([...byId.values()].map((s) => s.id));

/** The point of a view by its id, or undefined. */
export function pointSpec(view: ViewId, id: string): PointSpec | undefined {
  return byId.get(`${view} ${id}`);
}

/** Which neighbours have a point on the retracted front view, or outlines that stand beside each other. */
export const contactsIn = (points: ViewPoints, row: readonly Fdi[]): readonly Neighbours[] => {
  const beside = contactsOf(row);
  const marked = ANY_CONTACTS.filter(([a, b]) =>
    ['papilla', 'contact', 'embrasure'].some((kind) => points[`${kind}-${a}-${b}`]),
  );
  return ANY_CONTACTS.filter((c) => marked.includes(c) || beside.some(([a, b]) => a === c[0] && b === c[1]));
};
