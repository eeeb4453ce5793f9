import { useCase } from '../../data/case-context.js';
import { type Job, type Jobs, useJobs } from '../../data/jobs.js';
import { saveFile } from '../../ui/save-file.js';

/** Something that is handed over as a file, made when it is asked for. */
export function Handover({
  icon,
  title,
  words,
  action,
  href,
  name,
  disabled = false,
  also,
}: {
  icon: React.ReactNode;
  title: string;
  words: string;
  action: string;
  href: string;
  name: string;
  disabled?: boolean;
  /** A second thing of the same kind. */
  also?: readonly { action: string; href: string; name: string }[];
}) {
  const { detail } = useCase();
  const { jobs, own } = useJobs(detail.id);
  const files = [{ action, href, name }, ...(also ?? [])];
  const mine = own.filter((j) => files.some((f) => f.name === j.name));
  const isMade = (f: { name: string }) => mine.some((j) => j.name === f.name && j.state === 'making');
  const make = (f: { href: string; name: string }) => void jobs.start(detail.id, f.href, f.name, saveFile);
  return (
    <section className="flex gap-5 rounded-xl border border-hair bg-leaf p-5" aria-label={title}>
      <span className="text-plum">{icon}</span>
      <div>
        <h2 className="title">{title}</h2>
        <p className="mb-4 mt-1 text-ink-2">{words}</p>
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <button
            type="button"
            className="btn"
            disabled={disabled || isMade({ name })}
            onClick={() => make({ href, name })}
          >
            {action}
          </button>
          {also?.map((o) => (
            <button
              key={o.href}
              type="button"
              className="how py-1"
              disabled={disabled || isMade(o)}
              onClick={() => make(o)}
            >
              {o.action}
            </button>
          ))}
        </div>
        {mine.length > 0 && (
          <ul className="mt-3 space-y-1.5" aria-label={`Made of “${title}”`}>
            {mine.map((j) => (
              <JobLine key={j.id} job={j} jobs={jobs} />
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}

/** One file: how far it is, or what became of it. */
function JobLine({ job: j, jobs }: { job: Job; jobs: Jobs }) {
  if (j.state === 'making')
    return (
      <li className="flex items-center gap-3 text-note">
        <progress
          {...(j.share !== undefined && { value: j.share })}
          max={1}
          aria-label={j.name}
          className="h-1.5 w-[140px] accent-plum"
        />
        <span role="status" className="min-w-0 flex-1 truncate text-ink-2">
          {j.what ?? 'Begun'} … it goes on while you look at other stages
        </span>
        <button type="button" className="how" onClick={() => jobs.callOff(j.id)}>
          call off
        </button>
      </li>
    );
  return (
    <li className="flex items-center gap-3 text-note">
      {j.state === 'refused' ? (
        <span role="alert" className="min-w-0 flex-1 text-stop">
          {j.sentence}
        </span>
      ) : (
        <span role="status" className="min-w-0 flex-1 truncate text-ink-2">
          {j.state === 'off' ? 'Called off; nothing of it was kept.' : `Saved as ${j.name}.`}
        </span>
      )}
      {j.url && (
        <a className="how" href={j.url} download={j.name}>
          save again
        </a>
      )}
      <button type="button" className="how" aria-label={`clear ${j.name}`} onClick={() => jobs.dismiss(j.id)}>
        clear
      </button>
    </li>
  );
}
