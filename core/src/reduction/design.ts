import type { FacialThird } from '../teeth/norms.js';
import { COMMON_PRACTICE, type Source } from '../working/working.js';

export type Zone = FacialThird | 'edge';

export const ZONES: readonly Zone[] = ['cervical', 'middle', 'incisal', 'edge'];

/** What the edge needs: a thickness, or only flattening where the plan lengthens. */
export type EdgeNeed = { readonly kind: 'thickness'; readonly mm: number } | { readonly kind: 'flatten' };

/** A veneer design: the thickness that the ceramic needs in each zone, mm. */
export interface VeneerDesign {
  readonly id: 'graduated' | 'even';
  readonly name: string;
  readonly reason: string;
  readonly needs: Readonly<Record<FacialThird, number>>;
  readonly edge: EdgeNeed;
  readonly palatal: string;
  readonly source: Source;
}

/** The designs; the first is the default: it leaves most enamel at the neck, where there is least. */
export const VENEER_DESIGNS: readonly VeneerDesign[] = [
  {
    id: 'graduated',
    name: 'graduated veneer',
    reason: 'Thin at the neck where enamel is thin, fuller towards the edge.',
    needs: { cervical: 0.3, middle: 0.5, incisal: 0.7 },
    edge: { kind: 'thickness', mm: 1.5 },
    palatal: 'butt joint; palatal not bevelled',
    source: COMMON_PRACTICE,
  },
  {
    id: 'even',
    name: 'even veneer',
    reason: 'One thickness over the face; easier for the laboratory over a stump that shows.',
    needs: { cervical: 0.5, middle: 0.8, incisal: 0.8 },
    edge: { kind: 'flatten' },
    palatal: 'ends at the edge’s palatal corner',
    source: COMMON_PRACTICE,
  },
];

export type DesignId = VeneerDesign['id'];

export const designOf = (id: DesignId): VeneerDesign => VENEER_DESIGNS.find((d) => d.id === id) as VeneerDesign;
