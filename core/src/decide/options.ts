import type { CeramicId } from '../material/ids.js';
import { type DesignId, designOf } from '../restoration/designs.js';
import type { OptionId } from './ids.js';

/** How a restoration holds: by bond to what is left, by its own form, or not at all. */
export type Holds = 'bond' | 'form' | 'nothing';

/** What may be done to a tooth. */
export interface Option {
  readonly id: OptionId;
  readonly name: string;
  /** What reduce then plans; nothing where nothing is made. */
  readonly design?: DesignId;
  readonly made: 'nothing' | 'composite' | 'feldspathic' | 'glass-ceramic' | 'zirconia' | 'metal-ceramic';
  /** The ceramics that it is made in, the usual one first: by these its colour is predicted. */
  readonly ceramics?: readonly CeramicId[];
  readonly holds: Holds;
  /** Only added to the tooth, or nothing done to it. */
  readonly additive: boolean;
  /** Visits from the decision to the end, and what it asks of the years after. Common practice, no source. */
  readonly visits: number;
  readonly upkeep: string;
}

const COMPOSITE = 'polished each year; chips and stains are repaired in the mouth';
const BONDED = 'seldom repaired; a chip is polished, a loss made again';
const CROWNED = 'margin watched each year; made again when it fails';

/** Glass-ceramic by translucency: medium is usual over a normal stump (common practice), and low where it shows. */
const GLASS = ['glass-medium', 'glass-low', 'glass-high'] as const;

/** What is alike in all veneers that are cut for, and in all crowns. */
const VENEER = { holds: 'bond', additive: false, visits: 3, upkeep: BONDED } as const;
const CROWN = { additive: false, visits: 3, upkeep: CROWNED } as const;

/** The options side by side, from nothing to most. */
export const OPTIONS = [
  { id: 'none', name: 'leave it', made: 'nothing', holds: 'nothing', additive: true, visits: 0, upkeep: 'none' },
  {
    id: 'bleach',
    name: 'bleach',
    made: 'nothing',
    holds: 'nothing',
    additive: true,
    visits: 2,
    upkeep: 'repeated after some years; colour is judged again two weeks after',
  },
  {
    id: 'direct',
    name: 'direct composite',
    design: 'direct',
    made: 'composite',
    holds: 'bond',
    additive: true,
    visits: 1,
    upkeep: COMPOSITE,
  },
  {
    id: 'no-prep',
    name: 'no-prep veneer, layered feldspathic',
    design: 'no-prep',
    made: 'feldspathic',
    ceramics: ['layered', 'dentin-porcelain'],
    holds: 'bond',
    additive: true,
    visits: 2,
    upkeep: BONDED,
  },
  {
    id: 'facial',
    name: 'facial veneer, layered feldspathic',
    design: 'facial',
    made: 'feldspathic',
    ceramics: ['layered', 'dentin-porcelain'],
    ...VENEER,
  },
  {
    id: 'veneer',
    name: 'graduated veneer, glass-ceramic',
    design: 'graduated',
    made: 'glass-ceramic',
    ceramics: GLASS,
    ...VENEER,
  },
  {
    id: 'wrap',
    name: 'palatal-wrap veneer, glass-ceramic',
    design: 'palatal-wrap',
    made: 'glass-ceramic',
    ceramics: GLASS,
    ...VENEER,
  },
  {
    id: 'extended',
    name: 'extended veneer, glass-ceramic',
    design: 'extended',
    made: 'glass-ceramic',
    ceramics: GLASS,
    ...VENEER,
  },
  {
    id: 'glass-crown',
    name: 'crown, glass-ceramic',
    design: 'ceramic-crown',
    made: 'glass-ceramic',
    ceramics: GLASS,
    holds: 'bond',
    ...CROWN,
  },
  {
    id: 'zirconia-crown',
    name: 'crown, zirconia',
    design: 'zirconia-crown',
    made: 'zirconia',
    ceramics: ['zirconia-translucent', 'zirconia-strong'],
    holds: 'form',
    ...CROWN,
  },
  {
    id: 'metal-crown',
    name: 'crown, metal-ceramic',
    design: 'metal-ceramic-crown',
    made: 'metal-ceramic',
    ceramics: ['opaquer'],
    holds: 'form',
    ...CROWN,
  },
] as const satisfies readonly Option[];

/** An option by its id; ids come checked. */
export const optionOf = (id: OptionId): Option => OPTIONS.find((o) => o.id === id) as Option;

/** Whether an option is a crown. */
export const isCrown = ({ design }: Option): boolean => design !== undefined && designOf(design).kind === 'crown';
/** Whether an option is a veneer of any kind. */
export const isVeneer = ({ design }: Option): boolean => design !== undefined && designOf(design).kind === 'veneer';
