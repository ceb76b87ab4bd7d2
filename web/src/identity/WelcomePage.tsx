import { useState } from 'react';
import type { SyntheticEvent } from 'react';
import { styled } from 'styled-components';
import { ProblemStrip } from '../api/index.js';
import { Button, Field, ProductMark } from '../look/index.js';
import { useChoosePasswordMutation } from './identityApi.js';

const Frame = styled.main`
  max-width: 460px;
  margin: 12vh auto 0;
  padding: 0 var(--s-4);
  font: var(--t-15);
  form {
    display: grid;
    gap: 14px;
    margin-top: 20px;
  }
  h1 {
    font: var(--h-32);
    margin: 16px 0 6px;
  }
  input,
  button {
    height: 44px;
    font-size: 15px;
  }
`;

const shortest = 10;

/** Where a first sign-in link leads. The token stands behind the #, so that it is never sent in an address. */
export function WelcomePage() {
  const [password, setPassword] = useState('');
  const [choose, { isLoading, error }] = useChoosePasswordMutation();
  const isShort = password !== '' && password.length < shortest;
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const answer = await choose({ token: window.location.hash.slice(1), password });
    if ('data' in answer && answer.data) window.location.replace('/');
  };
  return (
    <Frame>
      <ProductMark size={44} />
      <h1>Welcome</h1>
      <p>Choose a password. You sign in with it and your mail address from now on.</p>
      <form onSubmit={(event) => void submit(event)}>
        <Field
          label="New password"
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={setPassword}
          hint={
            isShort
              ? `${shortest - password.length} more characters`
              : 'At least 10 characters; a short sentence is good'
          }
          isRequired
        />
        {error && <ProblemStrip of={error} />}
        <Button type="submit" kind="main" isDisabled={isLoading || password.length < shortest}>
          Save it and come in
        </Button>
      </form>
    </Frame>
  );
}
