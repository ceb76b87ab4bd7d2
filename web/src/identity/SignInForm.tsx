import { useState } from 'react';
import type { SyntheticEvent } from 'react';
import { styled } from 'styled-components';
import type { SessionView } from '@jigsaw/contract/identity';
import { problemOf, ProblemStrip } from '../api/index.js';
import { Button, Field } from '../look/index.js';
import { useSignInMutation } from './identityApi.js';
import { MailLinkButton } from './MailLinkButton.js';

const Form = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 10px;
  align-items: end;
  input {
    height: 42px;
    font: var(--t-15);
  }
  button[type='submit'] {
    height: 42px;
    padding: 0 20px;
    font-size: 15px;
  }
  > p,
  > [role='alert'] {
    grid-column: 1 / -1;
  }
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
    input,
    button[type='submit'] {
      height: 46px;
    }
  }
`;

export function SignInForm({
  onIn,
  email: given = '',
}: {
  readonly onIn: (session: SessionView) => void;
  readonly email?: string;
}) {
  const [email, setEmail] = useState(given);
  const [password, setPassword] = useState('');
  const [signIn, { isLoading, error }] = useSignInMutation();
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const answer = await signIn({ email, password });
    if ('data' in answer && answer.data) onIn(answer.data);
  };
  return (
    <Form onSubmit={(event) => void submit(event)}>
      <Field
        label="Email"
        type="email"
        name="email"
        autoComplete="username"
        value={email}
        onChange={setEmail}
        isRequired
      />
      <Field
        label="Password"
        type="password"
        name="password"
        autoComplete="current-password"
        value={password}
        onChange={setPassword}
        autoFocus={given !== ''}
        isRequired
      />
      <Button type="submit" kind="main" isDisabled={isLoading}>
        {isLoading ? 'Signing in…' : 'Sign in'}
      </Button>
      {error && <ProblemStrip>{problemOf(error).detail}</ProblemStrip>}
      <p>
        <MailLinkButton email={email} />
      </p>
    </Form>
  );
}
