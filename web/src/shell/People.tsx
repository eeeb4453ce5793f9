import { NewPerson, ROLES, type Who } from '@radiant/contract';
import { useState } from 'react';
import useSWR from 'swr';
import { api, sentenceOf } from '../data/api.js';
import { Form } from './Form.js';
import { House } from './House.js';
import { Trouble, Waiting } from './Waiting.js';

const WHAT: Record<Who['role'], string> = {
  dentist: 'decides',
  assistant: 'keeps records, photographs and measures',
  technician: 'reads, and comments on plan and contour',
};

/** The people of the practice; a dentist adds more. */
export function People({ who }: { who: Who }) {
  const { data, error, mutate } = useSWR('/people', (path: string) => api.get<Pick<Who, 'id' | 'name' | 'role'>[]>(path));
  const [added, setAdded] = useState(0);
  return (
    <House who={who} title="People">
      {!data && (error ? <Trouble sentence={sentenceOf(error)} /> : <Waiting what="the people" />)}
      <div className="grid grid-cols-[1fr_380px] gap-10 max-md:grid-cols-1">
        <ul>
          {data?.map((p) => (
            <li key={p.id} className="flex items-baseline justify-between border-b border-hair py-3">
              <b className="font-semibold">{p.name}</b>
              <span className="text-ink-2">
                {p.role}: {WHAT[p.role]}
              </span>
            </li>
          ))}
        </ul>
        {who.role === 'dentist' && (
          <section aria-label="Add a person">
            <h2 className="title mb-4">Add a person</h2>
            <Form
              key={added}
              type={NewPerson}
              action="Add"
              fields={[
                { name: 'name', label: 'Name' },
                { name: 'email', label: 'E-mail address', type: 'email' },
                {
                  name: 'password',
                  label: 'First password',
                  type: 'password',
                  autoComplete: 'new-password',
                  hint: 'At least 10 characters; hand it over in person.',
                },
                { name: 'role', label: 'Role', type: { options: ROLES.map((r) => [r, `${r}: ${WHAT[r]}`] as const) }, initial: 'assistant' },
              ]}
              send={async (value) => {
                await api.post('/people', value);
                await mutate();
                setAdded((n) => n + 1);
              }}
            />
          </section>
        )}
      </div>
    </House>
  );
}
