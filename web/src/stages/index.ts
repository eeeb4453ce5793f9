import type { StageDefinition } from '../shell/stage.js';
import { book } from './book/index.js';
import { decide } from './decide/index.js';
import { direct } from './direct/index.js';
import { keep } from './keep/index.js';
import { match } from './match/index.js';
import { meet } from './meet/index.js';
import { propose } from './propose/index.js';
import { read } from './read/index.js';
import { reduce } from './reduce/index.js';
import { shape } from './shape/index.js';
import { treat } from './treat/index.js';
import { verify } from './verify/index.js';

/** The stages in the order of the journey. A new one is its folder and a line here. */
export const STAGES: readonly StageDefinition[] = [
  meet,
  read,
  propose,
  shape,
  decide,
  match,
  direct,
  reduce,
  book,
  treat,
  verify,
  keep,
];
