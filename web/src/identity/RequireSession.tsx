import { Suspense, useState } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import { useDispatch, useSelector } from 'react-redux';
import { Navigate, Outlet, useLocation } from 'react-router';
import { styled } from 'styled-components';
import type { SessionView } from '@jigsaw/contract/identity';
import {
  api,
  isAway,
  isProblem,
  practises,
  problemOf,
  ProblemStrip,
  sessionResumed,
  sitInBase,
  tagTypes,
} from '../api/index.js';
import type { RootState } from '../api/index.js';
import { Empty, Notices, Waiting } from '../look/index.js';
import { belongTo } from '../page/index.js';
import { useReadSessionQuery } from './identityApi.js';
import { SignInForm } from './SignInForm.js';
import { SignInPage } from './SignInPage.js';

/** Everything behind this asks for a session. Without one the sign-in page stands at the same address, so that signing in goes on there. */
export function RequireSession() {
  const session = useReadSessionQuery();
  const hasEnded = useSelector((state: RootState) => state.session.hasEnded);
  const { pathname } = useLocation();
  if (sitInBase() !== '' && (hasEnded || (session.error && !isAway(session.error))))
    return <NoLongerSitting of={hasEnded ? undefined : session.error} />;
  if (session.data?.sitsIn && pathname === '/')
    return <Navigate replace to={`/c/${session.data.sitsIn.courseId}`} />;
  if (session.data) {
    if (!session.data.sitsIn) belongTo(session.data.person.id);
    return (
      <>
        <Suspense fallback={<Waiting what="the page" />}>
          <Outlet context={session.data} />
        </Suspense>
        <Notices />
        <SignInAgain session={session.data} />
      </>
    );
  }
  if (isProblem(session.error, 'signed-out')) return <SignInPage />;
  return session.error ? (
    <ProblemStrip of={session.error} onRetry={() => void session.refetch()} />
  ) : (
    <Waiting what="Jigsaw Room" />
  );
}

/** Sitting in goes no further: the session is over, or there is no such student for this person. */
function NoLongerSitting({ of }: { readonly of: unknown }) {
  return (
    <Empty
      title={practises() ? 'You are not practising' : 'You are not sitting in'}
      action={<a href="/">Go to your courses</a>}
    >
      {of === undefined || isProblem(of, 'signed-out')
        ? 'You are signed out. Sign in, then start again.'
        : problemOf(of).detail}
    </Empty>
  );
}

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: var(--z-notice);
  background: oklch(0.245 0.048 335 / 0.45);
  display: grid;
  place-items: center;
`;
const Box = styled(Modal)`
  width: min(620px, calc(100vw - 32px));
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  padding: 18px 20px 20px;
  h2 {
    font: var(--h-22);
  }
  [role='dialog'] {
    outline: 0;
  }
  p {
    margin: 4px 0 14px;
    color: var(--ink-2);
  }
`;

/** The session ended in the middle of work. What was typed stays in the page behind, and is saved once they are back. */
function SignInAgain({ session }: { readonly session: SessionView }) {
  const hasEnded = useSelector((state: RootState) => state.session.hasEnded);
  const dispatch = useDispatch();
  const [email] = useState(session.person.email);
  const resume = (next: SessionView) => {
    if (next.person.id !== session.person.id) return window.location.reload(); // someone else: nothing of the first person may stay
    dispatch(sessionResumed());
    dispatch(api.util.invalidateTags([...tagTypes]));
  };
  return (
    <Overlay isOpen={hasEnded} isKeyboardDismissDisabled>
      <Box>
        <Dialog aria-label="Sign in again">
          <Heading slot="title" level={2}>
            Sign in again
          </Heading>
          <p>Your session has ended. What you typed is still here and is saved as soon as you are back.</p>
          <SignInForm onIn={resume} email={email} />
        </Dialog>
      </Box>
    </Overlay>
  );
}
