import { CASE_NAME_MOST, type CaseDetail } from '@radiant/contract';
import { Copy } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';

/** Makes a second case out of this one and goes there. */
export function Duplicate() {
  const { detail } = useCase();
  const navigate = useNavigate();
  const [name, setName] = useState(`${detail.name}, copy`.slice(0, CASE_NAME_MOST));
  const [state, setState] = useState<{ busy: boolean; refusal?: string }>({ busy: false });
  const duplicate = async () => {
    setState({ busy: true });
    try {
      const made = await api.post<CaseDetail>(`/cases/${detail.id}/duplicate`, { name: name.trim() });
      navigate(`/cases/${made.id}/keep`);
    } catch (error) {
      setState({ busy: false, refusal: sentenceOf(error) });
    }
  };
  return (
    <section className="flex gap-5 rounded-xl border border-hair bg-leaf p-5" aria-label="A second case">
      <span className="text-plum">
        <Copy size={26} aria-hidden="true" />
      </span>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void duplicate();
        }}
      >
        <h2 className="title">A second case to try another plan</h2>
        <p className="mb-4 mt-1 text-ink-2">
          Everything that this case holds, with its history. What is saved counts; this case stays as it is. Approvals
          come along as what this case says, not as the patient’s word on the new one.
        </p>
        <label className="mb-3 flex max-w-[320px] flex-col gap-1 text-note text-ink-2">
          its name
          <input className="field" value={name} maxLength={CASE_NAME_MOST} onChange={(e) => setName(e.target.value)} />
        </label>
        <button type="submit" className="btn" disabled={state.busy || name.trim() === ''}>
          {state.busy ? 'Making it …' : 'Duplicate the case'}
        </button>
        {state.refusal && (
          <p role="alert" className="mt-2 text-stop">
            {state.refusal}
          </p>
        )}
      </form>
    </section>
  );
}
