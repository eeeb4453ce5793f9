import { deltaE00, type Lab } from '../colour/lab.js';
import type { Optics } from '../colour/layer.js';
import type { Spectrum } from '../colour/spectrum.js';
import { evenSpectrum } from '../colour/spectrum.js';
import { Refusal } from '../errors.js';
import { colourOver, type Layer } from '../material/appearance.js';
import { ceramicIn } from '../material/ceramics.js';
import { type MeasuredCeramic, measuredOptics } from '../material/measured.js';

/** A composite of a house's list, for what lies under or for the enamel over it. */
export interface CompositeShade {
  readonly id: string;
  readonly name: string;
  readonly use: 'body' | 'enamel';
  readonly optics: Optics;
  /** Read by the house over black and white; else a generic one that is illustrative. */
  readonly asRead: boolean;
}

/** A generic composite: how it scatters, and the shade of a thick block. Illustrative, as the classes of ceramic are. */
interface GenericShade {
  readonly id: string;
  readonly name: string;
  readonly use: CompositeShade['use'];
  readonly scatter: number;
  readonly falls: number;
  readonly block: Lab;
}

/** Bodies are as translucent as dentin and enamels as enamel; all values illustrative. A house reads its own. */
const GENERIC: readonly GenericShade[] = [
  { id: 'body-light', name: 'body, light', use: 'body', scatter: 3.3, falls: 0.5, block: { L: 78, a: 0.5, b: 14 } },
  { id: 'body-middle', name: 'body, middle', use: 'body', scatter: 3.3, falls: 0.5, block: { L: 74, a: 1.8, b: 18 } },
  { id: 'body-warm', name: 'body, warm', use: 'body', scatter: 3.3, falls: 0.5, block: { L: 70, a: 3, b: 22 } },
  { id: 'body-opaque', name: 'body, opaque', use: 'body', scatter: 7, falls: 0.3, block: { L: 75, a: 1.8, b: 18 } },
  {
    id: 'enamel-light',
    name: 'enamel, light',
    use: 'enamel',
    scatter: 2.3,
    falls: 0.8,
    block: { L: 78, a: -0.8, b: 7 },
  },
  {
    id: 'enamel-neutral',
    name: 'enamel, neutral',
    use: 'enamel',
    scatter: 2,
    falls: 0.8,
    block: { L: 74, a: -0.5, b: 9 },
  },
  { id: 'enamel-warm', name: 'enamel, warm', use: 'enamel', scatter: 2.1, falls: 0.8, block: { L: 72, a: 0.6, b: 13 } },
];

let generic: readonly CompositeShade[] | undefined;

/** The generic composites, worked out once. */
export function genericShades(): readonly CompositeShade[] {
  generic ??= GENERIC.map(({ block, scatter, falls, ...own }) => ({
    ...own,
    asRead: false,
    optics: ceramicIn({ scatter, falls }, block),
  }));
  return generic;
}

/**
 * A plate of the house's as a composite: its name says what it is for. @throws Refusal `shade-without-data` where its
 * readings tell nothing
 */
export function shadeOfPlate(plate: MeasuredCeramic): CompositeShade | undefined {
  const use = /\benamel\b/i.test(plate.name) ? 'enamel' : /\b(body|dentin)\b/i.test(plate.name) ? 'body' : undefined;
  if (!use || !/\bcomposite\b/i.test(plate.name)) return undefined;
  try {
    return { id: `own ${plate.name}`, name: plate.name, use, optics: measuredOptics(plate), asRead: true };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    throw new Refusal(
      'shade-without-data',
      `“${plate.name}” has no readings by which its colour can be told: ${error.message}`,
      plate.name,
    );
  }
}

/** What composite is laid over in a zone, and how thick. */
export interface ZoneLayers {
  readonly enamelMm: number;
  readonly bodyMm: number;
  readonly shellMm: number;
  /** Tooth behind, as a reflectance under its surface; nothing where the mouth's dark is behind. */
  readonly behind?: Spectrum | undefined;
}

/** The two schools: one body under one enamel, or two bodies, the deeper one stronger, under one enamel. */
export const SHADE_SCHOOLS = {
  two: 'Two shades: one body, one enamel',
  four: 'Four shades: two bodies and an enamel for each zone',
} as const;
export type ShadeSchool = keyof typeof SHADE_SCHOOLS;

/** What comes nearest in one zone. */
export interface ZoneMix {
  readonly bodies: readonly string[];
  readonly enamel: string;
  readonly lab: Lab;
  readonly dE: number;
}

/** A tenth of a millimetre, by which a hand errs. */
const TENTH_MM = 0.1;
/** Of two bodies the deeper one is this share. Common practice, no source. */
const DEEPER_SHARE = 0.6;
const DARK = evenSpectrum(0.02);

const layersIn = (z: ZoneLayers, bodies: readonly CompositeShade[], enamel: CompositeShade, more = 0): Layer[] => {
  const enamelMm = z.enamelMm + more;
  const bodyMm = Math.max(0, z.bodyMm - more);
  const [outer, inner] = [bodies[0] as CompositeShade, bodies.at(-1) as CompositeShade];
  const all: Layer[] = [
    { optics: enamel.optics, mm: enamelMm },
    ...(bodies.length > 1
      ? [
          { optics: outer.optics, mm: (1 - DEEPER_SHARE) * bodyMm },
          { optics: inner.optics, mm: DEEPER_SHARE * bodyMm },
        ]
      : [{ optics: outer.optics, mm: bodyMm }]),
    { optics: enamel.optics, mm: z.shellMm },
  ];
  return all.filter((l) => l.mm > 1e-6);
};

/** The mixes of a zone, the nearest first. @param school whether one body or two stand under the enamel */
export function mixes(z: ZoneLayers, wanted: Lab, shades: readonly CompositeShade[], school: ShadeSchool): ZoneMix[] {
  const [bodies, enamels] = (['body', 'enamel'] as const).map((use) => shades.filter((s) => s.use === use)) as [
    CompositeShade[],
    CompositeShade[],
  ];
  const sets = school === 'two' ? bodies.map((b) => [b]) : bodies.flatMap((p) => bodies.map((q) => [p, q]));
  return sets
    .flatMap((own) =>
      enamels.map((enamel): ZoneMix => {
        const lab = colourOver(layersIn(z, own, enamel), z.behind ?? DARK);
        return { bodies: own.map((b) => b.id), enamel: enamel.id, lab, dE: deltaE00(lab, wanted) };
      }),
    )
    .sort((a, b) => a.dE - b.dE);
}

/** What a tenth of a millimetre more of enamel, and less of body, does to lightness. */
export function tenthMore(z: ZoneLayers, mix: ZoneMix, shades: readonly CompositeShade[]): number {
  const of = (id: string) => shades.find((s) => s.id === id) as CompositeShade;
  const lab = (more: number) => colourOver(layersIn(z, mix.bodies.map(of), of(mix.enamel), more), z.behind ?? DARK);
  return lab(TENTH_MM).L - lab(0).L;
}

/** What a school comes to over all zones. */
export interface SchoolMix {
  readonly school: ShadeSchool;
  readonly zones: readonly { readonly zone: string; readonly mix: ZoneMix; readonly tenthL: number }[];
  /** The zone that is furthest off. */
  readonly worstDE: number;
}

/**
 * What each school brings over the zones of one tooth. Two shades are the same two in every zone, as that school lays
 * them; four may differ by zone.
 */
export function schools(
  zones: readonly { readonly zone: string; readonly layers: ZoneLayers; readonly wanted: Lab }[],
  shades: readonly CompositeShade[],
): SchoolMix[] {
  if (zones.length === 0) return [];
  const told = (school: ShadeSchool, own: readonly ZoneMix[]): SchoolMix => ({
    school,
    zones: zones.map((z, i) => ({
      zone: z.zone,
      mix: own[i] as ZoneMix,
      tenthL: tenthMore(z.layers, own[i] as ZoneMix, shades),
    })),
    worstDE: Math.max(...own.map((m) => m.dE)),
  });
  const each = zones.map((z) => mixes(z.layers, z.wanted, shades, 'two'));
  const key = (m: ZoneMix) => `${m.bodies.join('+')} ${m.enamel}`;
  const worst = (k: string) => Math.max(...each.map((all) => (all.find((m) => key(m) === k) as ZoneMix).dE));
  const best = (each[0] as ZoneMix[]).map(key).reduce((a, b) => (worst(b) < worst(a) ? b : a));
  return [
    told(
      'two',
      each.map((all) => all.find((m) => key(m) === best) as ZoneMix),
    ),
    told(
      'four',
      zones.map((z) => mixes(z.layers, z.wanted, shades, 'four')[0] as ZoneMix),
    ),
  ];
}
