import { ArrowRight } from 'lucide-react';
import { useState } from 'react';
import type { SyntheticEvent } from 'react';
import { Link, useNavigate, useOutletContext } from 'react-router';
import { styled } from 'styled-components';
import type { SessionView } from '@jigsaw/contract/identity';
import { problemOf, ProblemStrip, unshown } from '../api/index.js';
import { Button, Empty, Field, ProductMark, Waiting } from '../look/index.js';
import { MailLinkButton } from '../identity/index.js';
import { TimeZoneField } from './TimeZoneField.js';
import { useCreateCourseMutation, useListCoursesQuery } from './coursesApi.js';

const Frame = styled.main`
  max-width: 760px;
  margin: 0 auto;
  padding: 48px var(--s-4);
  font: var(--t-15);
  h1 {
    font: var(--h-32);
    display: flex;
    gap: 14px;
    align-items: center;
    margin-bottom: 20px;
  }
`;
const Course = styled(Link)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 16px;
  align-items: center;
  padding: 14px 16px;
  border-bottom: var(--hair);
  background: var(--surface);
  text-decoration: none;
  &:hover {
    background: var(--sunk);
  }
  b {
    font: var(--h-17);
    display: block;
  }
  small {
    font: var(--t-13);
    color: var(--ink-2);
  }
`;
const List = styled.ul`
  border: var(--hair);
  border-radius: var(--r-2);
  overflow: hidden;
  li:last-child a {
    border-bottom: 0;
  }
`;
const More = styled.section`
  margin-top: 20px;
  display: grid;
  gap: 8px;
  justify-items: start;
  font: var(--t-13);
  color: var(--ink-2);
`;
const Form = styled.form`
  margin-top: 28px;
  padding: 18px 20px;
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 190px;
  gap: 12px;
  h2,
  [role='alert'],
  footer {
    grid-column: 1 / -1;
  }
  footer {
    display: flex;
    justify-content: flex-end;
  }
`;

const roleWords = {
  instructor: 'You teach',
  assistant: 'You assist',
  student: 'You study',
  observer: 'You observe',
} as const;

export function CoursesPage() {
  const session = useOutletContext<SessionView>();
  const courses = useListCoursesQuery();
  if (unshown(courses) !== undefined)
    return <ProblemStrip of={courses.error} onRetry={() => void courses.refetch()} />;
  if (!courses.data) return <Waiting what="your courses" />;
  const list = courses.data.courses;
  return (
    <Frame>
      <title>Your courses · Jigsaw Room</title>
      <h1>
        <ProductMark size={40} />
        Your courses
      </h1>
      {list.length > 0 && (
        <List>
          {list.map((course) => (
            <li key={course.id}>
              <Course to={`/c/${course.id}`}>
                <span>
                  <b>{course.title}</b>
                  <small>{[course.code, course.term].filter(Boolean).join(' · ')}</small>
                </span>
                <small>{roleWords[course.role]}</small>
                <ArrowRight size={18} aria-hidden="true" />
              </Course>
            </li>
          ))}
        </List>
      )}
      {list.length === 0 && !session.mayCreateCourses && (
        <Empty title="No courses yet">Your courses appear here when an instructor adds you.</Empty>
      )}
      {!session.isProven && (
        <More>
          <p>
            You signed in with a link from a course, so only courses whose links you opened are listed. A link
            by email shows all your courses and lets you choose a new password.
          </p>
          <MailLinkButton email={session.person.email} />
        </More>
      )}
      {session.mayCreateCourses && <NewCourse isFirst={list.length === 0} />}
    </Frame>
  );
}

function NewCourse({ isFirst }: { readonly isFirst: boolean }) {
  const navigate = useNavigate();
  const [create, { isLoading, error }] = useCreateCourseMutation();
  const [draft, setDraft] = useState({
    code: '',
    title: '',
    term: '',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  });
  const set = (field: keyof typeof draft) => (value: string) =>
    setDraft((before) => ({ ...before, [field]: value }));
  const problem = error && problemOf(error);
  const faultOf = (path: string) => problem?.issues?.find((issue) => issue.path === path)?.message;
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const answer = await create(draft);
    if ('data' in answer && answer.data) void navigate(`/c/${answer.data.id}/people/import`);
  };
  return (
    <Form onSubmit={(event) => void submit(event)} aria-label="New course">
      <h2>{isFirst ? 'Create your first course' : 'New course'}</h2>
      <Field
        label="Code"
        placeholder="FER 220"
        value={draft.code}
        onChange={set('code')}
        fault={faultOf('code')}
      />
      <Field label="Title" value={draft.title} onChange={set('title')} fault={faultOf('title')} />
      <Field label="Term" placeholder="Autumn 2026" value={draft.term} onChange={set('term')} />
      <div style={{ gridColumn: '1 / 3' }}>
        <TimeZoneField value={draft.timeZone} onChange={set('timeZone')} />
      </div>
      {problem && !problem.issues && <ProblemStrip of={error} />}
      <footer>
        <Button type="submit" kind={isFirst ? 'main' : 'plain'} isDisabled={isLoading}>
          Create course
        </Button>
      </footer>
    </Form>
  );
}
