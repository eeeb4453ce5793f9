import { holdingOf, type Ranked, STRENGTH_SOURCE, strengthOf, type ToothFacts } from '@radiant/core';

/** How what is chosen is held on the tooth, what that needs, and what its ceramic may be used for. */
export function Held({ ranked: { option, figures }, facts }: { ranked: Ranked; facts: ToothFacts }) {
  const own = holdingOf(facts, option, figures);
  const strength = strengthOf(option);
  if (!own) return null;
  return (
    <section aria-label="How it is held" className="mb-3 text-note">
      <p>
        <b className="font-semibold">{own.way}</b>: {own.needs.join('; ')}.
      </p>
      {own.lacks.length > 0 && (
        <p className="finding mt-1" data-weight="stop">
          Not given here: {own.lacks.join('; ')}.
        </p>
      )}
      {strength && (
        <p className="mt-1 text-tiny text-ink-2">
          Class {strength.number}, {strength.mpa} MPa and more: {strength.uses} ({STRENGTH_SOURCE.text}).
        </p>
      )}
    </section>
  );
}
