import { useEffect, useRef, useState } from 'react';
import { styled } from 'styled-components';
import type { ImportSource } from '@jigsaw/contract/import';
import { ProblemStrip } from '../api/index.js';
import { Button, Choice, Field, Small, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useReadRegistrarQuery } from './rosterApi.js';

const Form = styled.form`
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 460px;
  > button {
    margin-top: 4px;
  }
`;

type RegistrarSource = Extract<ImportSource, { kind: 'registrar' }>;

interface RegistrarTabProps {
  /** Looks at once, where the course follows the registrar already: someone pressed Sync. */
  readonly isAtOnce: boolean;
  readonly onLook: (source: RegistrarSource) => void;
}

/** The class as the school's registrar has it: which of its courses, and how its sections are called here. */
export function RegistrarTab({ isAtOnce, onLook }: RegistrarTabProps) {
  const { course, dates } = useCourse();
  const {
    data: view,
    error,
    refetch,
  } = useReadRegistrarQuery(course.id, { refetchOnMountOrArgChange: true });
  const [picked, setPicked] = useState<string | null>(null);
  const [setName, setSetName] = useState('Sections');
  const isAsked = useRef(false);
  const followed = view?.state === 'there' ? view.followed : null;
  const name = view?.state === 'there' ? view.setName : null;
  useEffect(() => {
    if (!isAtOnce || followed === null || isAsked.current) return;
    isAsked.current = true;
    onLook({ kind: 'registrar', course: followed, setName: name ?? 'Sections' });
  }, [isAtOnce, followed, name, onLook]);

  if (error) return <ProblemStrip of={error} onRetry={() => void refetch()} />;
  if (!view) return <Waiting what="the registrar" rows={2} />;
  if (view.state === 'none')
    return (
      <Small>
        No registrar is set up for this Jigsaw Room. The person who runs this server can set REGISTRAR_URL.
      </Small>
    );
  if (view.state === 'away')
    return <ProblemStrip onRetry={() => void refetch()}>{view.sentence}</ProblemStrip>;
  const code = followed ?? picked ?? view.likely;
  if (code === null && view.courses.length === 0)
    return (
      <Small>
        The registrar does not name you as a teacher of any course. Ask them to add you, or import a file.
      </Small>
    );
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        if (code !== null && setName.trim() !== '')
          onLook({ kind: 'registrar', course: code, setName: view.setName ?? setName.trim() });
      }}
    >
      {followed === null ? (
        <Choice
          label="The registrar’s course"
          value={code ?? ''}
          choices={view.courses.map((each) => ({
            id: each.code,
            label: `${each.code} · ${each.title}, ${each.people} people`,
          }))}
          onChange={setPicked}
        />
      ) : (
        <p>
          This course follows <b>{followed}</b>
          {view.syncedAt && `, last synced on ${dates.dateTime(view.syncedAt)}`}.
        </p>
      )}
      {view.setName === null && (
        <Field label="What the set of its sections is called here" value={setName} onChange={setSetName} />
      )}
      <Small>
        {view.setName === null
          ? 'Each section becomes a group of that set, with its students in it.'
          : `Its sections are the groups of ${view.setName}; students are placed there as the registrar says.`}{' '}
        People you added yourself stay.
      </Small>
      <Button kind="main" type="submit" isDisabled={code === null || setName.trim() === ''}>
        Show what would change
      </Button>
    </Form>
  );
}
