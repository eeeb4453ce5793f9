import { type CaseSummary, KEPT_DAYS, mayWrite, type Who } from '@radiant/contract';
import { MoreHorizontal } from 'lucide-react';
import { AlertDialog, Popover } from 'radix-ui';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../data/api.js';
import { useStages } from '../shell/stage.js';
import { day } from '../ui/format.js';

/** Where a case is gone on with: at the stage at which the person left it. */
const addressOf = (c: CaseSummary): string =>
  `/cases/${c.id}/${c.leftAt ?? (c.stagesBegun.includes('read') ? 'read' : 'meet')}`;

interface OfOne {
  readonly summary: CaseSummary;
  readonly who: Who;
  readonly changed: () => void;
}

export function CaseCard({ summary: c, who, changed }: OfOne) {
  return (
    <div className="relative">
      <Link
        to={addressOf(c)}
        className="grid grid-cols-[132px_minmax(0,1fr)] gap-4 overflow-hidden max-sm:grid-cols-[92px_minmax(0,1fr)] max-sm:gap-3 rounded-xl border border-hair bg-leaf transition-colors hover:border-plum"
      >
        <Cover of={c} />
        <span className="block min-w-0 py-3.5 pr-12">
          <span className="flex flex-wrap items-baseline justify-between gap-x-4">
            <b className="max-w-full truncate font-serif text-figure font-semibold">{c.name}</b>
            <span className="shrink-0 text-note text-ink-2">changed {day(c.updatedAt)}</span>
          </span>
          <span className="mt-0.5 block truncate text-ink-2">
            {[c.ageYears ? `${c.ageYears} y` : '', c.wish].filter(Boolean).join(' · ') || 'no wish noted'}
          </span>
          <span className="mt-3 block">
            <Begun of={c} />
          </span>
          {(c.finishBy || c.importedBy) && (
            <span className="mt-2 block truncate text-note text-ink-2">
              {[
                c.finishBy ? `to be finished by ${day(c.finishBy)}` : '',
                c.importedBy ? `brought in by ${c.importedBy}` : '',
              ]
                .filter(Boolean)
                .join(' · ')}
            </span>
          )}
        </span>
      </Link>
      <span className="absolute top-2.5 right-2.5">
        <More summary={c} who={who} changed={changed} />
      </span>
    </div>
  );
}

/** Many cases at a glance. */
export function CaseTable({ cases, who, changed }: { cases: readonly CaseSummary[]; who: Who; changed: () => void }) {
  return (
    <div className="overflow-x-auto rounded-xl border border-hair bg-leaf px-5 py-3">
      <table
        aria-label="Cases"
        className="w-full min-w-[680px] text-left [&_td]:border-t [&_td]:border-hair [&_td]:py-2 [&_td]:pr-4 [&_th]:pr-4 [&_th]:pb-2 [&_th]:text-note [&_th]:font-normal [&_th]:text-ink-2"
      >
        <thead>
          <tr>
            <th scope="col">case</th>
            <th scope="col">what is wanted</th>
            <th scope="col">begun</th>
            <th scope="col">finish by</th>
            <th scope="col">changed</th>
            <th>
              <span className="sr-only">more</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {cases.map((c) => (
            <tr key={c.id}>
              <td className="max-w-[220px]">
                <Link to={addressOf(c)} className="block truncate font-semibold hover:text-plum">
                  {c.name}
                </Link>
              </td>
              <td className="max-w-[320px] truncate text-left">
                {[c.ageYears ? `${c.ageYears} y` : '', c.wish].filter(Boolean).join(' · ')}
              </td>
              <td className="text-left">
                <Begun of={c} />
              </td>
              <td className="whitespace-nowrap">{c.finishBy ? day(c.finishBy) : ''}</td>
              <td className="whitespace-nowrap">{day(c.updatedAt)}</td>
              <td className="w-9">
                <More summary={c} who={who} changed={changed} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A case that was put away, and the way back. */
export function BinnedCase({ summary: c, who, changed }: OfOne) {
  const [refusal, setRefusal] = useState<string>();
  const back = () => api.post(`/cases/${c.id}/bring-back`, {}).then(changed, (e: unknown) => setRefusal(sentenceOf(e)));
  return (
    <div className="grid grid-cols-[132px_minmax(0,1fr)] gap-4 overflow-hidden rounded-xl border border-hair bg-leaf">
      <Cover of={c} />
      <div className="min-w-0 py-3.5 pr-5">
        <b className="block truncate font-serif text-figure font-semibold">{c.name}</b>
        {c.removed && (
          <p className="mt-0.5 text-note text-ink-2">
            put away {day(c.removed.at)} by {c.removed.by}; {c.removed.held ? HELD : leftDays(c.removed.at)}
          </p>
        )}
        <p className="mt-3 flex flex-wrap items-center gap-3">
          {who.role === 'dentist' && (
            <button type="button" className="btn btn-ghost" onClick={() => void back()}>
              Bring back
            </button>
          )}
          <Link to={`/cases/${c.id}/keep`} className="how">
            read it
          </Link>
        </p>
        {refusal && (
          <p role="alert" className="mt-2 text-note text-stop">
            {refusal}
          </p>
        )}
      </div>
    </div>
  );
}

const HELD = 'it stays here, because the patient approved a contour of it';

/** How long it can be brought back. */
function leftDays(at: string): string {
  const left = Math.max(0, Math.ceil(KEPT_DAYS - (Date.now() - Date.parse(at)) / 86_400_000));
  return left <= 1 ? 'it is forgotten within a day' : `it is forgotten in ${left} days`;
}

function Cover({ of: c }: { of: CaseSummary }) {
  return c.coverId ? (
    <img
      src={`/api/cases/${c.id}/files/${c.coverId}/thumbnail`}
      alt=""
      className="h-full min-h-[128px] w-full bg-bench object-cover"
    />
  ) : (
    <span className="flex min-h-[128px] items-center justify-center bg-porcelain text-fine text-ink-2">
      no photograph
    </span>
  );
}

function Begun({ of: c }: { of: CaseSummary }) {
  const stages = useStages();
  return (
    <span className="flex flex-wrap gap-1.5" role="img" aria-label={`begun: ${c.stagesBegun.join(', ') || 'nothing'}`}>
      {stages
        .filter((s) => s.section)
        .map((s) => (
          <span
            key={s.name}
            className={`rounded-full px-2.5 py-0.5 text-tiny ${s.section && c.stagesBegun.includes(s.section) ? 'bg-plum-soft text-plum' : 'bg-porcelain text-ink-2'}`}
          >
            {s.name}
          </span>
        ))}
    </span>
  );
}

/** What else can be done with a case from the list. */
function More({ summary: c, who, changed }: OfOne) {
  const [asking, setAsking] = useState(false);
  const [refusal, setRefusal] = useState<string>();
  if (!mayWrite(who.role, 'meet')) return null;
  const putAway = () => api.remove(`/cases/${c.id}`).then(changed, (e: unknown) => setRefusal(sentenceOf(e)));
  return (
    <>
      <Popover.Root>
        <Popover.Trigger
          className="grid size-8 place-items-center rounded-md text-ink-2 hover:bg-porcelain hover:text-plum"
          aria-label={`More for ${c.name}`}
        >
          <MoreHorizontal size={17} aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            className="z-20 grid w-[190px] rounded-xl border border-hair bg-leaf p-2 shadow-lg [&>*]:rounded-md [&>*]:px-3 [&>*]:py-1.5 [&>*]:text-left hover:[&>*]:bg-porcelain"
          >
            <Link to={`/cases/${c.id}/keep`}>duplicate, hand over</Link>
            {who.role === 'dentist' && <Popover.Close onClick={() => setAsking(true)}>put away …</Popover.Close>}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <AlertDialog.Root open={asking} onOpenChange={setAsking}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
          <AlertDialog.Content className="fixed left-1/2 top-1/2 z-40 w-[480px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-leaf p-7 shadow-xl">
            <AlertDialog.Title className="title">Put {c.name} away?</AlertDialog.Title>
            <AlertDialog.Description className="mt-2 text-ink-2">
              It can be brought back for {KEPT_DAYS} days; then the case is forgotten with its photographs, scans and
              history. A case with a contour that the patient approved is never forgotten. Records of treatment are kept
              as long as your local rules ask, often for years: write the case file first if anything was done.
            </AlertDialog.Description>
            <a className="how mt-3 inline-block" href={`/api/cases/${c.id}/case.json`} download={`${c.name}.json`}>
              write the case file
            </a>
            {refusal && (
              <p role="alert" className="mt-3 text-note text-stop">
                {refusal}
              </p>
            )}
            <span className="mt-5 flex justify-end gap-2">
              <AlertDialog.Cancel className="btn btn-ghost">Keep it</AlertDialog.Cancel>
              <AlertDialog.Action className="btn" onClick={() => void putAway()}>
                Put it away
              </AlertDialog.Action>
            </span>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </>
  );
}
