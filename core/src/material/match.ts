import { deltaE00, type Lab } from '../colour/lab.js';
import { throughSurface } from '../colour/layer.js';
import type { LightId } from '../colour/observer.js';
import { smoothestSpectrum } from '../colour/recover.js';
import { labOf, type Spectrum } from '../colour/spectrum.js';
import { Refusal } from '../errors.js';
import {
  type AtThickness,
  colourOver,
  hidesFrom,
  type Layer,
  layersOf,
  overThickness,
  stumpFrom,
  translucency,
} from './appearance.js';
import { CEMENT_MM, CEMENTS, type Cement, cementOf } from './cement.js';
import { CERAMIC_CLASSES, type Ceramic, ceramicIn, ceramicOfClass } from './ceramics.js';
import { type Deeper, deeper, stumpAfter, type ToothColour } from './deeper.js';
import { dentinUnder, type EnamelGuess } from './dentin.js';
import type { CementId } from './ids.js';

/** What is asked of one zone of one tooth. Colours as read, wet, under D65. */
export interface MatchQuestion {
  /** The tooth before it is cut, and the stump after; one of the two at least. */
  readonly tooth?: Lab | undefined;
  readonly stump?: Lab | undefined;
  /** Reflectances where they were measured, in the place of the colours. */
  readonly toothSpectrum?: readonly number[] | undefined;
  readonly stumpSpectrum?: readonly number[] | undefined;
  readonly wanted: Lab;
  readonly cement: CementId;
  /** Enamel that lies there, mm, before anything is cut. */
  readonly enamelMm: number;
  /** What is to be cut there, and how thick the ceramic is then; what the plan adds is the rest, mm. */
  readonly cutMm: number;
  readonly ceramicMm: number;
  /** A colour of the two is only rough, as from a photograph. */
  readonly rough?: boolean | undefined;
}

/** One ceramic over the stump of a zone. */
export interface Candidate {
  readonly ceramic: string;
  readonly name: string;
  /** It has a shade of its own and not the wanted one. */
  readonly asRead: boolean;
  /** Over thickness, the cut left as it is planned. */
  readonly curve: readonly AtThickness[];
  /** At the planned thickness, with a band for the errors of reading and thickness. */
  readonly planned: AtThickness;
  readonly from: number;
  readonly to: number;
  /** The same under a warm lamp: its difference to what is wanted there. */
  readonly warmDE: number;
  readonly warm: Lab;
  /** From which thickness on a stump of the wanted colour would look the same, mm; nothing where the stump always shows. */
  readonly hidesFromMm?: number | undefined;
  /** Of a millimetre. */
  readonly translucency: number;
}

/** The cements under the planned thickness of one ceramic. */
export interface UnderCement {
  readonly cement: CementId;
  readonly name: string;
  readonly lab: Lab;
  readonly dE: number;
}

/** What comes of it. */
export interface Match {
  /** The stump as it is taken for after the cut. */
  readonly stump: Lab;
  /** It was read; else it is worked out from the tooth before it is cut, which says little of the dentin. */
  readonly stumpRead: boolean;
  /** What is wanted as it looks under a warm lamp, against that lamp's own white. */
  readonly wantedWarm: Lab;
  readonly candidates: readonly Candidate[];
}

/**
 * Half-widths of the 95 % interval: of a colorimeter in each of L*, a*, b*, of a photograph with a grey card, and of a
 * ceramic's thickness. House values.
 */
export const MATCH_PM = { lab: 1, rough: 4, mm: 0.05 } as const;

/** A reading as a reflectance under its surface. @throws Refusal `spectrum-wrong` where no body has the colour */
function underOf(lab: Lab, measured: readonly number[] | undefined): Spectrum {
  const seen = measured ? Float64Array.from(measured) : smoothestSpectrum(lab);
  if (!seen) throw new Refusal('spectrum-wrong', `No body has the colour ${lab.L} ${lab.a} ${lab.b}; read it again.`);
  return stumpFrom(seen);
}

/** A tooth before it is cut, as it is taken for. */
function toothOf({ tooth, toothSpectrum, enamelMm }: MatchQuestion, guess: EnamelGuess): ToothColour | undefined {
  if (!tooth) return undefined;
  return { surface: underOf(tooth, toothSpectrum), enamelMm, ...dentinUnder(tooth, enamelMm, guess) };
}

/** The stump after the planned cut. @throws Refusal `reading-missing` where neither tooth nor stump was read */
function stumpOf(q: MatchQuestion): Spectrum {
  if (q.stump) return underOf(q.stump, q.stumpSpectrum);
  const tooth = toothOf(q, 'middle');
  if (!tooth) throw new Refusal('reading-missing', 'Read the tooth before it is cut, or the stump after, wet.');
  return stumpAfter(tooth, q.cutMm);
}

/** The generic classes, each in the wanted shade. */
const CLASSES: readonly Ceramic[] = CERAMIC_CLASSES.map(ceramicOfClass);

const cementLayer = (cement: Cement): Layer => ({ optics: ceramicIn(cement, cement.shade), mm: CEMENT_MM });

/**
 * Each ceramic in the wanted shade over the stump of a zone: the colour over thickness, at the planned one with its
 * band, from where on the stump is hidden.
 * @throws Refusal `reading-missing`, `spectrum-wrong`
 */
export function matched(q: MatchQuestion, ceramics: readonly Ceramic[] = CLASSES): Match {
  const stump = stumpOf(q);
  const wantedSpectrum = smoothestSpectrum(q.wanted);
  const usual = underOf(q.wanted, undefined);
  const under = [cementLayer(cementOf(q.cement))];
  const wantedWarm = wantedSpectrum ? labOf(wantedSpectrum, 'A') : q.wanted;
  const shifted = (own: Spectrum, lab: Lab): Spectrum => {
    const moved = smoothestSpectrum(lab);
    return moved ? stumpFrom(moved) : own;
  };
  const seen = labOf(throughSurface(stump));
  const pm = q.rough ? MATCH_PM.rough : MATCH_PM.lab;
  const moves = (['L', 'a', 'b'] as const).map((c) =>
    ([1, -1] as const).map((way) => shifted(stump, { ...seen, [c]: seen[c] + way * pm })),
  );
  return {
    stump: seen,
    stumpRead: q.stump !== undefined,
    wantedWarm,
    candidates: ceramics.map((c): Candidate => {
      const ceramic = c.madeIn(q.wanted);
      const at = (mm: number, over: Spectrum, light: LightId = 'D65') =>
        colourOver([...layersOf(ceramic, mm), ...under], over, light);
      const dE = (mm: number, over: Spectrum) => deltaE00(at(mm, over), q.wanted);
      const lab = at(q.ceramicMm, stump);
      const own = deltaE00(lab, q.wanted);
      // Each error by itself, then together as the root of the sum of squares.
      const halves = [
        ...moves.map((pair) => pair.map((s) => dE(q.ceramicMm, s) - own)),
        [MATCH_PM.mm, -MATCH_PM.mm].map((d) => dE(Math.max(0.05, q.ceramicMm + d), stump) - own),
      ];
      const out = (worst: (a: number, b: number) => number, sign: 1 | -1) =>
        Math.sqrt(halves.reduce((sum, [a, b]) => sum + Math.max(0, sign * worst(a as number, b as number)) ** 2, 0));
      const warm = at(q.ceramicMm, stump, 'A');
      return {
        ceramic: c.id,
        name: c.name,
        asRead: c.asRead,
        curve: overThickness(ceramic, under, stump, q.wanted),
        planned: { mm: q.ceramicMm, lab, dE: own },
        from: Math.max(0, own - out(Math.min, -1)),
        to: own + out(Math.max, 1),
        warm,
        warmDE: deltaE00(warm, wantedWarm),
        hidesFromMm: hidesFrom(ceramic, under, stump, usual),
        translucency: translucency(ceramic, 1),
      };
    }),
  };
}

/** The cements under one ceramic at the planned thickness, the nearest first. @throws Refusal as `matched` */
export function underCements(q: MatchQuestion, ceramic: Ceramic): UnderCement[] {
  const stump = stumpOf(q);
  const made = ceramic.madeIn(q.wanted);
  return CEMENTS.map((c): UnderCement => {
    const lab = colourOver([...layersOf(made, q.ceramicMm), cementLayer(c)], stump);
    return { cement: c.id, name: c.name, lab, dE: deltaE00(lab, q.wanted) };
  }).sort((a, b) => a.dE - b.dE);
}

/** How far one ceramic is from what is wanted as thick as it is planned, ΔE00. @throws Refusal as `matched` */
export function plannedDifference(q: MatchQuestion, ceramic: Ceramic): number {
  const layers = [...layersOf(ceramic.madeIn(q.wanted), q.ceramicMm), cementLayer(cementOf(q.cement))];
  return deltaE00(colourOver(layers, stumpOf(q)), q.wanted);
}

/** Thicknesses at which a place of a restoration is looked up, mm: from nothing to more than any is. */
const LOOKED_UP = Array.from({ length: 26 }, (_, i) => i / 10);

/** How one ceramic looks over one stump from nothing on, and how much of the stump is seen through it. */
export interface Through {
  readonly labs: readonly Lab[];
  /** ΔE00 to the same over a stump of the wanted colour. */
  readonly shows: readonly number[];
}

/** @throws Refusal as `matched` */
export function throughCeramic(q: MatchQuestion, ceramic: Ceramic): Through {
  const [stump, usual] = [stumpOf(q), underOf(q.wanted, undefined)];
  const made = ceramic.madeIn(q.wanted);
  const under = cementLayer(cementOf(q.cement));
  const at = (mm: number, over: Spectrum) => colourOver([...(mm > 0 ? layersOf(made, mm) : []), under], over);
  const labs = LOOKED_UP.map((mm) => at(mm, stump));
  return { labs, shows: labs.map((lab, i) => deltaE00(lab, at(LOOKED_UP[i] as number, usual))) };
}

/** A place of it between the thicknesses that were worked out, mm. */
export function lookedUp({ labs, shows }: Through, mm: number): { readonly lab: Lab; readonly shows: number } {
  const x = Math.min(LOOKED_UP.length - 1.001, Math.max(0, 10 * mm));
  const [i, k] = [Math.floor(x), x - Math.floor(x)];
  const [p, q] = [labs[i] as Lab, labs[i + 1] as Lab];
  const mix = (a: number, b: number) => a + (b - a) * k;
  return {
    lab: { L: mix(p.L, q.L), a: mix(p.a, q.a), b: mix(p.b, q.b) },
    shows: mix(shows[i] as number, shows[i + 1] as number),
  };
}

/** How deep is looked for the turn of a dark stump, mm. House value. */
const LOOK_MM = 2;

/**
 * Cutting deeper for thicker ceramic over a tooth that was read before it was cut, for each guess of its enamel; nothing
 * where only the stump was read. @throws Refusal as `matched`
 */
export function cuttingDeeper(q: MatchQuestion, ceramic: Ceramic): Readonly<Record<EnamelGuess, Deeper>> | undefined {
  if (!q.tooth) return undefined;
  const made = ceramic.madeIn(q.wanted);
  const under = [cementLayer(cementOf(q.cement))];
  const added = Math.max(0, q.ceramicMm - q.cutMm);
  const of = (guess: EnamelGuess) => deeper(toothOf(q, guess) as ToothColour, made, under, q.wanted, added, LOOK_MM);
  return { least: of('least'), middle: of('middle'), most: of('most') };
}
