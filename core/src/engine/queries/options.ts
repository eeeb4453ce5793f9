import { NO_FIGURES, type OptionFigures, usualOf } from '../../decide/facts.js';
import type { OptionId } from '../../decide/ids.js';
import { isCrown, OPTIONS, type Option } from '../../decide/options.js';
import { toLocal } from '../../geometry/frame.js';
import type { Vec3 } from '../../geometry/vec.js';
import { ceramicOf, ceramicOfClass } from '../../material/ceramics.js';
import { plannedDifference } from '../../material/match.js';
import type { Mouth } from '../../reduction/removal.js';
import type { TargetSurface } from '../../reduction/target.js';
import { GRID } from '../../reduction/target-grid.js';
import { targetTold } from '../../reduction/target-zones.js';
import { type DesignChoice, restorationOf } from '../../restoration/restoration.js';
import type { Fdi } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';
import { questionOf, type ReadColour } from './match.js';
import { roomInBite, surfaceOf } from './reduction.js';

/** What every option would come to on one tooth, and the room behind it. */
export interface OptionsTold {
  readonly figures: readonly (readonly [OptionId, OptionFigures])[];
  /** Least room behind a crown of glass-ceramic, closed or sliding, mm; nothing without teeth across. */
  readonly palatalRoomMm?: number | undefined;
}

/**
 * What each option would come to on a planned tooth. @param colour nothing where none was read
 * @throws Refusal of `CaseEngine.crown`
 */
export function optionsTold(
  engine: CaseEngine,
  tooth: Fdi,
  choice: DesignChoice,
  colour: ReadColour | null,
  mouth: Mouth = {},
): OptionsTold {
  let palatalRoomMm: number | undefined;
  const figures = (OPTIONS as readonly Option[]).map((o): readonly [OptionId, OptionFigures] => {
    if (!o.design) return [o.id as OptionId, NO_FIGURES];
    const own: DesignChoice = { ...choice, design: o.design, own: [] };
    const { design } = restorationOf(tooth, own);
    const surface = surfaceOf(engine, tooth, design);
    const told = targetTold(surface, mouth);
    const rooms = isCrown(o) ? roomInBite(engine, tooth, own) : undefined;
    if (o.id === 'glass-crown') {
      const behind = rooms?.find((r) => r.place === 'palatal');
      palatalRoomMm = behind && Math.min(behind.closedMm, behind.movedMm);
    }
    const { sure, perhaps } = told.dentinMm2;
    const cut = design.finish.form !== 'none';
    return [
      o.id as OptionId,
      {
        removedMm3: told.removedMm3,
        removedShare: told.removedShare,
        ...(cut && told.faceMm2 > 0 && { enamelShare: 1 - (sure + perhaps / 2) / told.faceMm2 }),
        ...differencesOf(engine, tooth, own, o, colour, mouth),
        ...(cut && {
          leastMm: {
            planned: Math.min(design.needs.cervical, design.needs.middle, design.needs.incisal),
            material: design.leastMm,
          },
        }),
        hiddenMm: surface.hidden.mm,
        ...(rooms && {
          lacksMm: Math.max(0, ...rooms.map((r) => r.wantedMm - Math.min(r.closedMm, r.movedMm))),
        }),
        ...(isCrown(o) && { wallMm: wallOf(surface), taperDeg: 2 * (design.taperDeg ?? 0) }),
        ...(cut && surface.margin.length > 0 && { margin: marginOf(surface) }),
      },
    ];
  });
  return { figures, palatalRoomMm };
}

/** Predicted difference of the middle third to what is wanted, in each ceramic that the option is made in. */
function differencesOf(
  engine: CaseEngine,
  tooth: Fdi,
  choice: DesignChoice,
  { ceramics }: Option,
  colour: ReadColour | null,
  mouth: Mouth,
): Pick<OptionFigures, 'ceramics' | 'ceramic' | 'dE'> {
  if (!colour || !ceramics) return {};
  const q = questionOf(engine, tooth, choice, 'middle', colour, mouth);
  if (!q) return {};
  const all = ceramics.map((ceramic) => ({ ceramic, dE: plannedDifference(q, ceramicOfClass(ceramicOf(ceramic))) }));
  const usual = usualOf(all);
  return { ceramics: all, ceramic: usual?.ceramic, dE: usual?.dE };
}

/**
 * How far the finish line lies over the gum and under it, at most. What lies under the gum was not scanned, and the target
 * ends at it: there it is as deep as the design wishes it.
 */
function marginOf({ margin }: TargetSurface): { readonly overMm: number; readonly underMm: number } {
  const found = margin.map((m) => m.heightMm - m.gumMm);
  const wished = Math.max(...margin.map((m) => m.wishedMm));
  return { overMm: -Math.min(...found), underMm: Math.max(wished, ...found) };
}

/** The lowest wall of a preparation from its finish line to its edge, along the axis, mm. */
function wallOf({ mesh, frame }: TargetSurface): number {
  const height = (row: number, k: number) => {
    const v = 3 * (row * GRID.angles + k);
    return toLocal(frame, mesh.positions.subarray(v, v + 3) as unknown as Vec3)[2];
  };
  let least = Infinity;
  for (let k = 0; k < GRID.angles; k++) least = Math.min(least, height(GRID.neckRows, k) - height(GRID.rows - 1, k));
  return least;
}
