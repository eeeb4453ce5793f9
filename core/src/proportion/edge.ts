import type { Px } from '../smile/calibration.js';
import { lipCurve } from '../smile/lips.js';
import type { EdgeCurve, LengthWish, ValueNorm } from '../smile/norms.js';
import { along, directionDeg } from '../smile/reading.js';
import { LIP_KNOTS, type ViewPoints } from '../smile/views.js';
import { RATIO_CLINICAL } from '../teeth/norms.js';

const say = (mm: number): string => `${mm < 0 ? '−' : ''}${Math.abs(mm).toFixed(1)} mm`;

/** What is known of where the upper edge could stand. mm; left out where it was not measured. */
export interface EdgeFacts {
  /** How much of the lower of the two centrals shows at rest. */
  readonly restMm?: number;
  /** What usually shows, by age, sex and lip; the first one counts. */
  readonly norms: readonly ValueNorm[];
  /** From the edge down to the border of the lower lip in full smile. */
  readonly roomMm?: number;
  readonly overbiteMm?: number;
  /** How far the upper edge stands in front of the lower one. */
  readonly overjetMm?: number;
  /** How much thicker than the teeth's own the edge is planned. */
  readonly thickerMm?: number;
  /** The edges against the lower lip in smile. */
  readonly curve?: EdgeCurve;
  /** What is wished of the teeth's length. */
  readonly wish?: LengthWish | undefined;
}

/**
 * The edge stays above the lower lip's border in a smile by this, so that it meets the lip's moist border in F and V
 * and does not rest on it. Common practice, no source; tried by speaking with the mock-up.
 */
export const SPEECH_MARGIN_MM = 0.5;
/**
 * What more an edge asks that stands far in front, or is made thicker: the lip has to reach around it. Per mm beyond
 * the usual, and never more than so much in all. House values; tried by speaking with the mock-up.
 */
const SPEECH_MORE = { fromOverjetMm: 3.5, perOverjetMm: 0.2, perThicknessMm: 0.5, mostMm: 1 } as const;

/** The room that speech asks between the edge and the lower lip, and what makes it more than usual. */
export interface SpeechRoom {
  readonly mm: number;
  readonly because: readonly string[];
}

/** How far over the lower lip's border in smile an edge should end: by its place in front of the lip and its thickness. */
export function speechRoom({ overjetMm = 0, thickerMm = 0 }: Pick<EdgeFacts, 'overjetMm' | 'thickerMm'>): SpeechRoom {
  const { fromOverjetMm, perOverjetMm, perThicknessMm, mostMm } = SPEECH_MORE;
  const forward = Math.max(0, overjetMm - fromOverjetMm) * perOverjetMm;
  const thick = Math.max(0, thickerMm) * perThicknessMm;
  return {
    mm: SPEECH_MARGIN_MM + Math.min(mostMm, forward + thick),
    because: [
      ...(forward >= 0.05 ? [`the edge stands ${say(overjetMm)} in front of the lower teeth`] : []),
      ...(thick >= 0.05 ? [`it is planned ${say(thickerMm)} thicker`] : []),
    ],
  };
}

/**
 * Further than this over the lower teeth, guidance gets steep and the bite deserves a look. Common practice, no source.
 */
export const DEEP_OVERBITE_MM = 4;

export interface EdgeAdvice {
  /** Down positive, from where the lower central edge stands. */
  readonly edgeMm: number;
  readonly because: readonly string[];
}

/**
 * Where the edge would stand by display at rest, held back by the lower lip in smile. Only lengthening is proposed:
 * teeth that show more than is usual are a matter of taste, and shortening takes enamel.
 */
export function adviseEdge(f: EdgeFacts): EdgeAdvice | undefined {
  const norm = f.norms[0];
  if (!norm || f.restMm === undefined) return undefined;
  const because = [`${say(f.restMm)} show at rest; usual for ${norm.row}: ${say(norm.value)}`];
  if (f.wish) because.push(`${f.wish} teeth are wished for`);
  let mm = norm.value - f.restMm;
  if (mm <= 0) {
    const stays =
      f.wish === 'longer'
        ? 'as much shows as usual or more: the edge may stay; how much longer is tried in the mock-up'
        : 'as much shows as usual or more: the edge may stay';
    return { edgeMm: 0, because: [...because, stays] };
  }
  const speech = speechRoom(f);
  const room = f.roomMm === undefined ? Infinity : f.roomMm - speech.mm;
  if (mm > room) {
    const why = speech.because.length > 0 ? ` (${speech.because.join(', ')})` : '';
    because.push(`the lower lip leaves ${say(Math.max(0, room))}, with ${say(speech.mm)} kept for speech${why}`);
    mm = Math.max(0, room);
  }
  if (f.curve === 'reverse') because.push('the edges run against the lower lip: longer centrals turn the curve');
  return { edgeMm: Math.round(mm * 10) / 10, because };
}

/** What is known of how much gum a smile shows and how short the centrals are. */
export interface GumFacts {
  /** Gum over the centrals in full smile, mm, with its ±; the lower of the two. */
  readonly gumMm?: number;
  readonly gumPm?: number;
  /** Length and width of the centrals, mm, the shorter one's. */
  readonly lengthMm?: number;
  readonly widthMm?: number;
  /** Edge set down in the plan, mm. */
  readonly edgeMm: number;
}

export interface GumAdvice {
  /** Gum moved up, mm. */
  readonly gumMm: number;
  readonly because: readonly string[];
}

/** Gum that may show in a full smile without being told, mm. Common practice, no source. */
const GUM_THAT_MAY_SHOW_MM = 2;
/** More than this is not proposed at the gum in one step, mm: it is a matter of bone and of the lip. House value. */
const GUM_MOST_MM = 3;

/**
 * Where short crowns stand under a high lip the length that is wanted comes at the gum as far as it does not come at
 * the edge: what the width asks by the ratio of living crowns, less what the edge gives, no more than the gum that
 * shows. Undefined where the crowns are long enough, or nothing is known of the gum.
 */
export function adviseGum(f: GumFacts): GumAdvice | undefined {
  if (f.gumMm === undefined || f.lengthMm === undefined || f.widthMm === undefined) return undefined;
  if (f.gumMm - (f.gumPm ?? 0) <= GUM_THAT_MAY_SHOW_MM) return undefined;
  const norm = RATIO_CLINICAL.central;
  const percent = (100 * f.widthMm) / f.lengthMm;
  if (percent <= norm.value + norm.band) return undefined;
  const wanted = (100 * f.widthMm) / norm.value - f.lengthMm;
  const left = wanted - Math.max(0, f.edgeMm);
  if (left < 0.3) return undefined;
  const mm = Math.min(left, f.gumMm, GUM_MOST_MM);
  return {
    gumMm: Math.round(mm * 10) / 10,
    because: [
      `${say(f.gumMm)} of gum show over centrals that are ${percent.toFixed(0)} % as wide as long`,
      `at ${norm.value.toFixed(0)} % they would be ${say(wanted)} longer${f.edgeMm > 0 ? `, ${say(f.edgeMm)} of it at the edge` : ''}`,
      'first find the cement line and the bone with a probe: gum that lies over enamel may be contoured, else bone has to move, and a lip that rises high is another matter',
    ],
  };
}

/** What a planned edge comes to. */
export interface EdgeOutcome {
  readonly restMm?: number;
  readonly roomMm?: number;
  readonly overbiteMm?: number;
  readonly warnings: readonly { readonly weight: 'stop' | 'watch'; readonly text: string }[];
}

/**
 * So much comes off an edge before dentin is likely to be met there, and before the pulp has to be known, mm. Common
 * practice, no source: worn edges have less enamel, and the young a pulp that reaches further.
 */
const EDGE_OFF_MM = { dentin: 1, pulp: 2 } as const;

/** Display, room to the lower lip and overbite with the edge set down by `edgeMm`, and what of it asks for care. */
export function edgeOutcome(f: EdgeFacts, edgeMm: number): EdgeOutcome {
  const by = <K extends 'restMm' | 'roomMm' | 'overbiteMm'>(key: K, sign: 1 | -1) => {
    const v = f[key];
    return v === undefined ? {} : { [key]: v + sign * edgeMm };
  };
  const out: Pick<EdgeOutcome, 'restMm' | 'roomMm' | 'overbiteMm'> = {
    ...by('restMm', 1),
    ...by('roomMm', -1),
    ...by('overbiteMm', 1),
  };
  const speech = speechRoom(f);
  const warnings: EdgeOutcome['warnings'][number][] = [];
  if (out.roomMm !== undefined && out.roomMm < 0)
    warnings.push({
      weight: 'stop',
      text: `The edge would lie ${say(-out.roomMm)} below the border of the lower lip in full smile.`,
    });
  else if (out.roomMm !== undefined && out.roomMm < speech.mm && (edgeMm > 0 || (f.thickerMm ?? 0) > 0))
    warnings.push({
      weight: 'watch',
      text: `Only ${say(out.roomMm)} stay to the lower lip${speech.because.map((b) => `; ${b}`).join('')}: try F and V with the mock-up.`,
    });
  if (-edgeMm >= EDGE_OFF_MM.pulp)
    warnings.push({
      weight: 'stop',
      text: `${say(-edgeMm)} come off the edges: dentin is opened, and how far the pulp lies must be known from a radiograph first. Moving the teeth up, or less, keeps them whole.`,
    });
  else if (-edgeMm >= EDGE_OFF_MM.dentin)
    warnings.push({
      weight: 'watch',
      text: `${say(-edgeMm)} come off the edges: dentin may be met there, sooner on worn teeth.`,
    });
  if (out.overbiteMm !== undefined && out.overbiteMm > DEEP_OVERBITE_MM && edgeMm > 0)
    warnings.push({
      weight: 'watch',
      text: `The upper edge would cover the lower teeth by ${say(out.overbiteMm)}: look at the bite in shape.`,
    });
  return { ...out, warnings };
}

/** The mouth of a smile or at rest, turned so that the line through the corners is level. px of the picture, y down. */
export interface LevelMouth {
  /** Turns a place of the picture into the level one, and back. */
  readonly level: (p: Px) => Px;
  readonly back: (p: Px) => Px;
  readonly corners: readonly [Px, Px];
  readonly upper: (x: number) => number;
  readonly lower: (x: number) => number;
  /** Marked edges by tooth, level. */
  readonly edges: ReadonlyMap<number, Px>;
}

/** The lips and edges of a view; undefined until corners and both borders are marked. */
export function levelMouth(points: ViewPoints): LevelMouth | undefined {
  const [a, b] = [points['corner-right'], points['corner-left']];
  const knots = (which: string) =>
    Array.from({ length: LIP_KNOTS }, (_, i) => points[`${which}-lip-${i + 1}`]).filter(
      (p): p is Px => p !== undefined,
    );
  const [upper, lower] = [knots('upper'), knots('lower')];
  if (!a || !b || upper.length < LIP_KNOTS || lower.length < LIP_KNOTS) return undefined;
  const deg = directionDeg(a, b);
  const level = (p: Px): Px => along(p, a, deg);
  const back = (p: Px): Px => {
    const turned = along(p, [0, 0], -deg);
    return [turned[0] + a[0], turned[1] + a[1]];
  };
  const corners = [level(a), level(b)] as const;
  const edges = new Map<number, Px>();
  for (const [id, p] of Object.entries(points)) {
    const tooth = /^edge-(\d\d)$/.exec(id)?.[1];
    if (tooth && p) edges.set(Number(tooth), level(p));
  }
  return {
    level,
    back,
    corners,
    upper: lipCurve(corners, upper.map(level)),
    lower: lipCurve(corners, lower.map(level)),
    edges,
  };
}

/** From the lower of the two central edges down to the border of the lower lip, px; undefined without them. */
export function roomToLowerLip(m: LevelMouth): number | undefined {
  const rooms = [11, 21].flatMap((t) => {
    const e = m.edges.get(t);
    return e ? [m.lower(e[0]) - e[1]] : [];
  });
  return rooms.length > 0 ? Math.min(...rooms) : undefined;
}
