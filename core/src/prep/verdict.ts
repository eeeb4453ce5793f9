import { biteCheck } from './checks/bite.js';
import type { Check, Checked } from './checks/checked.js';
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
  (Object.keys(PREP_CHECKS) as PrepCheck[]).flatMap((check) => CHECKS[check](c));
