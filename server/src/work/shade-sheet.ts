import {
  type CaseDetail,
  type ColourReadingInput,
  contourPlan,
  mouthOf,
  type PlateInput,
  readColour,
  readingAt,
  settledOn,
  standingOf,
  standingWords,
  THIRD_OF,
  type ToothCharacter,
  wantedAt,
} from '@radiant/contract';
import {
  ask,
  type CaseEngine,
  CERAMIC_CLASSES,
  cementOf,
  type Fdi,
  type Lab,
  label,
  type Notation,
  nearestShades,
  READING_ZONES,
  type ReadingZone,
  Refusal,
  restorationOf,
  rowOf,
} from '@radiant/core';
import type { Tell } from './tell.js';

/** A reading as a technician is told it. */
export interface ToldColour {
  readonly lab: Lab;
  readonly near: string;
  /** When and how it was read, and what speaks against it. */
  readonly how: string;
  readonly doubtful: boolean;
}

/** One zone of a tooth. */
export interface SheetZone {
  readonly zone: ReadingZone;
  readonly tooth?: ToldColour | undefined;
  readonly stump?: ToldColour | undefined;
  readonly wanted?: Lab | undefined;
  readonly ceramicMm?: number | undefined;
  readonly dE?: { readonly value: number; readonly from: number; readonly to: number } | undefined;
}

/** One tooth of the laboratory's sheet. */
export interface ShadeTooth {
  readonly tooth: Fdi;
  readonly design: string;
  readonly ceramic: string;
  readonly translucency: string;
  readonly texture: string;
  readonly note: string;
  readonly bleaching: string;
  readonly zones: readonly SheetZone[];
}

/** What the laboratory is told of colour, computed; the drawing knows nothing of how. */
export interface ShadeSheet {
  readonly name: string;
  readonly practice: string;
  readonly notation: Notation;
  readonly contour: string;
  readonly wanted: string;
  readonly cement: string;
  readonly teeth: readonly ShadeTooth[];
}

const day = (iso: string) => iso.slice(0, 10);

function told(r: ColourReadingInput | undefined): ToldColour | undefined {
  if (!r) return undefined;
  const near = nearestShades(r)[0];
  const how = [r.wet ? 'wet' : 'DRY, to be read again', day(r.at), r.rough ? 'ROUGH, from a photograph' : r.device]
    .filter(Boolean)
    .join(', ');
  return {
    lab: { L: r.L, a: r.a, b: r.b },
    near: near ? `${near.shade.name}, ${near.dE.toFixed(1)}` : '',
    how,
    doubtful: !r.wet || r.rough === true,
  };
}

/**
 * @param engine holds the scans of the jaws that there are
 * @returns undefined while no planned tooth stands in a scan
 */
export function shadeSheet(
  detail: CaseDetail,
  practice: string,
  notation: Notation,
  engine: CaseEngine,
  plates: readonly PlateInput[],
  tell: Tell = () => undefined,
): ShadeSheet | undefined {
  const { meet, shape, reduce, match } = detail.sections;
  engine.setPlan(contourPlan(shape.data.teeth));
  const there = engine.teeth();
  const teeth = [...rowOf('upper'), ...[...rowOf('lower')].reverse()].filter((t) => there.includes(t));
  if (teeth.length === 0) return undefined;
  const data = match.data;
  const mouth = mouthOf(meet.data);
  const like = data.like ? `like ${label(data.like, notation)} where it was read` : '';
  const shade = data.wanted ? `${data.wanted}${data.wantedColour ? ` of ${data.wantedColour.scale}` : ''}` : '';
  return {
    name: detail.name,
    practice,
    notation,
    contour: `Contour no. ${shape.version}, ${standingWords(standingOf(shape.data.teeth, detail.contours))}`,
    wanted: [shade, like].filter(Boolean).join('; ') || 'not chosen yet',
    cement: cementOf(data.cement).name,
    teeth: teeth.map((tooth, i): ShadeTooth => {
      tell(`Working out ${label(tooth, notation)}`, 0.2 + (0.7 * i) / teeth.length);
      const ceramic = data.own?.find((o) => o.tooth === tooth)?.ceramic ?? data.ceramic;
      const own: Partial<ToothCharacter> = data.character?.find((c) => c.tooth === tooth) ?? {};
      const bleaching = data.bleaching?.find((b) => b.tooth === tooth);
      const from = bleaching && settledOn(bleaching);
      return {
        tooth,
        design: restorationOf(tooth, reduce.data).design.name,
        ceramic: CERAMIC_CLASSES.find((c) => c.id === ceramic)?.name ?? ceramic.replace(/^plate:/, ''),
        translucency: own.translucency ?? '',
        texture: own.texture ?? '',
        note: own.note ?? '',
        bleaching: bleaching
          ? `bleached first, to about ${bleaching.to}; ${from ? `its colour counts from ${from} on` : 'not ended yet: read again before it is made'}`
          : '',
        zones: READING_ZONES.map((zone) => {
          const colour = readColour(data, tooth, zone);
          const asked =
            colour &&
            quietly(() =>
              ask(
                engine,
                'colourOverStump',
                tooth,
                reduce.data,
                { ...colour, third: THIRD_OF[zone], ceramic, plates },
                mouth,
              ),
            );
          const got = asked?.candidates.find((c) => c.ceramic === ceramic);
          return {
            zone,
            tooth: told(readingAt(data, tooth, 'tooth', zone)),
            stump: told(readingAt(data, tooth, 'stump', zone)),
            wanted: wantedAt(data, tooth, zone),
            ceramicMm: asked?.ceramicMm,
            dE: got && { value: got.planned.dE, from: got.from, to: got.to },
          };
        }),
      };
    }),
  };
}

/** What can't be worked out of one zone leaves the others as they are. */
function quietly<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}
