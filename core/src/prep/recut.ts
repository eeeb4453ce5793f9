import { chooseGrooves, type Groove, type GrooveSite, type TrayChoice } from '../reduction/burs/choose.js';
import type { Fdi } from '../teeth/notation.js';
import type { PrepFinding } from './finding.js';

/** One more cut. */
export interface Recut {
  readonly tooth: Fdi;
  readonly finding: PrepFinding;
  readonly cutMm: number;
  /** The bur of the tray and how it is sunk, where depth is what is cut. */
  readonly groove?: Groove;
}

/** Of these a depth is cut over a surface; the others have tools of their own. */
const BY_DEPTH: readonly PrepFinding['check'][] = ['room', 'edge', 'face', 'bite', 'finish'];

const siteOf = ({ zone, check }: PrepFinding): GrooveSite =>
  zone === 'edge' || check === 'edge'
    ? 'edge'
    : check === 'finish' || zone?.startsWith('cervical')
      ? 'cervical'
      : 'facial';

/**
 * What is still to cut, with the fewest burs of a tray, in the order of the tray so that a bur is taken up once; of the
 * same place the deeper of two findings. Depths that no bur gives say so themselves.
 */
export function recuts(findings: readonly PrepFinding[], tray: TrayChoice): Recut[] {
  const deepest = new Map<string, PrepFinding>();
  for (const f of findings) {
    if (f.state !== 'cut') continue;
    const key = `${f.tooth} ${f.zone ?? `${f.check} ${f.place}`}`;
    const before = deepest.get(key);
    if (!before || (f.cutMm ?? 0) > (before.cutMm ?? 0)) deepest.set(key, f);
  }
  const own = [...deepest.values()];
  const depth = (f: PrepFinding) => (BY_DEPTH.includes(f.check) ? f.cutMm : undefined);
  const grooves = chooseGrooves(
    own.map((f) => {
      const depthMm = depth(f);
      return depthMm === undefined
        ? { kind: 'none', why: f.todo ?? '' }
        : { kind: 'cut', depthMm: Math.round(depthMm * 100) / 100, where: siteOf(f) };
    }),
    tray,
  );
  const burAt = (g: Groove) => {
    const bur = g.kind === 'cut' ? g.engagement.bur : g.nearest?.bur;
    return bur ? tray.burs.indexOf(bur) : tray.burs.length;
  };
  return own
    .map(
      (finding, i): Recut => ({
        tooth: finding.tooth,
        finding,
        cutMm: finding.cutMm ?? 0,
        ...(depth(finding) !== undefined && { groove: grooves[i] as Groove }),
      }),
    )
    .sort((a, b) => (a.groove ? burAt(a.groove) : 99) - (b.groove ? burAt(b.groove) : 99) || a.tooth - b.tooth);
}
