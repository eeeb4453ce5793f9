import { treatRecord } from '@radiant/contract/treat-record';
import { useState } from 'react';
import { useCase, useSection, useSentence } from '../../data/case-context.js';
import { useJobs } from '../../data/jobs.js';
import { usePracticeSettings } from '../../data/use-practice-settings.js';
import { saveFile } from '../../ui/save-file.js';

/** What was done at every visit, by whom and when. */
export function Record() {
  const { data } = useSection('treat');
  const { detail, notation } = useCase();
  const { jobs } = useJobs(detail.id);
  const { shown } = usePracticeSettings();
  const sentence = useSentence();
  const [open, setOpen] = useState<string>();
  const visits = treatRecord(data);
  if (visits.length === 0) return null;
  const zone = shown?.clinic.timeZone ?? 'UTC';
  const at = (iso: string, form: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...form }).format(new Date(iso));
  return (
    <section aria-label="Record" className="mt-5 border-t border-hair pt-3 first:mt-0 first:border-0 first:pt-0">
      <h2 className="title mb-1">Record</h2>
      <ul className="text-note">
        {[...visits].reverse().map((v) => {
          const key = `${v.visit} ${v.round}`;
          return (
            <li key={key} className="border-b border-hair py-1.5">
              <button
                type="button"
                className="flex min-h-12 w-full items-center justify-between gap-2 text-left"
                aria-expanded={open === key}
                onClick={() => setOpen(open === key ? undefined : key)}
              >
                <b>{v.title}</b>
                <span className="text-ink-2">
                  {at(v.begunAt, { day: 'numeric', month: 'short' })}
                  {v.minutes === undefined ? ', open' : `, ${v.minutes} min`}
                </span>
              </button>
              {open === key && (
                <ol className="mt-1 space-y-1">
                  {v.lines.map((l) => (
                    <li key={`${l.at} ${l.kind} ${l.words}`} className="flex gap-2">
                      <span className="shrink-0 text-tiny text-ink-2 tabular-nums">
                        {at(l.at, { hour: '2-digit', minute: '2-digit' })}
                      </span>
                      <span className={l.kind === 'not met' || l.kind === 'left out' ? 'text-stop' : ''}>
                        {l.kind === 'left out' && 'left out: '}
                        {sentence(l.words)}
                        {l.note && <i className="not-italic text-ink-2"> – {l.note}</i>}
                        <span className="text-tiny text-ink-2"> · {l.by}</span>
                      </span>
                    </li>
                  ))}
                </ol>
              )}
            </li>
          );
        })}
      </ul>
      <button
        type="button"
        className="btn btn-ghost mt-3 min-h-12"
        onClick={() =>
          jobs.start(
            detail.id,
            `/api/cases/${detail.id}/plan.pdf?notation=${notation}&form=treatment`,
            `${detail.name} treatment.pdf`,
            saveFile,
          )
        }
      >
        Save the record as PDF
      </button>
    </section>
  );
}
