import { type Colleague, FirstPassword, NewPerson, PasswordChange, ROLES, type Who } from '@radiant/contract';
import { type ReactNode, useState } from 'react';
import useSWR from 'swr';
import { api, sentenceOf } from '../data/api.js';
import { Form } from '../shell/Form.js';
import { day } from '../ui/format.js';
import { Trouble, Waiting } from '../ui/Waiting.js';
import { PracticePage } from './PracticePage.js';
import { PracticeSettingsForm } from './PracticeSettingsForm.js';

const WHAT: Record<Who['role'], string> = {
  dentist: 'decides',
  assistant: 'keeps records, photographs and measures',
  technician: 'reads, comments on plan and contour, and puts wax-ups in as scans',
};

/** The people of the practice, one's own password, and what the practice has set. */
export function People({ who }: { who: Who }) {
  const { data, error, mutate } = useSWR('/people', (path: string) => api.get<Colleague[]>(path));
  const [added, setAdded] = useState(0);
  const dentist = who.role === 'dentist';
  return (
    <PracticePage who={who} title="People">
      {!data && (error ? <Trouble sentence={sentenceOf(error)} /> : <Waiting what="the people" />)}
      <div className="grid grid-cols-[1fr_380px] gap-10 max-md:grid-cols-1">
        <div>
          <ul className="mb-10">
            {data?.map((p) => (
              <Person
                key={p.id}
                person={p}
                self={p.id === who.id}
                mayEnd={dentist && p.id !== who.id}
                changed={() => mutate()}
              />
            ))}
          </ul>
          {dentist && <PracticeSettingsForm />}
        </div>
        <div className="flex flex-col gap-10">
          {dentist && (
            <Card title="Add a person">
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
                  {
                    name: 'role',
                    label: 'Role',
                    type: { options: ROLES.map((r) => [r, `${r}: ${WHAT[r]}`] as const) },
                    initial: 'assistant',
                  },
                ]}
                send={async (value) => {
                  await api.post('/people', value);
                  await mutate();
                  setAdded((n) => n + 1);
                }}
              />
            </Card>
          )}
          <OwnPassword />
        </div>
      </div>
    </PracticePage>
  );
}

function Card({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="title mb-4">{title}</h2>
      {children}
    </section>
  );
}

/** One person: what they do, and what a dentist may do about it. */
function Person({
  person: p,
  self,
  mayEnd,
  changed,
}: {
  person: Colleague;
  self: boolean;
  mayEnd: boolean;
  changed: () => Promise<unknown>;
}) {
  const [giving, setGiving] = useState(false);
  const [ending, setEnding] = useState(false);
  const [said, setSaid] = useState<string>();
  const act = async (what: string, words: string) => {
    try {
      await api.post(`/people/${p.id}/${what}`, {});
      setSaid(words);
      setEnding(false);
      await changed();
    } catch (error) {
      setSaid(sentenceOf(error));
    }
  };
  return (
    <li className="border-b border-hair py-3">
      <div className="flex items-baseline justify-between gap-4">
        <b className={`font-semibold ${p.endedAt ? 'text-ink-2' : ''}`}>
          {p.name}
          {self && <span className="font-normal text-ink-2"> (you)</span>}
        </b>
        <span className="text-ink-2">{p.endedAt ? `left on ${day(p.endedAt)}` : `${p.role}: ${WHAT[p.role]}`}</span>
      </div>
      {mayEnd && (
        <div className="mt-1 flex flex-wrap gap-4 text-note">
          {p.endedAt ? (
            <button
              type="button"
              className="how"
              onClick={() => void act('bring-back', 'Is here again, with the old password.')}
            >
              bring back
            </button>
          ) : ending ? (
            <>
              <span>{p.name} can’t sign in any more; what they wrote keeps their name.</span>
              <button
                type="button"
                className="how"
                onClick={() => void act('end', 'Has left, and is signed out everywhere.')}
              >
                end the account
              </button>
              <button type="button" className="how" onClick={() => setEnding(false)}>
                not now
              </button>
            </>
          ) : (
            <>
              <button type="button" className="how" onClick={() => void act('sign-out', 'Is signed out everywhere.')}>
                sign out everywhere<span className="sr-only">: {p.name}</span>
              </button>
              <button type="button" className="how" aria-expanded={giving} onClick={() => setGiving(!giving)}>
                give a first password<span className="sr-only"> to {p.name}</span>
              </button>
              <button type="button" className="how" onClick={() => setEnding(true)}>
                leaves the practice<span className="sr-only">: {p.name}</span>
              </button>
            </>
          )}
        </div>
      )}
      {giving && !p.endedAt && (
        <div className="mt-3 max-w-[320px]">
          <Form
            type={FirstPassword}
            action="Give it"
            fields={[
              {
                name: 'password',
                label: 'First password',
                type: 'password',
                autoComplete: 'new-password',
                hint: 'Hand it over in person.',
              },
            ]}
            send={async (value) => {
              await api.post(`/people/${p.id}/password`, value);
              setGiving(false);
              setSaid('Has a new first password, and is signed out everywhere.');
            }}
          />
        </div>
      )}
      {said && (
        <p role="status" className="mt-1 text-note text-ink-2">
          {said}
        </p>
      )}
    </li>
  );
}

function OwnPassword() {
  const [changed, setChanged] = useState(0);
  return (
    <Card title="Your password">
      <Form
        key={changed}
        type={PasswordChange}
        action="Change it"
        fields={[
          { name: 'current', label: 'Present password', type: 'password', autoComplete: 'current-password' },
          {
            name: 'password',
            label: 'New password',
            type: 'password',
            autoComplete: 'new-password',
            hint: 'At least 10 characters.',
          },
        ]}
        send={async (value) => {
          await api.post('/people/me/password', value);
          setChanged((n) => n + 1);
        }}
      />
      {changed > 0 && (
        <p role="status" className="mt-2 text-ink-2">
          Changed. Everywhere else you are signed out.
        </p>
      )}
    </Card>
  );
}
