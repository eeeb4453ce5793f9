import { biteCheck } from './checks/bite.js';
import { type Check, type Checked, mm } from './checks/checked.js';
import { contactsCheck } from './checks/contacts.js';
import { cornersCheck } from './checks/corners.js';
import { drawCheck } from './checks/draw.js';
import { edgeCheck } from './checks/edge.js';
import { faceCheck } from './checks/face.js';
import { finishCheck } from './checks/finish.js';
import { neighboursCheck } from './checks/neighbours.js';
import { provisionalCheck } from './checks/provisional.js';
import { roomCheck } from './checks/room.js';
import { surfaceCheck } from './checks/surface.js';
import { wallsCheck } from './checks/walls.js';
import { PREP_CHECKS, type PrepCheck, type PrepFinding } from './finding.js';

const CHECKS: Readonly<Record<PrepCheck, Check>> = {
  room: roomCheck,
  edge: edgeCheck,
  face: faceCheck,
  bite: biteCheck,
  provisional: provisionalCheck,
  draw: drawCheck,
  walls: wallsCheck,
  finish: finishCheck,
  corners: cornersCheck,
  contacts: contactsCheck,
  neighbours: neighboursCheck,
  surface: surfaceCheck,
};

/** Everything that is found on one prepared tooth, in the order of PREP_CHECKS. */
export const verdictOn = (c: Checked): PrepFinding[] =>
  proven((Object.keys(PREP_CHECKS) as PrepCheck[]).flatMap((check) => CHECKS[check](c)));

/**
 * A thin provisional over a zone that is cut too little anyway asks for the same once more: it is told as the proof of
 * what was found there.
 */
function proven(all: readonly PrepFinding[]): PrepFinding[] {
  const first = (p: PrepFinding) =>
    all.find((f) => f.state === 'cut' && f.zone === p.zone && (f.check === 'room' || f.check === 'edge'));
  const proof = new Map<PrepFinding, PrepFinding>();
  for (const p of all) {
    const own = p.check === 'provisional' && p.state === 'cut' ? first(p) : undefined;
    if (own) proof.set(own, p);
  }
  const folded = new Set(proof.values());
  return all.flatMap((f) => {
    if (folded.has(f)) return [];
    const own = proof.get(f);
    return [own ? { ...f, says: `${f.says}; the provisional is ${mm(own.value)} mm thick there` } : f];
  });
}
