import { useEffect, useState } from 'react';
import type { SyntheticEvent } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { LinkView } from '@jigsaw/contract/identity';
import { problemOf, ProblemStrip } from '../api/index.js';
import { Button, Field, ProductMark, Small, Waiting } from '../look/index.js';
import { useLookAtLinkMutation, useOpenLinkMutation } from './identityApi.js';
import { MailLinkButton } from './MailLinkButton.js';

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

const says = {
  'new-password': 'Choose a password. You sign in with it and your email from now on.',
  password: 'This address already has a password. Enter it to open the course.',
} as const;

/** Where a sign-in link leads. The token stands behind the #, so that it is never sent in an address. */
export function WelcomePage() {
  const token = window.location.hash.slice(1);
  const [lookAtLink, { data: link, error: fault }] = useLookAtLinkMutation();
  useEffect(() => {
    void lookAtLink(token);
  }, [lookAtLink, token]);
  return (
    <Frame>
      <title>Welcome · Jigsaw Room</title>
      <ProductMark size={44} />
      <h1>Welcome</h1>
      {fault && (
        <>
          <ProblemStrip of={fault} />
          <p>
            <Link to="/">Sign in</Link>, or request a new link there.
          </p>
        </>
      )}
      {!link && !fault && <Waiting what="your link" rows={3} />}
      {link && <LinkForm token={token} link={link} />}
    </Frame>
  );
}

function LinkForm({ token, link }: { readonly token: string; readonly link: LinkView }) {
  const [password, setPassword] = useState('');
  const [open, { isLoading, error }] = useOpenLinkMutation();
  const isNew = link.asksFor === 'new-password';
  const isShort = password !== '' && password.length < shortest;
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const answer = await open({ token, password });
    if ('data' in answer && answer.data) window.location.replace('/');
  };
  return (
    <>
      <p>{says[link.asksFor]}</p>
      <form onSubmit={(event) => void submit(event)}>
        {/* So that whatever keeps passwords knows whose it is. */}
        <input type="hidden" name="username" autoComplete="username" value={link.email} />
        <p>
          <Small>Email</Small>
          <br />
          <b>{link.email}</b>
        </p>
        <Field
          label={isNew ? 'New password' : 'Password'}
          type="password"
          autoComplete={isNew ? 'new-password' : 'current-password'}
          value={password}
          onChange={setPassword}
          hint={
            isShort
              ? `${shortest - password.length} more characters`
              : isNew
                ? 'At least 10 characters; a short sentence is good'
                : undefined
          }
          isRequired
        />
        {error && <ProblemStrip>{problemOf(error).detail}</ProblemStrip>}
        <Button type="submit" kind="main" isDisabled={isLoading || password.length < shortest}>
          {isNew ? 'Save password and sign in' : 'Sign in'}
        </Button>
        {!isNew && (
          <>
            <p>
              <Small>Forgot it? Get a link by email to choose a new password.</Small>
            </p>
            <MailLinkButton email={link.email} />
          </>
        )}
      </form>
    </>
  );
}
