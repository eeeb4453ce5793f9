import type { Bur } from '../reduction/burs/bur.js';
import { chooseGrooves, type Groove, type GrooveSite, type TrayChoice } from '../reduction/burs/choose.js';
import { finishes } from '../reduction/burs/tray.js';
import type { Fdi } from '../teeth/notation.js';
import type { PrepFinding } from './finding.js';

/** One more cut: of one place, or of a whole third of a face. */
export interface Recut {
  readonly tooth: Fdi;
  readonly place: string;
  /** What asks for it; the one that asks for most first. */
  readonly findings: readonly [PrepFinding, ...PrepFinding[]];
  readonly cutMm: number;
  /** How the bur is sunk, where depth is what is cut; it says so itself where no bur gives it. */
  readonly groove?: Groove;
  /** The bur that is taken up; undefined where the tray has none for it. */
  readonly bur?: Bur;
}

/** Of these a depth is cut over a surface; the others have tools of their own. */
const BY_DEPTH: readonly PrepFinding['check'][] = ['room', 'edge', 'face', 'bite', 'provisional', 'finish'];

const siteOf = ({ zone, check }: PrepFinding): GrooveSite =>
  zone === 'edge' || check === 'edge'
    ? 'edge'
    : check === 'finish' || zone?.startsWith('cervical')
      ? 'cervical'
      : 'facial';

/** Places that are cut in one go: what lies in the same third of a face, or the same zone, of a tooth. */
function regionOf({ zone, check, place }: PrepFinding): string {
  const third = zone && /^(cervical|middle|incisal) /.exec(zone)?.[1];
  if (check === 'finish' || !zone) return `${check} ${place}`;
  return third ? `${third} third of the face` : zone;
}

/**
 * What is still to cut, with the fewest burs of a tray, in the order of the tray so that a bur is taken up once; of the
 * same third or zone in one go, as deep as the deepest finding asks.
 */
export function recuts(findings: readonly PrepFinding[], tray: TrayChoice): Recut[] {
  const groups = new Map<string, [PrepFinding, ...PrepFinding[]]>();
  for (const f of findings) {
    if (f.state !== 'cut') continue;
    const key = `${f.tooth} ${regionOf(f)}`;
    const before = groups.get(key);
    if (before) before.push(f);
    else groups.set(key, [f]);
  }
  const own = [...groups.values()];
  for (const g of own) g.sort((a, b) => (b.cutMm ?? 0) - (a.cutMm ?? 0));
  const depth = (f: PrepFinding) => (BY_DEPTH.includes(f.check) && !f.along ? f.cutMm : undefined);
  const grooves = chooseGrooves(
    own.map(([f]) => {
      const depthMm = depth(f);
      return depthMm === undefined
        ? { kind: 'none', why: f.todo ?? '' }
        : { kind: 'cut', depthMm: Math.round(depthMm * 100) / 100, where: siteOf(f) };
    }),
    tray,
  );
  const fine = tray.burs.find((b) => finishes(b) && b.shape !== 'needle' && b.shape !== 'egg');
  const order = (r: Recut) => (r.bur ? tray.burs.indexOf(r.bur) : tray.burs.length);
  return own
    .map((g, i): Recut => {
      const [f] = g;
      const groove = depth(f) === undefined ? undefined : (grooves[i] as Groove);
      const bur = groove?.kind === 'cut' ? groove.engagement.bur : (groove?.nearest?.bur ?? fine);
      return {
        tooth: f.tooth,
        place: g.length > 1 || f.check === 'edge' ? regionOf(f) : f.place,
        findings: g,
        cutMm: f.cutMm ?? 0,
        ...(groove && { groove }),
        ...(bur && { bur }),
      };
    })
    .sort((a, b) => order(a) - order(b) || a.tooth - b.tooth);
}
