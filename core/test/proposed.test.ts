import {
  contacts,
  type ExistingArch,
  existingArch,
  type Fdi,
  type Figure,
  plannedTooth,
  propose,
  proposedCrowns,
  readScan,
  rolesOf,
  roomAmong,
  SCHOOLS,
  TIGHT_MM,
  usedMeasures,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, type PatientRecipe, RECIPES, scan, scatteredRecipe } from '@radiant/standins';
import { DAY, rotating, share } from './trials/rotating.js';

const NO_GAPS: Figure = { value: 0, pm: 0.2, unit: 'mm', working: { formula: 'given', inputs: [] } };
/** Which teeth a proposal may be for; one that is not there is left out. */
const PLANS: readonly (readonly Fdi[] | undefined)[] = [undefined, [11, 12, 21, 22], [21], [11], [13, 11, 23]];

/** What passes into its neighbour in a plan, as a person reads it. */
function passing(arch: ExistingArch, plan: ReturnType<typeof proposedCrowns>['plan']): string[] {
  const planned = Object.keys(plan).map((t) => [Number(t), plannedTooth(arch, plan, Number(t))] as const);
  return contacts(arch, new Map(planned))
    .filter((c) => (plan[c.right] || plan[c.left]) && c.gapMm < -TIGHT_MM)
    .map((c) => `${c.right}–${c.left} ${c.gapMm.toFixed(2)} mm`);
}

function proposalOf(arch: ExistingArch, recipe: PatientRecipe, school: number, planned: readonly Fdi[] | undefined) {
  const scanned = [...arch.teeth.values()].map((t) => ({ ...t, acrossMm: 0, edgeUpMm: 0, zenithUpMm: t.lengthMm }));
  const missing = new Set(recipe.missing ?? []);
  return propose(
    usedMeasures([], scanned),
    {
      school: SCHOOLS[school % SCHOOLS.length]?.id ?? 'living',
      referenceTooth: 11,
      edgeMm: 1,
      ...(planned && { planned }),
    },
    NO_GAPS,
    rolesOf(missing, (t) => missing.has(t)),
  );
}

const MOUTHS: readonly (readonly [string, PatientRecipe])[] = [
  ...Object.entries(RECIPES),
  ...[60, 61, 62, 63].map((seed) => [`odd teeth ${seed}`, { ...scatteredRecipe(seed), oddMm: 0.35 }] as const),
];

describe(`the crowns of a proposal (${share})`, () => {
  it.each(rotating(MOUTHS, 3))('of %s pass into no neighbour, whichever teeth and school', (_, recipe) => {
    const arch = existingArch(readScan(scan(makePatient(recipe), INTRAORAL_SCANNER)));
    for (const [n, planned] of PLANS.entries()) {
      const proposal = proposalOf(arch, recipe, DAY + n, planned);
      const targets = (proposal?.targets ?? [])
        .filter((t) => !t.stays)
        .map((t) => [t.tooth, { lengthMm: t.length.value, widthMm: t.width.value }] as const);
      const made = proposedCrowns(arch, new Map(targets));
      expect([planned, passing(arch, made.plan)]).toEqual([planned, []]);
      // What was narrowed is the sum of what the crowns lack of their targets.
      const lacking = targets.reduce((n, [t, own]) => n + own.widthMm - (made.plan[t]?.widthMm ?? 0), 0);
      const taken = made.narrowed.reduce((n, s) => n + s.takenMm, 0);
      expect(Math.abs(lacking - taken)).toBeLessThan(0.03 * targets.length);
    }
  });

  it('crowns that stay in the plan keep their size where nothing presses, and one that was pushed in is freed', () => {
    const arch = existingArch(readScan(scan(makePatient(RECIPES.Sandpiper), INTRAORAL_SCANNER)));
    const targets = new Map([[21, { lengthMm: 10, widthMm: (arch.teeth.get(21)?.widthMm ?? 0) - 0.4 }]]);
    const before = proposedCrowns(arch, targets).plan;
    const beside = { 13: { ...(before[21] as NonNullable<(typeof before)[21]>), widthMm: 7 } };
    const made = proposedCrowns(arch, targets, beside);
    expect(made.plan[13]?.widthMm).toBe(7);
    const pushed = { ...made.plan, 21: { ...(made.plan[21] as NonNullable<(typeof before)[21]>), distalMm: -0.8 } };
    expect(passing(arch, pushed)).toHaveLength(1);
    expect(passing(arch, roomAmong(arch, pushed).plan)).toEqual([]);
  });
});
