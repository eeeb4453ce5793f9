import { displayAtRest } from '@radiant/core';
import { useSection, useToothLabel } from '../data/case-context.js';
import { useReading } from '../data/reading.js';
import { number } from '../shell/format.js';

/** How much of the upper centrals usually shows at rest for this patient's age and sex, where the record knows them. */
export function DisplayNorm() {
  const { data } = useSection('meet');
  const { figures } = useReading();
  const name = useToothLabel();
  const measured = [11, 21].flatMap((t) => figures['close-rest']?.find((f) => f.id === `display-${t}`) ?? []);
  const norms = displayAtRest({ ageYears: data.ageYears ?? null, sex: data.sexAtBirth ?? null });
  if (norms.length === 0) return <p className="mb-3 text-[13px] text-ink-2">Age and sex in meet give the usual display at rest.</p>;
  return (
    <p className="mb-3 text-[13px] text-ink-2" title={norms[0]?.source.text}>
      usually shown at rest:{' '}
      {norms.map((n, i) => (
        <span key={n.row}>
          {i > 0 && ', '}
          <b className="font-semibold text-ink">{number(n.value, 1)} mm</b> ({n.row})
        </span>
      ))}{' '}
      · published, {norms[0]?.source.text}
      {measured.length > 0 && (
        <>
          . Measured at rest:{' '}
          {measured.map((f, i) => (
            <span key={f.id}>
              {i > 0 && ', '}
              {name(f.tooth ?? 11)}{' '}
              <b className="font-semibold text-ink">
                {number(f.figure.value, 1)} <span className="pm">±{number(f.figure.pm, 1)}</span> mm
              </b>
            </span>
          ))}
        </>
      )}
    </p>
  );
}
