import {
  type Fdi,
  type LaidSmile,
  type LaidTooth,
  lightOf,
  opposite,
  overThirds,
  screenRgb,
  shownLight,
  type ToothLook,
} from '@radiant/core';

export type Rgb = readonly [number, number, number];
/** Colour of a tooth from edge to neck. */
export type Bands = readonly Rgb[];

export const BANDS = 4;
/** The lightest share of a band's pixels is shine, not colour. */
const SHINE_SHARE = 0.2;
const LEAST_PIXELS = 12;

/** Whose colour a planned crown has: one that is planned alone is made to match its neighbour of the other side. */
export function modelOf(
  tooth: Fdi,
  { planned }: { readonly planned: readonly Pick<LaidSmile['planned'][number], 'tooth'>[] },
): Fdi {
  const other = opposite(tooth);
  return planned.some((t) => t.tooth === other) ? tooth : other;
}

/** Colour of a tooth in the photograph from edge to neck, where enough of it is seen. */
export function bandsOf(t: LaidTooth, pixels: ImageData): Bands | undefined {
  const found: Rgb[][] = Array.from({ length: BANDS }, () => []);
  for (let v = 0; v < t.seen.length; v++) {
    if (!t.seen[v]) continue;
    const x = Math.round(t.places[3 * v] as number);
    const y = Math.round(t.places[3 * v + 1] as number);
    if (x < 0 || y < 0 || x >= pixels.width || y >= pixels.height) continue;
    const at = 4 * (y * pixels.width + x);
    const c: Rgb = [pixels.data[at] as number, pixels.data[at + 1] as number, pixels.data[at + 2] as number];
    // Lips and gum lie before some of it: they are redder than any tooth.
    if (c[0] - c[1] > 60 || c[0] < 60) continue;
    found[Math.min(BANDS - 1, Math.floor((t.height[v] as number) * BANDS))]?.push(
      c.map((q) => q / Math.max(0.5, t.light[v] as number)) as unknown as Rgb,
    );
  }
  return bandsFrom(found);
}

/** How much redder a band may be than the one beside it towards the edge, of its red. A neck is yellower, not pinker. */
const REDDER = 0.03;

/**
 * A tooth's bands from the pixels of each, edge first. A band that is hidden, or that gum, the lip's shadow and their
 * glow have made pink, is taken to look like the nearest below it.
 * @returns nothing where no band has enough pixels
 */
export function bandsFrom(found: readonly (readonly Rgb[])[]): Bands | undefined {
  const bands = found.map((list) => (list.length >= LEAST_PIXELS ? medianOf(withoutShine(list)) : undefined));
  const known = bands.find((b) => b !== undefined);
  if (!known) return undefined;
  let before: Rgb = known;
  return bands.map((b) => {
    if (b && rednessOf(b) <= rednessOf(before) + REDDER) before = b;
    return before;
  });
}

const rednessOf = ([r, g]: Rgb): number => (r - g) / Math.max(1, r);

function withoutShine(list: readonly Rgb[]): Rgb[] {
  const sorted = [...list].sort((p, q) => p[1] - q[1]);
  return sorted.slice(0, Math.max(1, Math.floor(sorted.length * (1 - SHINE_SHARE))));
}

export function medianOf(list: readonly Rgb[]): Rgb | undefined {
  if (list.length === 0) return undefined;
  return [0, 1, 2].map((k) => {
    const s = list.map((c) => c[k as 0] as number).sort((p, q) => p - q);
    return s[s.length >> 1] as number;
  }) as unknown as Rgb;
}

/** The colour at a height, 0 at the edge to 1 at the zenith. */
export function between(bands: Bands, height: number): Rgb {
  const at = Math.min(BANDS - 1, Math.max(0, height * BANDS - 0.5));
  const i = Math.min(BANDS - 2, Math.floor(at));
  const k = Math.min(1, at - i);
  const [a, b] = [bands[i] as Rgb, bands[i + 1] as Rgb];
  return [a[0] + (b[0] - a[0]) * k, a[1] + (b[1] - a[1]) * k, a[2] + (b[2] - a[2]) * k];
}

/**
 * How much more light of each colour the planned tooth turns back than the one that was read, band by band from edge to
 * neck: what a photograph's own colours are multiplied by, whatever light it was taken in.
 * @returns nothing where the tooth itself was not read in all that is predicted
 */
export function tintOf({ thirds }: ToothLook): readonly Rgb[] | undefined {
  const light = (lab: ToothLook['thirds'][number]['lab']) => screenRgb(lab).map(lightOf);
  const of = (third: 'incisal' | 'middle' | 'cervical'): Rgb | undefined => {
    const own = thirds.find((t) => t.third === third) ?? thirds.find((t) => t.third === 'middle') ?? thirds[0];
    if (!own?.before) return undefined;
    const before = light(own.before);
    return light(own.lab).map((v, i) => v / Math.max(0.005, before[i] as number)) as unknown as Rgb;
  };
  const [incisal, middle, cervical] = [of('incisal'), of('middle'), of('cervical')];
  if (!incisal || !middle || !cervical) return undefined;
  return Array.from(
    { length: BANDS },
    (_, band) =>
      [0, 1, 2].map((c) =>
        overThirds(
          { incisal: incisal[c as 0], middle: middle[c as 0], cervical: cervical[c as 0] },
          (band + 0.5) / BANDS,
        ),
      ) as unknown as Rgb,
  );
}

/** Bands of a photograph, 0 to 255, with so much more or less light of each colour. */
export const tinted = (bands: Bands, tint: readonly Rgb[]): Bands =>
  bands.map(
    (b, i) =>
      b.map((v, c) =>
        Math.min(255, 255 * shownLight(Math.min(1, lightOf(v / 255) * ((tint[i] as Rgb)[c as 0] as number)))),
      ) as unknown as Rgb,
  );
