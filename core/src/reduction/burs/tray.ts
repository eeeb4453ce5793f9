import { type Bur, burFault, burId, burName, type Grit } from './bur.js';
import { engagements } from './engagement.js';

/** The burs that lie ready for a case. */
export interface Tray {
  readonly name: string;
  readonly burs: readonly Bur[];
}

/** How near a bur's depth must come to the wanted one, mm, until a house sets its own. Common practice, no source. */
export const DEPTH_TOLERANCE_MM = 0.05;
/** What a house may set, mm. House limits. */
export const TOLERANCE_LIMITS = { min: 0.01, max: 0.3 } as const;
export const TRAY_LIMITS = { burs: 40, trays: 8, name: 60 } as const;

const bur = (
  shape: Bur['shape'],
  largestMm: number,
  tipMm: number,
  lengthMm: number,
  shankMm: number,
  grit: Grit = 'medium',
): Bur => ({ shape, largestMm, tipMm, lengthMm, shankMm, grit });

/**
 * The tray that a house begins with: a typical pair of tapers (0.8 mm tip near the gum, 1.4 mm body for the edge), balls
 * to trace a depth by their shank, a flat end for shoulders, an egg for what lies behind, a needle for the contacts, and
 * the tapers and the egg once more to finish with. Common practice, no source.
 */
export const FIRST_TRAY: Tray = {
  name: 'anterior tray',
  burs: [
    bur('round-end', 1.4, 0.8, 8, 1.6),
    bur('round-end', 1.6, 1.0, 8, 1.6),
    bur('round-end', 1.8, 1.2, 8, 1.6),
    bur('ball', 1.6, 1.6, 1.6, 1.0),
    bur('ball', 1.8, 1.8, 1.8, 1.0),
    bur('ball', 2.0, 2.0, 2.0, 1.0),
    bur('ball', 2.4, 2.4, 2.4, 1.0),
    bur('flat-end', 1.6, 1.0, 8, 1.6),
    bur('flat-end', 1.2, 1.2, 2, 1.2),
    bur('egg', 2.3, 2.3, 4.2, 1.6),
    bur('needle', 1.0, 0.2, 8, 1.6),
    bur('round-end', 1.4, 0.8, 8, 1.6, 'fine'),
    bur('round-end', 1.4, 0.8, 8, 1.6, 'extra-fine'),
    bur('flat-end', 1.6, 1.0, 8, 1.6, 'extra-fine'),
    bur('egg', 2.3, 2.3, 4.2, 1.6, 'extra-fine'),
  ],
};

const FINISHING: readonly Grit[] = ['fine', 'extra-fine', 'ultra-fine'];
/** Whether a bur finishes and does not cut to a depth. */
export const finishes = (b: Bur): boolean => FINISHING.includes(b.grit);

/** Why a tray can't be, in a sentence; nothing where it can. */
export function trayFault({ name, burs }: Tray): string | undefined {
  if (name.trim() === '') return 'A tray has a name.';
  if (burs.length === 0) return `“${name}” is empty: put a bur in, or take the tray away.`;
  const seen = new Set<string>();
  for (const b of burs) {
    const fault = burFault(b);
    if (fault) return `${burName(b)}: ${fault}`;
    if (seen.has(burId(b))) return `${burName(b)} lies twice in “${name}”.`;
    seen.add(burId(b));
  }
  if (!burs.some((b) => !finishes(b) && engagements(b).length > 0))
    return `Nothing in “${name}” cuts a groove: put in a round end, a flat end, a ball or depth rings of a coarser grit.`;
  return undefined;
}
