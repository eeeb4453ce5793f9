import { CASE_STATES, type PhotoView } from '@radiant/contract';
import type { MouthState, RecipeName, RowOrder, WornOrder } from '@radiant/standins';

/** One file that a simulated device hands over. */
export interface Delivery {
  readonly patient: RecipeName;
  /**
   * A photograph's view; a scan of the upper or the lower jaw with its teeth numbered; a whole jaw as any scanner gives
   * it, nothing told apart; or a laboratory's wax-up as a scan of its model.
   */
  readonly what:
    | PhotoView
    | 'scan-stl'
    | 'scan-ply'
    | 'scan-lower'
    | 'scan-whole-upper'
    | 'scan-whole-lower'
    | 'scan-wax-up'
    /** What a shade meter has read of the teeth, or of their stumps. */
    | 'shade-tooth'
    | 'shade-stump';
  readonly state: MouthState;
  /** Days before the demo was put in. */
  readonly daysAgo: number;
  /** Of a scan of prepared teeth: what was asked for, and how it went. */
  readonly order?: RowOrder;
  /** Of a scan with the provisionals in place. */
  readonly worn?: WornOrder;
}

const CASES: readonly RecipeName[] = ['Avocet', 'Curlew', 'Plover', 'Sandpiper', 'Turnstone', 'Dunlin', 'Redshank'];
const DAYS_AGO: Readonly<Record<RecipeName, number>> = {
  Avocet: 23,
  Curlew: 44,
  Plover: 61,
  Sandpiper: 30,
  Turnstone: 16,
  Dunlin: 9,
  Redshank: 6,
};

/** What the measuring stages need first, then what is looked at most. */
const ORDER: readonly PhotoView[] = [
  'retracted-front',
  'close-smile',
  'close-rest',
  'portrait-smile',
  'upper-occlusal',
  'portrait-rest',
  'retracted-right',
  'retracted-left',
  'lower-occlusal',
  'twelve-oclock',
];

const LATER: readonly Delivery[] = [
  { patient: 'Avocet', what: 'close-smile', state: 'mock-up', daysAgo: 8 },
  { patient: 'Avocet', what: 'retracted-front', state: 'mock-up', daysAgo: 8 },
  { patient: 'Plover', what: 'close-smile', state: 'provisional', daysAgo: 12 },
  { patient: 'Redshank', what: 'scan-whole-upper', state: 'final', daysAgo: 1 },
  { patient: 'Dunlin', what: 'scan-whole-upper', state: 'final', daysAgo: 1 },
  { patient: 'Dunlin', what: 'scan-whole-lower', state: 'final', daysAgo: 1 },
  { patient: 'Curlew', what: 'close-smile', state: 'final', daysAgo: 3 },
  { patient: 'Curlew', what: 'retracted-front', state: 'final', daysAgo: 3 },
  ...CASES.flatMap((patient): Delivery[] => [
    { patient, what: 'scan-whole-upper', state: 'before', daysAgo: DAYS_AGO[patient] },
    { patient, what: 'scan-whole-lower', state: 'before', daysAgo: DAYS_AGO[patient] },
  ]),
  { patient: 'Avocet', what: 'scan-whole-upper', state: 'mock-up', daysAgo: 8 },
  { patient: 'Sandpiper', what: 'scan-whole-upper', state: 'prepared', daysAgo: 6 },
  ...(['Avocet', 'Curlew', 'Sandpiper', 'Redshank'] as const).map(
    (patient): Delivery => ({ patient, what: 'shade-tooth', state: 'before', daysAgo: 7 }),
  ),
  { patient: 'Sandpiper', what: 'shade-stump', state: 'prepared', daysAgo: 6 },
  { patient: 'Avocet', what: 'scan-wax-up', state: 'mock-up', daysAgo: 12 },
];

/** The first things that come: by them the first case can be opened and worked on. */
export const FIRST: readonly Delivery[] = [
  { patient: 'Avocet', what: 'retracted-front', state: 'before', daysAgo: DAYS_AGO.Avocet },
  { patient: 'Avocet', what: 'portrait-smile', state: 'before', daysAgo: DAYS_AGO.Avocet },
  { patient: 'Avocet', what: 'scan-stl', state: 'before', daysAgo: DAYS_AGO.Avocet },
  { patient: 'Avocet', what: 'scan-lower', state: 'before', daysAgo: DAYS_AGO.Avocet },
];

/** Everything, in the order in which it comes: one view of every case after the other, the first case first. */
export const ALL: readonly Delivery[] = [
  ...FIRST,
  ...ORDER.slice(1, 5).map(
    (what): Delivery => ({ patient: 'Avocet', what, state: 'before', daysAgo: DAYS_AGO.Avocet }),
  ),
  ...CASES.slice(1).flatMap((patient): Delivery[] => [
    { patient, what: 'retracted-front', state: 'before', daysAgo: DAYS_AGO[patient] },
    { patient, what: 'portrait-smile', state: 'before', daysAgo: DAYS_AGO[patient] },
    { patient, what: patient === 'Plover' ? 'scan-ply' : 'scan-stl', state: 'before', daysAgo: DAYS_AGO[patient] },
    { patient, what: 'scan-lower', state: 'before', daysAgo: DAYS_AGO[patient] },
  ]),
  ...ORDER.slice(1).flatMap((what) =>
    CASES.map((patient): Delivery => ({ patient, what, state: 'before', daysAgo: DAYS_AGO[patient] })),
  ),
  ...LATER,
].filter((d, i, all) => all.findIndex((e) => fileOf(e) === fileOf(d)) === i);

/** The name that the device gives the file: the case first, as a person at a practice's camera would set it up. */
export function fileOf(d: Delivery): string {
  const state = CASE_STATES[d.state];
  if (d.what === 'scan-wax-up') return `${d.patient} - wax-up, ${state}.stl`;
  if (d.what === 'shade-tooth') return `${d.patient} - shades of the teeth, ${state}.csv`;
  if (d.what === 'shade-stump') return `${d.patient} - shades of the stumps, ${state}.csv`;
  if (d.what === 'scan-whole-upper') return `${d.patient} - whole upper jaw, ${state}.stl`;
  if (d.what === 'scan-whole-lower') return `${d.patient} - whole lower jaw, ${state}.ply`;
  if (d.what === 'scan-lower') return `${d.patient} - lower jaw, ${state}.stl`;
  if (d.what === 'scan-stl' || d.what === 'scan-ply') return `${d.patient} - upper jaw, ${state}.${d.what.slice(5)}`;
  return `${d.patient} - ${d.what.replaceAll('-', ' ')}, ${state}.jpg`;
}

/** The view of a photograph; of anything else none. */
export const viewOf = (d: Delivery): PhotoView | undefined =>
  /^(scan|shade)-/.test(d.what) ? undefined : (d.what as PhotoView);

/** The folder of the device in the watched folder; its name says that it is simulated. */
export const deviceOf = (d: Delivery): string =>
  d.what === 'scan-wax-up'
    ? 'simulated laboratory'
    : d.what.startsWith('scan-')
      ? 'simulated scanner'
      : d.what.startsWith('shade-')
        ? 'simulated shade meter'
        : 'simulated camera';

/** How the sample preparations went, case by case: the faults that one meets. Where nothing is cut there is none. */
export const PREPARATIONS: readonly {
  readonly patient: RecipeName;
  readonly daysAgo: number;
  readonly faults: Omit<RowOrder, 'plan' | 'choice'>;
  /** Where the provisionals were scanned too: which of them was ground behind, in the bite. */
  readonly ground?: WornOrder['ground'];
}[] = [
  {
    patient: 'Avocet',
    daysAgo: 2,
    faults: {
      faults: {
        11: { 'edge short': 0.3 },
        21: { 'flat face': 0.3 },
        22: { 'sharp corner': 1 },
        13: { 'high margin': 0.9 },
      },
      nicked: { 24: 0.3 },
    },
    ground: {},
  },
  { patient: 'Curlew', daysAgo: 5, faults: { faults: { 21: { 'tight palatal': 0.5 } } }, ground: { 11: 0.35 } },
  { patient: 'Plover', daysAgo: 14, faults: { faults: { 11: { undercut: 0.5 }, 22: { tapered: 14 } } } },
  { patient: 'Sandpiper', daysAgo: 6, faults: { faults: { 12: { 'knife edge': 1 }, 21: { 'edge short': 0.25 } } } },
  { patient: 'Turnstone', daysAgo: 1, faults: { faults: { 21: { 'flat face': 0.25 } } } },
];
