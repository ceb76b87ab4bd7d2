import type { SyntheticEvent } from 'react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { sure } from '@jigsaw/core/lists';
import { problemOf, ProblemStrip } from '../api/index.js';
import { Bar, Button, ButtonLink, Field, Page, Scroll, Waiting } from '../look/index.js';
import { useCourse, useReadRosterQuery } from '../course/index.js';
import { useCopyGroupSetMutation, useListGroupSetsQuery, useArchiveGroupSetMutation } from '../sets/index.js';
import { useAct } from '../page/index.js';
import { activitiesOf, ActivitiesForGroups } from './ActivitiesForGroups.js';
import { FillPart } from './FillPart.js';
import { GroupsPart } from './GroupsPart.js';
import { SetForecast } from './SetForecast.js';
import { SetPart } from './SetPart.js';
import {
  expertsOf,
  forecastOf,
  isTooMany,
  makesGroups,
  newSetOf,
  newTablesOf,
  useSetForm,
} from './setForm.js';
import { pathOfNext } from './SetReadyPage.js';
import type { Next, ReadyState } from './SetReadyPage.js';
import { useCreateGroupSetMutation, useDeriveExpertsMutation } from './setUpApi.js';

const Columns = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 404px;
  min-height: 100%;
  /* In a small or enlarged window one comes below the other, and the page scrolls. */
  @media (max-width: 900px) {
    display: block;
  }
`;
const Parts = styled.div`
  background: var(--surface);
`;
const AwayRow = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
`;
const Making = styled.div`
  margin-top: 16px;
  display: flex;
  justify-content: flex-end;
`;

/** By count or by size, with what will come of it shown before anything is made. */
export function NewSetPage() {
  const { course } = useCourse();
  const navigate = useNavigate();
  const sets = useListGroupSetsQuery(course.id);
  const archive = useAct(useArchiveGroupSetMutation());
  const [form, change] = useSetForm();
  const { fill, gifts } = form;
  const create = useAct(useCreateGroupSetMutation(), { isRefusalShown: true });
  const copy = useAct(useCopyGroupSetMutation(), { isRefusalShown: true });
  const derive = useAct(useDeriveExpertsMutation(), { isRefusalShown: true });
  const roster = useReadRosterQuery(course.id, { skip: fill !== 'experts' });
  if (!sets.data) return <Waiting what="the class" />;

  const { students } = sets.data;
  const original = sets.data.sets.find((set) => set.id === form.original) ?? sets.data.sets[0];
  const experts =
    fill === 'experts' && original && roster.data ? expertsOf(form, original.id, roster.data) : null;
  const isMade = makesGroups(form);
  const forecast = forecastOf(form, students);
  const refusal = create.error ?? copy.error ?? derive.error;
  const isBusy = create.isBusy || copy.isBusy || derive.isBusy;

  const bringBack = async (setId: string) => {
    if (await archive({ setId, isArchived: false })) void navigate(`../groups/${setId}`);
  };
  const make = () => {
    const withActivities = gifts.length > 0 && { activities: activitiesOf(gifts) };
    if (fill === 'copy')
      return copy({
        setId: sure(original).id,
        body: { name: form.name, withMembers: true, ...withActivities },
      });
    if (fill === 'experts')
      return derive({ setId: sure(original).id, body: { ...newTablesOf(form), ...withActivities } });
    return create({ courseId: course.id, body: { ...newSetOf(form), ...withActivities } });
  };
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const made = await make();
    if (!made) return;
    const { id, activities } = made;
    // Rules give everyone one place; where students may have several, places are dealt out in turn.
    const next: Next =
      fill === 'deal' ? (form.isSeveral ? 'deal-out' : 'deal') : fill === 'file' ? fill : 'board';
    if (activities.length > 0)
      void navigate(`../groups/${id}/ready`, { state: { activities, next } satisfies ReadyState });
    else void navigate(pathOfNext(id, next));
  };
  return (
    <Page>
      <Bar>
        <h1>New group set</h1>
        <span className="grow" />
        <ButtonLink kind="quiet" to="../groups">
          Cancel
        </ButtonLink>
      </Bar>
      <Scroll>
        <Columns onSubmit={(event) => void submit(event)}>
          <Parts>
            <SetPart title="What" says="What the set is for">
              <Field
                label="Name of the set"
                placeholder="Bench teams"
                value={form.name}
                onChange={(name) => change({ name })}
                isRequired
                autoFocus
                fault={
                  create.error === undefined
                    ? undefined
                    : problemOf(create.error).issues?.find((issue) => issue.path === 'name')?.message
                }
              />
            </SetPart>
            <FillPart form={form} onChange={change} sets={sets.data.sets} original={original} />
            {isMade && <GroupsPart form={form} onChange={change} students={students} />}
            <SetPart title="Each gets" says="With the set (optional)">
              <ActivitiesForGroups gifts={gifts} onChange={(next) => change({ gifts: next })} />
            </SetPart>
            {sets.data.archived.length > 0 && (
              <SetPart title="Archived" says="Restore one as it was">
                {sets.data.archived.map((each) => (
                  <AwayRow key={each.id}>
                    <b>{each.name}</b>
                    <Button
                      isSmall
                      onPress={() => void bringBack(each.id)}
                      aria-label={`Restore ${each.name}`}
                    >
                      Restore
                    </Button>
                  </AwayRow>
                ))}
              </SetPart>
            )}
          </Parts>
          <SetForecast form={form} students={students} original={original} experts={experts}>
            {refusal !== undefined && <ProblemStrip of={refusal} />}
            <Making>
              <Button
                type="submit"
                kind="main"
                isDisabled={
                  (isMade && (!forecast.ok || isTooMany(forecast))) ||
                  (fill === 'experts' && !experts) ||
                  isBusy ||
                  form.name.trim() === ''
                }
              >
                {!isMade
                  ? 'Create group set'
                  : forecast.ok
                    ? `Create ${forecast.sizes.length} groups`
                    : 'Create groups'}
              </Button>
            </Making>
          </SetForecast>
        </Columns>
      </Scroll>
    </Page>
  );
}
