import { ArrowRight } from 'lucide-react';
import { styled } from 'styled-components';
import type { FrontDoor } from '@jigsaw/contract/identity';
import { ProblemStrip } from '../api/index.js';
import { Emblem, initials, PersonName, piecePath } from '../look/index.js';
import { useReadFrontDoorQuery, useSignInAsDemoPersonMutation } from './identityApi.js';
import { SignInForm } from './SignInForm.js';

/** One very large piece that is a room; its socket is the door, and the floor runs on under the form. */
const Frame = styled.div`
  min-height: 100%;
  display: grid;
  grid-template-columns: minmax(360px, 628px) minmax(0, 1fr);
  position: relative;
  font: var(--t-15);
  @media (max-width: 900px) {
    display: block;
  }
`;
const House = styled.section`
  position: relative;
  height: 800px;
  border-bottom: 1.5px solid transparent;
  > svg {
    position: absolute;
    left: 64px;
    top: 54px;
    overflow: visible;
    fill: var(--ink);
  }
  [data-theme='dark'] & > svg {
    fill: var(--line);
  }
  div {
    position: absolute;
    left: 110px;
    top: 212px;
    width: 420px;
    color: var(--on-ink);
  }
  [data-theme='dark'] & div {
    color: var(--ink);
  }
  b {
    display: block;
    font: 690 84px/76px var(--font-head);
    letter-spacing: -0.045em;
  }
  span {
    display: block;
    font: 18px/27px var(--font-text);
    margin-top: 22px;
    max-width: 330px;
  }
  @media (max-width: 900px) {
    height: 300px;
    overflow: hidden;
    > svg {
      left: 24px;
      top: 10px;
      width: 232px;
      height: 290px;
    }
    div {
      left: 44px;
      top: 82px;
      width: 210px;
    }
    b {
      font-size: 34px;
      line-height: 34px;
    }
    span {
      font: var(--t-13);
      margin-top: 10px;
      max-width: 165px;
    }
  }
`;
const Floor = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  top: 698px;
  border-top: 1.5px solid var(--ink);
  padding: 36px 64px 0;
  font: var(--t-13);
  color: var(--ink-2);
  @media (max-width: 900px) {
    top: 299px;
    padding: 0;
    span {
      display: none;
    }
  }
`;
const Form = styled.main`
  padding: 52px 64px 24px 44px;
  min-width: 0;
  h1 {
    font: var(--h-32);
    letter-spacing: -0.025em;
    margin-bottom: 16px;
  }
  @media (max-width: 900px) {
    padding: 22px 24px 30px;
  }
`;
const Made = styled.section`
  margin-top: 20px;
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 10px;
    padding-bottom: 8px;
    border-bottom: 1px solid var(--ink);
  }
  header p {
    font: var(--t-13);
    color: var(--ink-2);
  }
`;
const RoleRow = styled.section`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  border-bottom: var(--hair);
  h3 {
    padding-top: 11px;
    color: var(--ink-2);
    font: 600 13px/18px var(--font-text);
  }
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;
const Who = styled.button`
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) auto;
  gap: 11px;
  align-items: center;
  width: 100%;
  padding: 4px 8px;
  margin: 2px 0;
  border: 0;
  border-radius: var(--r-2);
  background: none;
  text-align: left;
  cursor: pointer;
  &:hover {
    background: var(--wash);
  }
  b {
    display: block;
    font: 620 15px/19px var(--font-text);
  }
  small {
    display: block;
    font: var(--t-12);
    color: var(--ink-2);
  }
`;
const Square = styled.span`
  display: grid;
  place-items: center;
  width: 30px;
  height: 30px;
  border-radius: var(--r-1);
  background: var(--ink);
  color: var(--on-ink);
  font: 650 12px/1 var(--font-text);
  &[data-empty] {
    background: none;
    border: 1.5px dashed var(--edge);
  }
`;

const roles = [
  { role: 'instructor', says: 'Teaches' },
  { role: 'assistant', says: 'Assists' },
  { role: 'observer', says: 'Observes' },
  { role: 'student', says: 'Studies' },
] as const;

export function SignInPage() {
  const door = useReadFrontDoorQuery();
  const [comeIn, { error }] = useSignInAsDemoPersonMutation();
  const people = door.data?.demoPeople ?? [];
  // A full load, so that nothing of anyone who was here before stays in the page's memory.
  const enter = () => window.location.reload();
  const enterAs = async (personId: string) => {
    const answer = await comeIn(personId);
    if ('data' in answer && answer.data) enter();
  };
  return (
    <Frame>
      <title>Sign in · Jigsaw Room</title>
      <Floor>
        <span>Runs on one machine. Nothing is sent anywhere.</span>
      </Floor>
      <House aria-label="Jigsaw Room">
        <svg width="520" height="652" viewBox="15 0 70 87.75" aria-hidden="true">
          <path d={piecePath('TFSF')} />
        </svg>
        <div>
          <b>
            Jigsaw
            <br />
            Room
          </b>
          <span>One class, many rooms. Each group behind its own door, and one place to see them all.</span>
        </div>
      </House>
      <Form>
        <h1>Sign in</h1>
        <SignInForm onIn={enter} />
        {error && <ProblemStrip of={error} />}
        {people.length > 0 && (
          <Made>
            <header>
              <h2>Or look around as a demo person</h2>
              <p>demo course, no password</p>
            </header>
            {roles.map(({ role, says }) => {
              const own = people.filter((person) => person.role === role);
              return own.length === 0 ? null : (
                <RoleRow key={role}>
                  <h3>{says}</h3>
                  <ul>
                    {own.map((person) => (
                      <li key={person.personId}>
                        <Who type="button" onClick={() => void enterAs(person.personId)}>
                          <Mark person={person} />
                          <span>
                            <b>
                              <PersonName name={person.name} reading={person.reading} />
                            </b>
                            <small>{person.note}</small>
                          </span>
                          <ArrowRight size={16} aria-hidden="true" />
                        </Who>
                      </li>
                    ))}
                  </ul>
                </RoleRow>
              );
            })}
          </Made>
        )}
      </Form>
    </Frame>
  );
}

function Mark({ person }: { readonly person: FrontDoor['demoPeople'][number] }) {
  if (person.role !== 'student') return <Square aria-hidden="true">{initials(person.name)}</Square>;
  return person.groupNumber === null ? (
    <Square data-empty aria-hidden="true" />
  ) : (
    <Emblem number={person.groupNumber} size={30} />
  );
}
