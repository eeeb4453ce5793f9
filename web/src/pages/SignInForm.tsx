import { Recovery, SignIn } from '@radiant/contract';
import { useState } from 'react';
import { api } from '../data/api.js';
import { Form } from '../shell/Form.js';
import { Welcome } from './Welcome.js';

export function SignInForm({ done }: { done: () => Promise<unknown> }) {
  const [lost, setLost] = useState(false);
  if (lost) return <RecoveryForm done={done} back={() => setLost(false)} />;
  return (
    <Welcome title="Sign in" words="to your practice’s cases">
      <Form
        type={SignIn}
        action="Sign in"
        fields={[
          { name: 'email', label: 'E-mail address', type: 'email', autoComplete: 'username' },
          { name: 'password', label: 'Password', type: 'password', autoComplete: 'current-password' },
        ]}
        send={async (value) => {
          await api.post('/session', value);
          await done();
        }}
      >
        <button type="button" className="how" onClick={() => setLost(true)}>
          lost the password?
        </button>
      </Form>
    </Welcome>
  );
}

/** Back in with a code from the server's machine, and a new password. */
function RecoveryForm({ done, back }: { done: () => Promise<unknown>; back: () => void }) {
  return (
    <Welcome
      title="Back in"
      words="A dentist of the practice can give you a first password, under people. A dentist who is shut out runs bin/owner on the server’s machine, which prints a code."
    >
      <Form
        type={Recovery}
        action="Set the password and sign in"
        fields={[
          { name: 'email', label: 'E-mail address', type: 'email', autoComplete: 'username' },
          { name: 'code', label: 'Code', hint: 'As bin/owner has printed it; good once, for half an hour.' },
          {
            name: 'password',
            label: 'New password',
            type: 'password',
            autoComplete: 'new-password',
            hint: 'At least 10 characters.',
          },
        ]}
        send={async (value) => {
          await api.post('/recovery', value);
          await done();
        }}
      >
        <button type="button" className="how" onClick={back}>
          back to signing in
        </button>
      </Form>
    </Welcome>
  );
}
