import { PLAN_DEFAULTS, PLAN_LIMITS, type PlanNumber } from '@radiant/core';

/** One number of a planned crown: how it is called, in which steps it moves, and what it does. */
export interface PlanField {
  readonly key: PlanNumber;
  readonly group: PlanGroup;
  readonly label: string;
  readonly unit: 'mm' | '°' | '×';
  readonly step: number;
  readonly digits: number;
  readonly note?: string;
}

export type PlanGroup = 'size' | 'face' | 'edge' | 'neck' | 'stand';

/** Groups in the order in which a crown is shaped. */
export const PLAN_GROUPS: readonly PlanGroup[] = ['size', 'face', 'edge', 'neck', 'stand'];

/** Every number of a planned crown, in the order of its groups. */
export const PLAN_FIELDS: readonly PlanField[] = [
  { key: 'lengthMm', group: 'size', label: 'Length', unit: 'mm', step: 0.05, digits: 2 },
  { key: 'widthMm', group: 'size', label: 'Width', unit: 'mm', step: 0.05, digits: 2 },
  {
    key: 'facialVolumeMm',
    group: 'size',
    label: 'Facial volume',
    unit: 'mm',
    step: 0.05,
    digits: 2,
    note: 'all three thirds',
  },
  { key: 'rotationDeg', group: 'size', label: 'Rotation, mesial forward', unit: '°', step: 0.5, digits: 1 },
  { key: 'neckVolumeMm', group: 'face', label: 'Volume, cervical third', unit: 'mm', step: 0.05, digits: 2 },
  { key: 'edgeVolumeMm', group: 'face', label: 'Volume, incisal third', unit: 'mm', step: 0.05, digits: 2 },
  {
    key: 'textureShare',
    group: 'face',
    label: 'Lobes and texture',
    unit: '×',
    step: 0.1,
    digits: 1,
    note: '1 the library form',
  },
  {
    key: 'edgeThicknessMm',
    group: 'edge',
    label: 'Edge, thicker',
    unit: 'mm',
    step: 0.05,
    digits: 2,
    note: 'on the inner side',
  },
  {
    key: 'edgeCurveMm',
    group: 'edge',
    label: 'Edge, curved',
    unit: 'mm',
    step: 0.05,
    digits: 2,
    note: 'borders above the middle',
  },
  { key: 'mesialCornerMm', group: 'edge', label: 'Mesial corner, rounder', unit: 'mm', step: 0.05, digits: 2 },
  { key: 'distalCornerMm', group: 'edge', label: 'Distal corner, rounder', unit: 'mm', step: 0.05, digits: 2 },
  {
    key: 'zenithUpMm',
    group: 'neck',
    label: 'Zenith, towards the root',
    unit: 'mm',
    step: 0.05,
    digits: 2,
    note: 'the gum moves with it',
  },
  { key: 'zenithDistalMm', group: 'neck', label: 'Zenith, distal', unit: 'mm', step: 0.05, digits: 2 },
  {
    key: 'neckWidthMm',
    group: 'neck',
    label: 'Neck, wider',
    unit: 'mm',
    step: 0.05,
    digits: 2,
    note: 'closes the gingival embrasures',
  },
  {
    key: 'tipDeg',
    group: 'stand',
    label: 'Tilt, edge to the midline',
    unit: '°',
    step: 0.5,
    digits: 1,
    note: 'about the zenith',
  },
  {
    key: 'torqueDeg',
    group: 'stand',
    label: 'Torque, edge forward',
    unit: '°',
    step: 0.5,
    digits: 1,
    note: 'about the zenith',
  },
  { key: 'forwardMm', group: 'stand', label: 'Forward', unit: 'mm', step: 0.05, digits: 2 },
  { key: 'distalMm', group: 'stand', label: 'Away from the midline', unit: 'mm', step: 0.05, digits: 2 },
];

const OPTIONAL: ReadonlySet<string> = new Set(Object.keys(PLAN_DEFAULTS));

/** What a field holds where a plan says nothing of it. */
export const planDefault = (key: PlanNumber): number =>
  OPTIONAL.has(key) ? PLAN_DEFAULTS[key as keyof typeof PLAN_DEFAULTS] : 0;

/** The sentence with which a number outside its limits is refused. */
export function planRefusal(f: PlanField): string {
  const { min, max } = PLAN_LIMITS[f.key];
  const say = (v: number) => String(v).replace('-', '−');
  return `${f.label}: between ${say(min)} and ${say(max)}${f.unit === '°' ? '°' : f.unit === 'mm' ? ' mm' : ''}.`;
}
