import { FirstAccount } from '@radiant/contract';
import { api } from '../data/api.js';
import { Form } from '../shell/Form.js';
import { Welcome } from './Welcome.js';

export function FirstAccountForm({ done }: { done: () => Promise<unknown> }) {
  return (
    <Welcome
      title="First account"
      words="Nobody lives here yet. The first account is a dentist’s; others are added from it."
    >
      <Form
        type={FirstAccount}
        action="Begin"
        fields={[
          { name: 'practice', label: 'Practice' },
          { name: 'name', label: 'Your name', autoComplete: 'name' },
          { name: 'email', label: 'E-mail address', type: 'email', autoComplete: 'username' },
          {
            name: 'password',
            label: 'Password',
            type: 'password',
            autoComplete: 'new-password',
            hint: 'At least 10 characters.',
          },
        ]}
        send={async (value) => {
          await api.post('/first-account', value);
          await done();
        }}
      />
    </Welcome>
  );
}
