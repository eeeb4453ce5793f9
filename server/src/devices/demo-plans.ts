import type { DirectSection, ProposeSection, ReduceSection } from '@radiant/contract';
import type { Fdi } from '@radiant/core';
import type { RecipeName } from '@radiant/standins';

/** What is planned in a sample case, over what every case begins with. */
interface DemoPlan {
  readonly propose: Partial<ProposeSection>;
  readonly reduce?: Partial<ReduceSection>;
  readonly direct?: Pick<DirectSection, 'works'>;
  /** Lower teeth that get so much of their edge back, mm. */
  readonly lower?: { readonly teeth: readonly Fdi[]; readonly addMm: number };
}

/** Which teeth the sample cases are about, and what they are restored with. */
export const DEMO_PLANS: Readonly<Record<RecipeName, DemoPlan>> = {
  Avocet: { propose: { edgeMm: 0.5 } },
  Turnstone: {
    propose: { planned: [11, 13, 21, 23] },
    reduce: {
      own: [
        { tooth: 13, design: 'direct' },
        { tooth: 23, design: 'direct' },
      ],
    },
    direct: { works: [13, 23].map((tooth) => ({ tooth, kind: 'addition' })) },
  },
  Sandpiper: { propose: { planned: [11, 12, 21, 22] } },
  Plover: { propose: { gumMm: 2.2 }, reduce: { design: 'ceramic-crown' } },
  Dunlin: {
    propose: { planned: [11, 12, 21, 22] },
    reduce: { design: 'direct' },
    direct: {
      works: [
        ...[12, 11, 21, 22].map((tooth) => ({ tooth, kind: 'gap' }) as const),
        ...[42, 41, 31, 32].map((tooth) => ({ tooth, kind: 'worn' }) as const),
      ],
    },
    lower: { teeth: [42, 41, 31, 32], addMm: 0.7 },
  },
  Curlew: { propose: { planned: [21] }, reduce: { design: 'ceramic-crown' } },
  Redshank: {
    propose: { planned: [21] },
    reduce: { design: 'direct' },
    direct: { works: [{ tooth: 21, kind: 'corner' }] },
  },
};
