import { type ContourVersion, formsChanged, NewContourVersion, sameContour } from '@radiant/contract';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { api } from '../../data/api.js';
import { useCase, useSection } from '../../data/case-context.js';
import { Form } from '../../shell/Form.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';
import { day } from '../../ui/format.js';
import { VersionCard } from './VersionCard.js';

/** Contours that were kept: what each was for, whether it was worn, whether the patient approved it. */
export function Versions() {
  const { detail, refresh } = useCase();
  const { data, status } = useSection('shape');
  const mayWrite = useMayWrite('shape');
  const [shown, setShown] = useState<string>();
  const [keeping, setKeeping] = useState(false);
  const open = detail.contours.find((c) => c.id === shown);
  const newest = [...detail.contours].reverse();
  const kept = newest.find((c) => sameContour(c.teeth, data.teeth));
  return (
    <section aria-label="Versions" className="mt-6 border-t border-hair pt-4">
      <div className="flex items-baseline justify-between">
        <h2 className="subtitle">Versions</h2>
        {mayWrite && data.teeth.length > 0 && (
          <button
            type="button"
            className="how text-note"
            disabled={!!kept || status === 'waiting' || status === 'saving'}
            onClick={() => setKeeping(true)}
          >
            {kept ? `as kept in ${kept.number}` : 'keep as version'}
          </button>
        )}
      </div>
      {newest.length === 0 && (
        <p className="text-note text-ink-2">
          None kept yet. A version is what is worn, approved and cut to; the contour goes on changing.
        </p>
      )}
      <ul>
        {newest.map((c) => (
          <li key={c.id} className="border-t border-hair py-1.5">
            <button type="button" className="w-full text-left hover:text-plum" onClick={() => setShown(c.id)}>
              <span className="flex items-baseline justify-between gap-2">
                <b className="truncate font-semibold">
                  {c.number} · {c.name}
                </b>
                <span className="shrink-0 text-fine text-ink-2">{day(c.at)}</span>
              </span>
              <span className="block text-fine text-ink-2">{stateOf(c)}</span>
            </button>
          </li>
        ))}
      </ul>
      {open && <VersionCard key={open.id} version={open} onClose={() => setShown(undefined)} />}
      {keeping && <Keep onClose={() => setKeeping(false)} onKept={() => void refresh()} />}
    </section>
  );
}

const stateOf = (c: ContourVersion): string =>
  [
    c.approved
      ? `${c.approved.claimed ? 'by the word of the case it came from ' : ''}approved by the patient, ${day(c.approved.at)}`
      : '',
    c.worn ? (c.worn.until ? `worn until ${day(c.worn.until)}` : `worn since ${day(c.worn.from)}`) : '',
    formsChanged(c) ? 'kept with earlier crown forms' : '',
    c.why,
  ]
    .filter(Boolean)
    .join(' · ') || `kept by ${c.by}`;

function Keep({ onClose, onKept }: { onClose: () => void; onKept: () => void }) {
  const { detail } = useCase();
  return (
    <Dialog.Root open onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-40 w-[440px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-leaf p-7 shadow-xl"
        >
          <Dialog.Title className="title mb-3">Keep this contour</Dialog.Title>
          <Form
            type={NewContourVersion}
            place={`new version ${detail.id}`}
            action="Keep it"
            fields={[
              { name: 'name', label: 'Name' },
              { name: 'why', label: 'Why it is kept' },
            ]}
            read={({ name = '', why = '' }) => ({ name: name.trim(), why: why.trim() })}
            send={async (version) => {
              await api.post(`/cases/${detail.id}/contours`, version);
              onKept();
              onClose();
            }}
          >
            <Dialog.Close className="btn btn-ghost">Cancel</Dialog.Close>
          </Form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
