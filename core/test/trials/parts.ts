import {
  box,
  cutOut,
  type Doubt,
  type Fdi,
  type LookedAt,
  laidByClicks,
  laidByShape,
  type Mesh,
  pickTeeth,
  placeMesh,
  repaired,
  type Vec3,
} from '@radiant/core';
import {
  makePatient,
  type PatientTooth,
  scatteredRecipe,
  WHOLE_SCANNER,
  type WholeJaw,
  wholeJaw,
} from '@radiant/standins';
import { keptJaw } from './kept-jaw.js';

type Wanted = (place: Vec3, tooth: number) => boolean;

/** The triangles whose first corner is wanted, as a surface of its own. */
function partOfScan({ mesh: { positions, triangles }, truth }: WholeJaw, wanted: Wanted): Mesh {
  const kept: number[] = [];
  for (let t = 0; t < truth.length; t++) {
    const at = 3 * triangles[3 * t]!;
    if (wanted([positions[at]!, positions[at + 1]!, positions[at + 2]!], truth[t]!))
      kept.push(...triangles.subarray(3 * t, 3 * t + 3));
  }
  return cutOut(positions, kept);
}

export interface SaidOfPart {
  readonly teeth: readonly Fdi[];
  readonly doubt: string;
  readonly contacts: readonly Doubt[];
}

function said(look: LookedAt): SaidOfPart {
  const { doubt, doubts, crowns } = pickTeeth(look, look.teeth);
  return {
    teeth: [...crowns.keys()].sort(),
    doubt: doubt ?? '',
    contacts: doubts.filter((d) => d.about === 'contact'),
  };
}

const PARTS: Readonly<Record<'whole' | 'palate' | 'gum' | 'side' | 'front', Wanted>> = {
  whole: () => true,
  palate: ([x, y], tooth) => tooth === 0 && y > 10 && Math.abs(x) < 18,
  gum: (_, tooth) => tooth === 0,
  side: ([x]) => x > 2,
  front: ([, y]) => y < 9,
};

const patient = () => makePatient(scatteredRecipe(611));
const toothOf = (tooth: Fdi): PatientTooth => patient().teeth.find((t) => t.tooth === tooth)!;

export type Part = keyof typeof PARTS;

function meshOf(part: Part): Mesh {
  const whole = keptJaw(['parts'], () => wholeJaw(patient(), 'upper', { ...WHOLE_SCANNER, stepMm: 0.35, seed: 611 }));
  return repaired(partOfScan(whole, PARTS[part])).mesh;
}

/** What is said of a part of one upper jaw: of scans that are no whole row. */
export const partTrial = (part: Part): SaidOfPart => said(laidByShape(meshOf(part), 'upper').look);

/** What is said of the same jaw's front, laid by three clicks. */
export function clickedTrial(): SaidOfPart {
  const tip = (tooth: Fdi) => toothOf(tooth).frame.origin;
  const [right, left] = [tip(11), tip(21)];
  const middle: Vec3 = [(right[0] + left[0]) / 2, (right[1] + left[1]) / 2, (right[2] + left[2]) / 2];
  return said(laidByClicks(meshOf('front'), 'upper', [middle, tip(13), tip(23)]).look);
}

/** What is said of centrals that something joins: in their contact, or over their faces. */
export function joinedTrial(wide: number, high: number, behind: number): SaidOfPart {
  const [right, left] = [toothOf(11), toothOf(21)];
  const faceOf = ({ mesh: { positions: p }, frame }: PatientTooth) =>
    p.reduce(
      (least, y, i) => (i % 3 === 1 && Math.abs(p[i + 1]! - frame.origin[2] - 4.5) < 0.5 ? Math.min(least, y) : least),
      Infinity,
    );
  const face = (faceOf(right) + faceOf(left)) / 2;
  const origin: Vec3 = [
    (right.frame.origin[0] + left.frame.origin[0]) / 2,
    face + 1.5 + behind,
    right.frame.origin[2] + 4,
  ];
  const joint = { ...right, mesh: placeMesh(box(wide, 3, high), { origin, x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }) };
  const whole = keptJaw(['joined', wide, high, behind], () =>
    wholeJaw(patient(), 'upper', { ...WHOLE_SCANNER, seed: 611 }, [joint]),
  );
  const { mesh } = repaired(whole.mesh);
  return said(laidByShape(mesh, 'upper').look);
}
