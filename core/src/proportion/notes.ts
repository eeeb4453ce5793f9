import { LEVEL_NOTE } from '../smile/level.js';
import { kindOf } from '../teeth/notation.js';
import { type Figure, published } from '../working/working.js';
import type { InRow } from './row.js';
import { ratioNormsOf } from './schools.js';
import type { SharedSpace, WidthWish } from './share-space.js';
import { type ProposalChoice, sum, type ToothTarget, WIDTH_BAND } from './target.js';

// What is said of a proposal beside its numbers: sentences; `{11}` stands for a tooth number.

/**
 * From the gum's margin to the bone, mm: sulcus, epithelium and connective tissue (Gargiulo, Wentz, Orban 1961, from
 * memory).
 */
const MARGIN_TO_BONE = {
  value: 2.73,
  sulcus: 0.69,
  source: published('Gargiulo, Wentz, Orban 1961, J Periodontol 32:261'),
} as const;

/** A figure beyond its own error, else nothing. */
export const clearly = (f: Figure | undefined): number => (f && Math.abs(f.value) > f.pm ? f.value : 0);

/**
 * How far the gum of a target moves up, mm: as the reference tooth asks, where it asks for more than the error; else as
 * the whole line is moved.
 */
export const gumUpOf = (t: ToothTarget, gumMm: number): number => (t.gumMm ? Math.max(0, clearly(t.gumMm)) : gumMm);

/** What is to be known of which teeth the targets are for. */
export function notesOnRow(row: readonly InRow[], choice: ProposalChoice, reference: InRow | undefined): string[] {
  const notes = row.flatMap((t) =>
    t.role === kindOf(t.tooth)
      ? []
      : [`{${t.tooth}} stands for a ${t.role}, in the place of the tooth that is missing.`],
  );
  if (reference && reference.tooth !== choice.referenceTooth)
    notes.push(`{${choice.referenceTooth}} is not measured: {${reference.tooth}} is the reference in its place.`);
  const places = row.map((t) => `${t.tooth < 20 ? 'right' : 'left'} ${t.role}`);
  const lacking = ['right', 'left']
    .flatMap((side) => (['central', 'lateral', 'canine'] as const).map((k) => `${side} ${k}`))
    .filter((p) => !places.includes(p));
  if (lacking.length > 0) notes.push(`Not measured, and left out of the space: ${lacking.join(', ')}.`);
  // What is planned level is level with this.
  const level = row[0]?.is.zenithLevel.working.note;
  if (level === LEVEL_NOTE.teeth || level === LEVEL_NOTE.scan) notes.push(level);
  return notes;
}

/** Widths that differ by less are one, mm. */
const SAME_MM = 0.005;

/** What of the wishes could not be kept, and by how much. */
export function notesOnSpace(wishes: readonly WidthWish[], shared: SharedSpace, space: Figure): string[] {
  const notes: string[] = [];
  const free = wishes.filter((w) => w.lockedMm === undefined);
  const wanted = sum(wishes.map((w) => w.lockedMm ?? w.wishMm));
  const over = wanted - space.value;
  const share = sum(free.map((w) => w.wishMm));
  const percent = share > 0 ? (100 * over) / share : 0;
  if (Math.abs(percent) >= 1) {
    notes.push(
      over > 0
        ? `The wished widths are ${over.toFixed(1)} mm more than the space of ${space.value.toFixed(1)} mm; those not held give way by ${Math.abs(percent).toFixed(0)} %.`
        : `The wished widths leave ${(-over).toFixed(1)} mm of the space of ${space.value.toFixed(1)} mm; those not held take it up by ${Math.abs(percent).toFixed(0)} %.`,
    );
  }
  // A band is told with the wish that it lies about: 10 mm may be the least that a wish of 11.8 mm allows.
  const ends = new Map<string, string[]>();
  for (const { tooth, wishMm } of wishes) {
    const end = shared.atEnd.get(tooth);
    const width = shared.widths.get(tooth);
    const least = wishMm * (1 + (end === 'min' ? -WIDTH_BAND : WIDTH_BAND));
    // One that is kept like its fellow may stand at the end of the other's band.
    if (!end || width === undefined || Math.abs(width - least) > SAME_MM) continue;
    const said = `${width.toFixed(1)} mm, the ${end === 'min' ? 'least' : 'most'} that ±${WIDTH_BAND * 100} % about the wish of ${wishMm.toFixed(1)} mm allows`;
    ends.set(said, [...(ends.get(said) ?? []), `{${tooth}}`]);
  }
  for (const [said, teeth] of ends)
    notes.push(`${teeth.join(', ')} ${teeth.length === 1 ? 'comes' : 'come'} to ${said}.`);
  if (shared.leftMm > 0)
    notes.push(
      `${shared.leftMm.toFixed(1)} mm of the space can’t be filled within the bands: gaps stay, or a tooth is locked wider.`,
    );
  if (shared.leftMm < 0)
    notes.push(
      `The teeth need ${(-shared.leftMm).toFixed(1)} mm more than there is, even at their narrowest: move teeth first, or lock some narrower.`,
    );
  return notes;
}

export function notesOnRatios(targets: readonly ToothTarget[], choice: ProposalChoice): string[] {
  const norms = ratioNormsOf(choice.school);
  return targets.flatMap((t) => {
    if (t.stays) return [];
    const norm = norms.of[t.role];
    const d = t.ratio.value - norm.value;
    if (Math.abs(d) <= norm.band) return [];
    return [
      `{${t.tooth}} comes to ${t.ratio.value.toFixed(0)} %, ${Math.abs(d).toFixed(0)} points ${d > 0 ? 'above' : 'below'} the ${norm.value.toFixed(0)} % of ${norms.words}.`,
    ];
  });
}

/**
 * Teeth that take up a gap grow broader, and want to be longer for it: how much that is where the school's lengths do
 * not give it.
 */
export function notesOnClosedGaps(targets: readonly ToothTarget[], choice: ProposalChoice, gaps: Figure): string[] {
  if (choice.gaps === 'keep' || gaps.value <= gaps.pm || gaps.value === 0) return [];
  const norms = ratioNormsOf(choice.school);
  return targets.flatMap((t) => {
    const norm = norms.of[t.role];
    if (t.stays || t.ratio.value - norm.value <= norm.band) return [];
    const wanted = (100 * t.width.value) / norm.value - t.length.value;
    return [
      `{${t.tooth}} grows to ${t.width.value.toFixed(1)} mm as the gaps close: ${norm.value.toFixed(0)} % of ${norms.words} want ${wanted.toFixed(1)} mm more length, at the edge or at the gum.`,
    ];
  });
}

/** The usual caution where the gum is moved. */
export function notesOnGum(gumMm: number): string[] {
  if (gumMm <= 0) return [];
  const { value, sulcus, source } = MARGIN_TO_BONE;
  return [
    gumMm <= sulcus
      ? `The gum moves up ${gumMm.toFixed(1)} mm: within a usual sulcus of ${sulcus} mm. Probe each tooth first.`
      : `The gum moves up ${gumMm.toFixed(1)} mm, more than a usual sulcus: the new margin must keep about ${value.toFixed(1)} mm to the bone, so bone is probed and may have to move, and tissue heals before impressions (${source.text}). The treating clinician decides.`,
  ];
}

/** Where a reference tooth's length does not fit between its edge and the gum. */
export function notesOnReference(targets: readonly ToothTarget[]): string[] {
  return targets.flatMap((t) => {
    const mm = clearly(t.gumMm);
    if (!t.gumMm || mm === 0) return [];
    const by = `${Math.abs(mm).toFixed(1)} ±${t.gumMm.pm.toFixed(1)} mm`;
    return [
      mm > 0
        ? `{${t.tooth}}: for this edge and length the gum moves up by ${by}.`
        : `{${t.tooth}}: for this edge and length the gum would have to come down by ${by}; the plan can’t do that, its edge comes out higher.`,
    ];
  });
}
