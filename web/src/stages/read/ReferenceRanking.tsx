import type { ToothShade } from '@radiant/contract';
import { rankReference, type ToothMeasure } from '@radiant/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useCase, useSection, useSentence, useToothLabel } from '../../data/case-context.js';
import { number } from '../../ui/format.js';

const SHOWN = 3;

/** A tooth's shade in words, with what makes it less sure. */
const shadeSaid = (shade: ToothShade | undefined): string =>
  shade ? `shade ${shade.name}${shade.wet === false ? ', taken dry' : ''}` : 'shade not noted';

/** Which of the teeth comes nearest to the norms, and why; the dentist picks one as reference above. */
export function ReferenceRanking({ measures }: { measures: readonly ToothMeasure[] }) {
  const { selectTooth } = useCase();
  const name = useToothLabel();
  const sentence = useSentence();
  const { teeth } = useSection('meet').data;
  const { school, referenceTooth } = useSection('propose').data;
  const shadeOf = (tooth: number) => teeth?.find((t) => t.tooth === tooth)?.shade;
  const chosen = school === 'reference' ? referenceTooth : undefined;
  const ranked = useMemo(() => rankReference(measures).slice(0, SHOWN), [measures]);
  if (ranked.length === 0) return null;
  return (
    <section aria-label="Nearest to the norms" className="mt-6">
      <h2 className="subtitle">Nearest to the norms</h2>
      <p className="mb-1 text-note text-ink-2">
        0 is on the norm, 1 the end of its band; a proposal for the reference tooth
      </p>
      <ol>
        {ranked.map((c) => (
          <li key={c.tooth} className="flex gap-3 border-t border-hair py-1.5">
            <button
              type="button"
              className="w-8 shrink-0 text-left font-[650] hover:text-plum"
              onClick={() => selectTooth(c.tooth)}
            >
              {name(c.tooth)}
            </button>
            <span className="min-w-0 flex-1 text-note text-ink-2">
              {[...c.reasons.map(sentence), shadeSaid(shadeOf(c.tooth))].join(' · ')}
            </span>
            <span className="shrink-0">
              {number(c.off, 1)} <span className="pm">±{number(c.pm, 1)}</span>
            </span>
          </li>
        ))}
      </ol>
      {chosen && !shadeOf(chosen) && (
        <p className="finding mt-2 text-note" data-weight="watch" data-testid="reference-shade">
          {name(chosen)} is the reference, and its colour is not noted: take its shade wet, before the teeth dry out.{' '}
          <Link className="how" to="../meet">
            Enter its shade in meet
          </Link>
        </p>
      )}
    </section>
  );
}
