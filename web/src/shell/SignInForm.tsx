import { SignIn } from '@radiant/contract';
import { api } from '../data/api.js';
import { Form } from './Form.js';
import { Welcome } from './Welcome.js';

export function SignInForm({ done }: { done: () => Promise<unknown> }) {
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
      />
    </Welcome>
  );
}
