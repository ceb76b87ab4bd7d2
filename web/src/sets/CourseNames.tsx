import { useState } from 'react';
import type { SyntheticEvent } from 'react';
import { styled } from 'styled-components';
import { ChangeCourse } from '@jigsaw/contract/course';
import type { CourseSettings } from '@jigsaw/contract/course';
import { only } from '@jigsaw/core/lists';
import { problemOf, ProblemStrip } from '../api/index.js';
import { TimeZoneField, useCourse } from '../course/index.js';
import { Button, Field, Small } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useChangeCourseMutation } from './setsApi.js';

const Form = styled.form`
  display: grid;
  grid-template-columns: minmax(110px, 150px) minmax(0, 1fr) minmax(120px, 190px);
  gap: 12px;
  > .whole {
    grid-column: 1 / -1;
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const labels = { code: 'Code', title: 'Title', term: 'Term' } as const;
const named = ['code', 'title', 'term', 'timeZone'] as const;

interface CourseNamesProps {
  readonly settings: CourseSettings;
  readonly mayChange: boolean;
}

/** What the course is called, and the time zone of its dates. */
export function CourseNames({ settings, mayChange }: CourseNamesProps) {
  const { course } = useCourse();
  const [typed, setTyped] = useState<Partial<ChangeCourse>>({});
  const [basedOn, setBasedOn] = useState(settings.version);
  const names = { ...only(settings, named), ...typed };
  const isChanged = named.some((field) => names[field] !== settings[field]);
  const back = useAct(useChangeCourseMutation());
  const change = useAct(useChangeCourseMutation(), {
    says: () => 'Course saved',
    isRefusalShown: true,
    undo: (saved) => {
      const before = only(settings, named);
      return () => back({ courseId: course.id, body: { ...before, version: saved.version } });
    },
  });
  const put = (field: (typeof named)[number]) => (value: string) => {
    // It is an answer to what was there when the first letter was typed.
    if (!isChanged) setBasedOn(settings.version);
    setTyped({ ...typed, [field]: value });
  };
  const problem = change.error === undefined ? null : problemOf(change.error);
  const conflict = ChangeCourse.safeParse(problem?.current);
  const faultOf = (path: string) => problem?.issues?.find((issue) => issue.path === path)?.message;
  const save = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (!isChanged) return;
    // Those who were told of the conflict and save again mean it.
    const version = conflict.success ? conflict.data.version : basedOn;
    if (await change({ courseId: course.id, body: { ...names, version } })) setTyped({});
  };
  const startAnew = () => {
    setTyped({});
    change.reset();
  };
  return (
    <Form onSubmit={(event) => void save(event)}>
      {(['code', 'title', 'term'] as const).map((field) => (
        <Field
          key={field}
          label={labels[field]}
          value={names[field]}
          onChange={put(field)}
          fault={faultOf(field)}
          isReadOnly={!mayChange}
        />
      ))}
      {mayChange ? (
        <div className="whole">
          <TimeZoneField value={names.timeZone} onChange={put('timeZone')} />
          {names.timeZone !== settings.timeZone && (
            <Small>
              Deadlines stay at the same moment. They are shown to everyone in the time of {names.timeZone}.
            </Small>
          )}
        </div>
      ) : (
        <p className="whole">
          Time zone: <b>{settings.timeZone}</b>
        </p>
      )}
      {problem && !problem.issues && (
        <div className="whole">
          <ProblemStrip of={change.error} />
        </div>
      )}
      {mayChange && (isChanged || problem) && (
        <div className="whole row">
          <Button type="submit" kind="main" isDisabled={change.isBusy || !isChanged}>
            Save course
          </Button>
          <Button onPress={startAnew}>Cancel</Button>
        </div>
      )}
    </Form>
  );
}
