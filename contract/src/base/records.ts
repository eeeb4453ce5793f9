/** The words of the case record: what is chosen from lists, each with what people read. Our own wording. */

/** What the patient wants, in tags beside their own words. */
export const WISH_TAGS = {
  lighter: 'lighter',
  longer: 'longer',
  shorter: 'shorter',
  wider: 'wider',
  narrower: 'narrower',
  even: 'even',
  'gaps-closed': 'gaps closed',
  'less-gum': 'less gum',
  natural: 'natural, small irregularities kept',
} as const;
export type WishTag = keyof typeof WISH_TAGS;

/** Medical and personal points that change the plan or its dates. They warn; the dentist decides. */
export const CAUTIONS = {
  bleeding: 'bleeds easily',
  pressure: 'blood pressure or heart',
  healing: 'heals slowly',
  acid: 'reflux or acid',
  grinding: 'clenches or grinds',
  allergy: 'allergy',
  medicines: 'takes medicines',
  pregnancy: 'pregnant',
  anxious: 'anxious in the chair',
  straightened: 'teeth were straightened before',
} as const;
export type Caution = keyof typeof CAUTIONS;

/** What a tooth has behind it. */
export const TOOTH_PAST = {
  'root-filled': 'root-filled',
  post: 'post',
  crown: 'old crown',
  filling: 'filling',
  trauma: 'trauma',
  decay: 'decay',
  'dark-stump': 'discoloured stump',
  mobile: 'mobile',
  worn: 'worn edge',
  chipped: 'chipped or indented edge',
  inflamed: 'inflamed gum',
  margin: 'old margin that shows',
  missing: 'missing',
} as const;
export type ToothPast = keyof typeof TOOTH_PAST;

/** The standard views, in the order in which they are taken. */
export const PHOTO_VIEWS = {
  'portrait-rest': 'portrait, at rest',
  'portrait-smile': 'portrait, smiling',
  'close-rest': 'lips, at rest',
  'close-smile': 'lips, smiling',
  'retracted-front': 'retracted, front',
  'retracted-right': 'retracted, right',
  'retracted-left': 'retracted, left',
  'upper-occlusal': 'upper, occlusal',
  'lower-occlusal': 'lower, occlusal',
  'twelve-oclock': 'twelve o’clock',
} as const;
export type PhotoView = keyof typeof PHOTO_VIEWS;

/** The states of the mouth in which a photograph is taken. */
export const CASE_STATES = {
  before: 'before',
  'mock-up': 'mock-up',
  prepared: 'prepared',
  provisional: 'provisional',
  final: 'final',
} as const;
export type CaseState = keyof typeof CASE_STATES;

export const keysOf = <T extends object>(words: T): (keyof T & string)[] => Object.keys(words) as (keyof T & string)[];

/** Words in a file's name that tell its view; the first that fits counts. */
const VIEW_WORDS: readonly (readonly [PhotoView, RegExp])[] = [
  ['twelve-oclock', /twelve|12[ _-]?o/],
  ['upper-occlusal', /(upper|maxilla).*occlus|occlus.*(upper|maxilla)/],
  ['lower-occlusal', /(lower|mandib).*occlus|occlus.*(lower|mandib)/],
  ['retracted-right', /retract.*right|right.*retract/],
  ['retracted-left', /retract.*left|left.*retract/],
  ['retracted-front', /retract/],
  ['portrait-smile', /(portrait|face).*smil|smil.*(portrait|face)/],
  ['portrait-rest', /portrait|face/],
  ['close-smile', /smil/],
  ['close-rest', /rest|repose|lips/],
];

/** What a file's name says of its view and state, where it says anything. */
export function readFileName(name: string): { readonly view: PhotoView | null; readonly state: CaseState | null } {
  const text = name.toLowerCase();
  const state = /mock[ _-]?up/.test(text)
    ? 'mock-up'
    : /provis|tempor/.test(text)
      ? 'provisional'
      : /prepar|\bprep\b/.test(text)
        ? 'prepared'
        : /final|after/.test(text)
          ? 'final'
          : /before|initial/.test(text)
            ? 'before'
            : null;
  return { view: VIEW_WORDS.find(([, words]) => words.test(text))?.[0] ?? null, state };
}
