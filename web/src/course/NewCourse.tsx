import { useState } from 'react';
import type { SyntheticEvent } from 'react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { problemOf, ProblemStrip } from '../api/index.js';
import { Button, Field } from '../look/index.js';
import { TimeZoneField } from './TimeZoneField.js';
import { useCreateCourseMutation } from './coursesApi.js';

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

/** A course that one is to teach. */
export function NewCourse({ isFirst }: { readonly isFirst: boolean }) {
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
