import { useState } from 'react';
import { AwayError, sentenceOf } from '../../data/api.js';

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
  const [state, setState] = useState<{ busy: boolean; refusal?: string }>({ busy: false });
  const fetchIt = async (from = href, as = name) => {
    setState({ busy: true });
    try {
      const response = await fetch(from).catch(() => {
        throw new AwayError();
      });
      if (!response.ok)
        throw new Error(
          ((await response.json().catch(() => ({}))) as { detail?: string }).detail ?? 'The server refused this.',
        );
      const url = URL.createObjectURL(await response.blob());
      const a = document.createElement('a');
      a.href = url;
      a.download = as;
      a.click();
      URL.revokeObjectURL(url);
      setState({ busy: false });
    } catch (error) {
      setState({ busy: false, refusal: sentenceOf(error) });
    }
  };
  return (
    <section className="flex gap-5 rounded-xl border border-hair bg-leaf p-5" aria-label={title}>
      <span className="text-plum">{icon}</span>
      <div>
        <h2 className="title">{title}</h2>
        <p className="mb-4 mt-1 text-ink-2">{words}</p>
        <button type="button" className="btn" disabled={disabled || state.busy} onClick={() => void fetchIt()}>
          {state.busy ? 'Making it …' : action}
        </button>
        {also?.map((o) => (
          <button
            key={o.href}
            type="button"
            className="how ml-4 inline-block py-1"
            disabled={disabled || state.busy}
            onClick={() => void fetchIt(o.href, o.name)}
          >
            {o.action}
          </button>
        ))}
        {state.refusal && (
          <p role="alert" className="mt-2 text-stop">
            {state.refusal}
          </p>
        )}
      </div>
    </section>
  );
}
