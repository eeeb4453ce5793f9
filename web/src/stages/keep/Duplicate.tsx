import { CASE_NAME_MOST, CaseCopy, type CaseDetail } from '@radiant/contract';
import { Copy } from 'lucide-react';
import { useNavigate } from 'react-router';
import { api } from '../../data/api.js';
import { useCase } from '../../data/case-context.js';
import { Form } from '../../shell/Form.js';

/** Makes a second case out of this one and goes there. */
export function Duplicate() {
  const { detail } = useCase();
  const navigate = useNavigate();
  return (
    <section className="flex gap-5 rounded-xl border border-hair bg-leaf p-5" aria-label="A second case">
      <span className="text-plum">
        <Copy size={26} aria-hidden="true" />
      </span>
      <div>
        <h2 className="title">A second case to try another plan</h2>
        <p className="mb-4 mt-1 text-ink-2">
          Everything that this case holds, with its history. What is saved counts; this case stays as it is. Approvals
          come along as what this case says, not as the patient’s word on the new one.
        </p>
        <div className="max-w-[320px]">
          <Form
            type={CaseCopy}
            action="Duplicate the case"
            fields={[{ name: 'name', label: 'its name', initial: `${detail.name}, copy`.slice(0, CASE_NAME_MOST) }]}
            read={({ name = '' }) => ({ name: name.trim() })}
            send={async (copy) => {
              const made = await api.post<CaseDetail>(`/cases/${detail.id}/duplicate`, copy);
              navigate(`/cases/${made.id}/keep`);
            }}
          />
        </div>
      </div>
    </section>
  );
}
