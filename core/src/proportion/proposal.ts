import type { ToothMeasure } from '../smile/measures.js';
import { type FrontKind, LENGTH_UNWORN, WIDTH } from '../teeth/norms.js';
import type { Fdi } from '../teeth/notation.js';
import { OWN_ROLES, type Roles } from '../teeth/roles.js';
import { SCANNED_SIZE_PM_MM } from '../working/accuracy.js';
import {
  COMMON_PRACTICE,
  DERIVED,
  derived,
  derivedEach,
  type Figure,
  MEASURED,
  type WorkingInput,
} from '../working/working.js';
import {
  clearly,
  notesOnClosedGaps,
  notesOnGum,
  notesOnRatios,
  notesOnReference,
  notesOnRow,
  notesOnSpace,
} from './notes.js';
import { type InRow, rowOf } from './row.js';
import { ratioByHeight, widthRule } from './schools.js';
import { shareSpace, type WidthWish } from './share-space.js';
import { type Proposal, type ProposalChoice, sum, type ToothTarget, WIDTH_BAND } from './target.js';

/** Lateral edges above those of the centrals, mm. Common practice, no source. */
export const LATERAL_EDGE_UP_MM = 0.5;

/**
 * Targets for the upper front by the chosen school: for the six teeth, or for those in their places where some are
 * missing, or for some of them alone. Length comes at the edge and, where it is asked for, at the gum. Widths fill the
 * space from the first to the last tooth of the row, in bands about their wishes, or from first premolar to first
 * premolar where these take part; teeth that are not in the plan keep their room. What could not be kept is told with
 * the amount.
 * @param measures `usedMeasures`, where there is a scan
 * @param gaps sum of the gaps between the teeth of the row along the arch, mm (0 where teeth touch)
 * @param roles where teeth stand in another's place
 * @returns undefined while no tooth of the plan is measured
 */
export function propose(
  measures: readonly ToothMeasure[],
  asked: ProposalChoice,
  gaps: Figure,
  roles: Roles = OWN_ROLES,
): Proposal | undefined {
  const row = rowOf(measures, asked, roles);
  if (row.every((t) => t.stays)) return undefined;
  const space = spaceFigure(row, asked.gaps === 'keep' ? NO_GAPS : gaps);
  const gumMm = asked.gumMm ?? 0;
  const reference =
    asked.school === 'reference' ? (row.find((t) => t.tooth === asked.referenceTooth) ?? (row[0] as InRow)) : undefined;
  const lengths = new Map(
    row.map((t) => [
      t.tooth,
      t.stays
        ? t.is.length
        : reference
          ? lengthFromReference(reference, t, asked.edgeMm + gumMm)
          : lengthFromEdge(t, asked.edgeMm, gumMm),
    ]),
  );
  const choice = withRatio(asked, row, lengths, space);
  const beside = choice.premolars
    ? [
        { tooth: 14, isMm: choice.premolars.right },
        { tooth: 24, isMm: choice.premolars.left },
      ].filter((p) => !row.some((t) => t.tooth === p.tooth))
    : [];
  const room = beside.length > 0 ? withPremolars(space, beside) : space;
  const alike = choice.alike !== false;
  const besideMm = sum(beside.map((p) => p.isMm));
  // All widths follow from the room, the lengths and the widths there are: so do their errors.
  const from = [space, ...row.map((t) => lengths.get(t.tooth) as Figure), ...row.map((t) => t.is.width)];
  const wishesAt = (values: readonly number[]): WidthWish[] => [
    ...wishesOf(row, choice, reference, {
      spaceMm: values[0] as number,
      lengthMm: (t) => values[1 + row.indexOf(t)] as number,
      widthMm: (t) => values[1 + row.length + row.indexOf(t)] as number,
    }),
    // A premolar's wish is to stay as it is; it gives or takes like the others, in its band.
    ...beside.map(({ tooth, isMm }) => ({
      tooth,
      wishMm: isMm,
      minMm: isMm * (1 - WIDTH_BAND),
      maxMm: isMm * (1 + WIDTH_BAND),
    })),
  ];
  const wishes = wishesAt(from.map((f) => f.value));
  const shared = shareSpace(wishes, room.value, alike);
  const widths = derivedEach(
    from,
    row.map((t) => t.tooth),
    (values) => shareSpace(wishesAt(values), (values[0] as number) + besideMm, alike).widths,
  );
  const wishOf = (tooth: Fdi) => (wishes.find((w) => w.tooth === tooth) as WidthWish).wishMm;
  const locked = choice.locked ?? {};
  const targets = row.map((t): ToothTarget => {
    const { tooth, role, stays, is } = t;
    const length = lengths.get(tooth) as Figure;
    const width = stays
      ? is.width
      : sharedWidth(wishOf(tooth), widths.get(tooth) as Figure, space, locked[tooth] !== undefined);
    const gum = reference && !stays ? gumFromReference(reference, t, length, choice.edgeMm) : undefined;
    return { tooth, role, stays, length, width, ratio: ratioOf(width, length), ...(gum && { gumMm: gum }) };
  });
  return {
    targets,
    space: room,
    notes: [
      ...notesOnRow(row, choice, reference),
      ...notesOnSpace(wishes, shared, room),
      ...notesOnRatios(targets, choice),
      ...notesOnClosedGaps(targets, choice, gaps),
      ...notesOnGum(Math.max(gumMm, ...targets.map((t) => clearly(t.gumMm)))),
      ...notesOnReference(targets),
    ],
    ...(choice.school === 'recurring' && choice.ratio !== undefined && { recurring: choice.ratio }),
    ...(beside.length > 0 && {
      premolars: beside.map((p) => ({ ...p, widthMm: shared.widths.get(p.tooth) as number })),
    }),
  };
}

const NO_GAPS: Figure = { value: 0, pm: 0, unit: 'mm', working: { formula: 'gaps are kept', inputs: [] } };

/** The recurring ratio follows the height of the centrals while nobody has set one. */
function withRatio(
  choice: ProposalChoice,
  row: readonly InRow[],
  lengths: ReadonlyMap<Fdi, Figure>,
  space: Figure,
): ProposalChoice {
  const centrals = row.filter((t) => t.role === 'central').map((t) => (lengths.get(t.tooth) as Figure).value);
  if (choice.school !== 'recurring' || choice.ratio !== undefined || centrals.length === 0) return choice;
  return { ...choice, ratio: ratioByHeight(space.value, sum(centrals) / centrals.length) };
}

/** What widths are wished from, mm. */
interface WishedFrom {
  readonly spaceMm: number;
  readonly lengthMm: (t: InRow) => number;
  readonly widthMm: (t: InRow) => number;
}

/** The tooth of the row that stands for the same kind on the other side. */
const fellowIn = (row: readonly InRow[], t: InRow): InRow | undefined =>
  row.find((o) => o.role === t.role && o.tooth !== t.tooth && o.tooth < 20 !== t.tooth < 20);

/** What each tooth of the row wishes of the room, how far it may go, and what holds it. */
function wishesOf(
  row: readonly InRow[],
  choice: ProposalChoice,
  reference: InRow | undefined,
  from: WishedFrom,
): WidthWish[] {
  const locked = choice.locked ?? {};
  const held = reference ? [reference.tooth, fellowIn(row, reference)?.tooth] : [];
  return row.map((t): WidthWish => {
    const fellow = fellowIn(row, t);
    const wished = reference
      ? (from.widthMm(reference) * WIDTH[t.role].value) / WIDTH[reference.role].value
      : widthBySchool(choice, t, row, from);
    // Beside a fellow that stays, being alike means to be like that one.
    const model = choice.alike !== false && fellow?.stays ? from.widthMm(fellow) : wished;
    const wishMm = t.stays ? from.widthMm(t) : model;
    const lockedMm = t.stays ? wishMm : (locked[t.tooth] ?? (held.includes(t.tooth) ? wishMm : undefined));
    return {
      tooth: t.tooth,
      wishMm,
      minMm: wishMm * (1 - WIDTH_BAND),
      maxMm: wishMm * (1 + WIDTH_BAND),
      ...(lockedMm !== undefined && { lockedMm }),
      fellow: fellow && !fellow.stays ? fellow.tooth : t.tooth,
    };
  });
}

/**
 * The width that a school wishes, mm. Schools of shares are laid over the space there is; those of ratios follow each
 * pair's length.
 */
function widthBySchool(choice: ProposalChoice, t: InRow, row: readonly InRow[], from: WishedFrom): number {
  const rule = widthRule(choice);
  if (rule.ratios) {
    const pair = row.filter((o) => o.role === t.role).map(from.lengthMm);
    return ((sum(pair) / pair.length) * rule.ratios[t.role]) / 100;
  }
  // Population widths are millimetres of their own; every other share is laid over the space.
  if (choice.school === 'population') return WIDTH[t.role].value;
  const shares = rule.shares as Readonly<Record<FrontKind, number>>;
  return (from.spaceMm * shares[t.role]) / sum(row.map((o) => shares[o.role]));
}

const round = (v: number) => Math.round(v * 100) / 100;

function spaceFigure(row: readonly InRow[], gaps: Figure): Figure {
  const teeth = row.map((t) => t.is);
  return derived(
    [...teeth.map((m) => m.width), gaps],
    'mm',
    {
      formula: 'space = sum of the crown widths + gaps between them',
      inputs: [
        ...teeth.map(
          (m): WorkingInput => ({
            name: `width of ${m.tooth}`,
            value: round(m.width.value),
            unit: 'mm',
            source: MEASURED,
          }),
        ),
        { name: 'gaps', value: round(gaps.value), unit: 'mm', source: MEASURED },
      ],
    },
    sum,
  );
}

function withPremolars(space: Figure, beside: readonly { readonly tooth: Fdi; readonly isMm: number }[]): Figure {
  return derived(
    [space, ...beside.map((p) => ({ value: p.isMm, pm: SCANNED_SIZE_PM_MM }))],
    'mm',
    {
      ...space.working,
      formula: 'space = sum of the crown widths + gaps between them + widths of the first premolars',
      inputs: [
        ...space.working.inputs,
        ...beside.map(
          (p): WorkingInput => ({ name: `width of ${p.tooth}`, value: round(p.isMm), unit: 'mm', source: MEASURED }),
        ),
      ],
    },
    sum,
  );
}

function lengthFromEdge({ is: m, role }: InRow, edgeMm: number, gumMm: number): Figure {
  const up = edgeUpOf(role);
  return derived(
    [m.zenithLevel, m.length, m.edgeLevel],
    'mm',
    {
      formula: 'length = zenith level + gum moved up + edge set down − edge of this kind above the centrals’',
      inputs: [
        { name: 'zenith over the lower central edge', value: round(m.zenithLevel.value), unit: 'mm', source: MEASURED },
        { name: 'edge set down', value: edgeMm, unit: 'mm', source: { mark: 'house', text: 'set in this plan' } },
        { name: 'gum moved up', value: gumMm, unit: 'mm', source: { mark: 'house', text: 'set in this plan' } },
        { name: 'edge above the centrals’', value: up, unit: 'mm', source: COMMON_PRACTICE },
      ],
      note: [
        gumMm === 0 ? 'The gum line is kept; length comes at the edge.' : 'Length comes at the edge and at the gum.',
        m.zenithLevel.working.note,
      ]
        .filter(Boolean)
        .join(' '),
    },
    // What the photograph foreshortens of this tooth's length is put back in the same share.
    ([zenith, length, edge]) =>
      (((zenith as number) + gumMm + edgeMm - up) * (length as number)) / ((zenith as number) - (edge as number)),
  );
}

/** Edges of a kind above those of the centrals, mm. */
const edgeUpOf = (role: FrontKind): number => (role === 'lateral' ? LATERAL_EDGE_UP_MM : 0);

/**
 * How far the gum would have to move up so that a tooth has its length over the reference tooth's edge, mm; down where
 * negative.
 */
function gumFromReference(reference: InRow, t: InRow, length: Figure, edgeMm: number): Figure {
  const up = edgeUpOf(t.role) - edgeUpOf(reference.role);
  return derived(
    [reference.is.edgeLevel, length, t.is.zenithLevel, t.is.edgeLevel, t.is.length],
    'mm',
    {
      formula: 'gum moved up = edge of the reference tooth, set down, + length of this tooth − where its zenith stands',
      inputs: [
        {
          name: `edge level of ${reference.tooth}`,
          value: round(reference.is.edgeLevel.value),
          unit: 'mm',
          source: MEASURED,
        },
        { name: 'edge set down', value: edgeMm, unit: 'mm', source: { mark: 'house', text: 'set in this plan' } },
        { name: 'target length', value: round(length.value), unit: 'mm', source: DERIVED },
        { name: 'zenith level', value: round(t.is.zenithLevel.value), unit: 'mm', source: MEASURED },
        { name: 'edge above the reference’s', value: up, unit: 'mm', source: COMMON_PRACTICE },
      ],
    },
    // Along the upright a tooth that leans is shorter than its crown.
    ([edge, target, zenith, ownEdge, own]) => {
      const upright = ((zenith as number) - (ownEdge as number)) / (own as number);
      return (edge as number) - edgeMm + up + (target as number) * upright - (zenith as number);
    },
  );
}

function lengthFromReference({ is: reference, role }: InRow, t: InRow, edgeMm: number): Figure {
  const from = LENGTH_UNWORN[role];
  const to = LENGTH_UNWORN[t.role];
  const share = to.value / from.value;
  return derived(
    [reference.length],
    'mm',
    {
      formula:
        'length = (length of the reference tooth + edge set down) × norm of this kind ÷ norm of the reference’s kind',
      inputs: [
        { name: `length of ${reference.tooth}`, value: round(reference.length.value), unit: 'mm', source: MEASURED },
        { name: 'edge set down', value: edgeMm, unit: 'mm', source: { mark: 'house', text: 'set in this plan' } },
        { name: 'norms', value: `${to.value} ÷ ${from.value}`, unit: 'mm', source: to.source },
      ],
    },
    ([length]) => ((length as number) + edgeMm) * share,
  );
}

function sharedWidth(wish: number, width: Figure, space: Figure, locked: boolean): Figure {
  return {
    ...width,
    working: {
      formula: locked
        ? 'width set by hand'
        : 'nearest to the wishes that fills the space: width = wished width × (1 + λ), in its band',
      inputs: [
        { name: 'wished width', value: round(wish), unit: 'mm', source: DERIVED },
        { name: 'space', value: round(space.value), unit: 'mm', source: DERIVED },
        { name: 'gives way by', value: round((100 * (width.value - wish)) / wish), unit: '%', source: DERIVED },
        { name: 'band', value: `±${WIDTH_BAND * 100}`, unit: '%', source: { mark: 'house', text: 'house preference' } },
      ],
    },
  };
}

function ratioOf(width: Figure, length: Figure): Figure {
  return derived(
    [width, length],
    '%',
    {
      formula: 'width ÷ length',
      inputs: [
        { name: 'target width', value: round(width.value), unit: 'mm', source: DERIVED },
        { name: 'target length', value: round(length.value), unit: 'mm', source: DERIVED },
      ],
    },
    ([w, l]) => (100 * (w as number)) / (l as number),
  );
}

/**
 * The recurring front-view ratio: widths of central, lateral and canine as seen from the front when each is k times the
 * one before it, for W mm from canine to canine. central = W ÷ (2 (1 + k + k²)) (Ward 2001, from memory).
 */
export function recurringWidths(frontMm: number, k: number): { central: number; lateral: number; canine: number } {
  const central = frontMm / (2 * (1 + k + k * k));
  return { central, lateral: k * central, canine: k * k * central };
}
