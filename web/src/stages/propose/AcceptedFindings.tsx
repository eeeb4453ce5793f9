import { WISH_TAGS } from '@radiant/contract';
import { useCase, useSection, useSentence } from '../../data/case-context.js';
import { useReading } from '../../data/reading.js';

/** What the plan should bring: the patient's wishes, and the findings that were accepted in read, as they stand now. */
export function AcceptedFindings() {
  const { data: meet } = useSection('meet');
  const { data: read } = useSection('read');
  const { findings } = useReading();
  const { selectTooth } = useCase();
  const sentence = useSentence();
  const accepted = read.verdicts.filter((v) => v.verdict === 'accepted');
  if (accepted.length === 0 && meet.wishTags.length === 0) return null;
  return (
    <section aria-label="What the plan should bring" className="mt-6">
      <h2 className="title mb-1">What the plan should bring</h2>
      {meet.wishTags.length > 0 && (
        <p className="text-note text-ink-2">the patient: {meet.wishTags.map((t) => WISH_TAGS[t]).join(', ')}</p>
      )}
      <ul className="mt-1">
        {accepted.map((v) => {
          const f = findings.find((q) => q.id === v.id);
          return (
            <li key={v.id} className="finding text-note" data-weight={f?.notice ?? 'nobody'}>
              {f ? (
                <button type="button" className="text-left" onClick={() => f.teeth[0] && selectTooth(f.teeth[0])}>
                  {sentence(f.title)}
                </button>
              ) : (
                <span className="text-ink-2">a finding that the measures no longer show</span>
              )}
              {v.word && <span className="block text-ink-2">{v.word}</span>}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
