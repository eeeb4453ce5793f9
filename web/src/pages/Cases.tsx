import {
  CASE_NAME_MOST,
  CASE_SORTS,
  type CaseDetail,
  type CasePage,
  type CaseSort,
  EMPTY_SECTIONS,
  KEPT_DAYS,
  keysOf,
  NewCase,
  type Who,
} from '@radiant/contract';
import { FileUp, Plus } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import useSWR from 'swr';
import { api, sentenceOf } from '../data/api.js';
import { useLatest } from '../data/use-latest.js';
import { Form } from '../shell/Form.js';
import { Boundary } from '../ui/Boundary.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { BinnedCase, CaseCard, CaseTable } from './CaseList.js';
import { PracticePage } from './PracticePage.js';

/** A search follows the keys after so long, ms. */
const LOOK_MS = 200;

/** The practice's cases: searched, sorted, page by page. What is looked for stands in the address. */
export function Cases({ who }: { who: Who }) {
  const [asked, setAsked] = useSearchParams();
  const search = asked.get('search') ?? '';
  const sort = (asked.get('sort') ?? 'changed') as CaseSort;
  const page = Number(asked.get('page') ?? 0);
  const bin = asked.get('bin') === 'true';
  const [form, setForm] = useListForm();
  const path = `/cases?${new URLSearchParams({
    ...(search && { search }),
    ...(bin && { bin: 'true' }),
    sort,
    page: String(page),
  })}`;
  const { data, error, mutate } = useSWR(path, (p: string) => api.get<CasePage>(p), { keepPreviousData: true });
  const mayOpen = who.role !== 'technician';
  const ask = (next: { search?: string; sort?: CaseSort; page?: number; bin?: boolean }) =>
    setAsked(
      () => {
        const all = { search, sort, bin, page: 0, ...next };
        return {
          ...(all.search && { search: all.search }),
          ...(all.sort !== 'changed' && { sort: all.sort }),
          ...(all.page > 0 && { page: String(all.page) }),
          ...(all.bin && { bin: 'true' }),
        };
      },
      { replace: true },
    );
  const [text, setText] = useTyped(search, (next) => ask({ search: next }));
  const many = !!data && (data.pages > 1 || search !== '' || data.total > 1);
  return (
    <PracticePage who={who} title="Cases">
      <div className="mb-6 flex flex-wrap items-center gap-3">
        {mayOpen && !bin && <Opening />}
        {bin && (
          <p className="text-ink-2">
            Cases that were put away. They can be brought back for {KEPT_DAYS} days, then they are forgotten.
          </p>
        )}
        {data && (bin || data.binned > 0) && (
          <button type="button" className="how" onClick={() => ask({ bin: !bin, search: '' })}>
            {bin ? 'back to the cases' : `put away: ${data.binned}`}
          </button>
        )}
        {many && (
          <div className="ml-auto flex flex-wrap items-center gap-2">
            {!bin && (
              <fieldset className="flex gap-1" aria-label="Shown as">
                {(['cards', 'table'] as const).map((f) => (
                  <button
                    key={f}
                    type="button"
                    className="chip chip-flat"
                    aria-pressed={form === f}
                    onClick={() => setForm(f)}
                  >
                    {f}
                  </button>
                ))}
              </fieldset>
            )}
            <input
              type="search"
              className="field w-[220px]"
              aria-label="Find a case"
              placeholder="find by name"
              maxLength={CASE_NAME_MOST}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
            <select
              className="field w-[180px]"
              aria-label="Sort by"
              value={sort}
              onChange={(e) => ask({ sort: e.target.value as CaseSort })}
            >
              {keysOf(CASE_SORTS).map((k) => (
                <option key={k} value={k}>
                  {CASE_SORTS[k]}
                </option>
              ))}
            </select>
          </div>
        )}
      </div>
      {!data &&
        (error ? <Trouble sentence={sentenceOf(error)} retry={() => void mutate()} /> : <Waiting what="the cases" />)}
      {data?.total === 0 && (
        <p className="rounded-xl border border-dashed border-hair bg-leaf p-10 text-center text-ink-2">
          {search
            ? `No case’s name holds “${search}”.`
            : bin
              ? 'No case was put away.'
              : 'No case yet. Open one, or bring a case file in.'}
        </p>
      )}
      {data &&
        data.cases.length > 0 &&
        (form === 'table' && !bin ? (
          <CaseTable cases={data.cases} who={who} changed={() => void mutate()} />
        ) : (
          <ul className="grid grid-cols-2 gap-4 max-md:grid-cols-1">
            {data.cases.map((c) => (
              <li key={c.id}>
                <Boundary what={`The case “${c.name}”`}>
                  {bin ? (
                    <BinnedCase summary={c} who={who} changed={() => void mutate()} />
                  ) : (
                    <CaseCard summary={c} who={who} changed={() => void mutate()} />
                  )}
                </Boundary>
              </li>
            ))}
          </ul>
        ))}
      {data && data.pages > 1 && (
        <nav aria-label="Pages" className="mt-6 flex items-center justify-center gap-4 text-ink-2">
          <button type="button" className="btn btn-ghost" disabled={page === 0} onClick={() => ask({ page: page - 1 })}>
            before
          </button>
          <span>
            page {data.page + 1} of {data.pages}, {data.total} cases
          </span>
          <button
            type="button"
            className="btn btn-ghost"
            disabled={page + 1 >= data.pages}
            onClick={() => ask({ page: page + 1 })}
          >
            after
          </button>
        </nav>
      )}
    </PracticePage>
  );
}

const FORM = 'radiant-case-list';

/** Cards or a table, as it was chosen last in this browser. */
function useListForm() {
  const [form, setForm] = useState<'cards' | 'table'>(() =>
    localStorage.getItem(FORM) === 'table' ? 'table' : 'cards',
  );
  const choose = (next: 'cards' | 'table') => {
    localStorage.setItem(FORM, next);
    setForm(next);
  };
  return [form, choose] as const;
}

/**
 * What stands in the search field: what is typed stands at once, what is looked for follows when the hand rests.
 * The address may lag behind the keys, so only a search that this field did not ask for itself (the way back, a
 * link) is written over what is typed.
 */
function useTyped(search: string, ask: (search: string) => void) {
  const [text, setText] = useState(search);
  const latest = useLatest({ ask, search });
  /** What the field asked for and the address doesn't say yet, the oldest first. */
  const under = useRef<string[]>([]);
  useEffect(() => {
    const own = under.current.indexOf(search);
    under.current = under.current.slice(own + 1);
    if (own < 0) setText((t) => (t.trim() === search ? t : search));
  }, [search]);
  useEffect(() => {
    const typed = text.trim();
    if (typed === (under.current.at(-1) ?? latest.current.search)) return;
    const timer = setTimeout(() => {
      under.current.push(typed);
      latest.current.ask(typed);
    }, LOOK_MS);
    return () => clearTimeout(timer);
  }, [text, latest]);
  return [text, setText] as const;
}

function Opening() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Trigger className="btn">
          <Plus size={17} aria-hidden="true" /> New case
        </Dialog.Trigger>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
          <Dialog.Content
            className="fixed left-1/2 top-1/2 w-[460px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-leaf p-7 shadow-xl"
            aria-describedby={undefined}
          >
            <Dialog.Title className="title mb-4 text-figure">New case</Dialog.Title>
            <NewCaseForm />
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
      <BringIn />
    </>
  );
}

function NewCaseForm() {
  const navigate = useNavigate();
  return (
    <Form
      type={NewCase}
      place="new case"
      action="Open the case"
      fields={[
        { name: 'name', label: 'Name', hint: 'A code name is enough; patients’ names need not stand on the screen.' },
        { name: 'ageYears', label: 'Age, years', type: 'number' },
        { name: 'wish', label: 'What the patient wants, in their words', type: 'textarea' },
        { name: 'finishBy', label: 'To be finished by', type: 'date' },
      ]}
      read={(v) => ({
        name: v.name?.trim(),
        meet: {
          ...EMPTY_SECTIONS.meet,
          wish: v.wish ?? '',
          ...(v.ageYears && { ageYears: Number(v.ageYears) }),
          ...(v.finishBy && { finishBy: v.finishBy }),
        },
      })}
      send={async (value) => {
        const made = await api.post<CaseDetail>('/cases', value);
        navigate(`/cases/${made.id}/meet`);
      }}
    >
      <Dialog.Close className="btn btn-ghost">Cancel</Dialog.Close>
    </Form>
  );
}

/** Reads a case file into a new case. */
function BringIn() {
  const input = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const [state, setState] = useState<{ busy: boolean; refusal?: string }>({ busy: false });
  const take = async (file: File | undefined) => {
    if (!file) return;
    setState({ busy: true });
    try {
      const made = await api.upload<CaseDetail>('/cases/import', file);
      navigate(`/cases/${made.id}/read`);
    } catch (error) {
      setState({ busy: false, refusal: sentenceOf(error) });
    }
    if (input.current) input.current.value = '';
  };
  return (
    <>
      <button type="button" className="btn btn-ghost" disabled={state.busy} onClick={() => input.current?.click()}>
        <FileUp size={17} aria-hidden="true" /> {state.busy ? 'Reading …' : 'Bring a case file in'}
      </button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        className="sr-only"
        tabIndex={-1}
        aria-label="Case file"
        onChange={(e) => void take(e.target.files?.[0])}
      />
      {state.refusal && (
        <p role="alert" className="text-stop">
          {state.refusal}
        </p>
      )}
    </>
  );
}
