import { archSide } from '../contour/arch.js';
import type { Fdi } from '../teeth/notation.js';
import { type Design, designKey, onlyAdded } from './design.js';
import { type DesignId, designOn } from './designs.js';
import { type OwnThickness, withThickness } from './own-thickness.js';

/** What a tooth is restored with. */
export interface Restoration {
  readonly tooth: Fdi;
  readonly design: Design;
}

/** How a case says it: one design for all planned teeth, and another for some of them. */
export interface DesignChoice {
  readonly design: DesignId;
  readonly own?: readonly { readonly tooth: Fdi; readonly design: DesignId }[];
  /** Thicknesses of somebody's own, design by design. */
  readonly thickness?: readonly OwnThickness[];
  /** Ways out that are set by hand, tooth by tooth. */
  readonly ways?: readonly ToothWay[];
  /** What is cut for the bite, tooth by tooth. */
  readonly room?: readonly MoreForBite[];
}

/** Where more may be cut than the material needs, for room in the bite. */
export const ROOM_PLACES = ['edge', 'palatal'] as const;
export type RoomPlace = (typeof ROOM_PLACES)[number];

/** How much more is cut of a tooth than the material needs, for room in the bite. */
export interface MoreForBite {
  readonly tooth: Fdi;
  readonly place: RoomPlace;
  readonly moreMm: number;
}

/** So much may be cut for the bite, mm: what needs more needs another plan. House limit. */
export const ROOM_LIMITS = { min: 0, max: 1.5 } as const;

/** Whether a design is cut at a place at all, so that more of it can be. */
export const takesRoom = (design: Design, place: RoomPlace): boolean =>
  place === 'edge' ? design.edge.kind === 'thickness' : design.around !== undefined;

/** One object for the same wish, so that what is made of a design can be remembered by it. */
const forTheBite = new Map<string, Design>();

function withRoom(design: Design, room: readonly MoreForBite[]): Design {
  const more = (place: RoomPlace) =>
    takesRoom(design, place) ? (room.find((r) => r.place === place)?.moreMm ?? 0) : 0;
  const [edge, palatal] = [more('edge'), more('palatal')];
  if (edge === 0 && palatal === 0) return design;
  const next: Design = {
    ...design,
    ...(design.edge.kind === 'thickness' && { edge: { ...design.edge, mm: design.edge.mm + edge } }),
    ...(design.around && { around: { ...design.around, palatalMm: design.around.palatalMm + palatal } }),
    forBite: { edge, palatal },
  };
  const key = designKey(next);
  const known = forTheBite.get(key) ?? next;
  forTheBite.set(key, known);
  return known;
}

/** How the restoration of a tooth is to come off. */
export interface ToothWay {
  readonly tooth: Fdi;
  /** From straight to the front down to the edge, degrees. */
  readonly downDeg: number;
  /** To the distal side, degrees; to the mesial one below 0. */
  readonly turnDeg: number;
}

/** Whether the way out of a design may be set: a crown comes off along its axis, what is only added is bonded on. */
export const takesAWay = (design: Design): boolean =>
  design.kind === 'veneer' && !onlyAdded(design) && design.around === undefined;

/** One object for the same wish, so that what is made of a design can be remembered by it. */
const onWays = new Map<string, Design>();

function onWay(design: Design, { tooth, downDeg, turnDeg }: ToothWay): Design {
  const next: Design = { ...design, way: { downDeg, leftDeg: archSide(tooth) === 'left' ? turnDeg : -turnDeg } };
  const key = designKey(next);
  const known = onWays.get(key) ?? next;
  onWays.set(key, known);
  return known;
}

/** The restoration of a planned tooth. */
export function restorationOf(tooth: Fdi, choice: DesignChoice): Restoration {
  const own = choice.own?.find((o) => o.tooth === tooth);
  // Whatever of a family is chosen, a premolar or a lower front tooth takes the one that is made for it.
  const design: Design = designOn(own?.design ?? choice.design, tooth);
  const thickness = choice.thickness?.find((t) => t.design === design.id);
  const thick = thickness ? withThickness(design, thickness) : design;
  const roomy = withRoom(thick, choice.room?.filter((r) => r.tooth === tooth) ?? []);
  const way = choice.ways?.find((w) => w.tooth === tooth);
  return { tooth, design: way && takesAWay(roomy) ? onWay(roomy, way) : roomy };
}
