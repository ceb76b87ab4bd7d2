import { useMemo, useState } from 'react';
import type { SyntheticEvent } from 'react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { z } from 'zod';
import { AudienceTerms, AudienceView } from '@jigsaw/contract/audiences';
import type { AudienceDraft } from '@jigsaw/contract/audiences';
import type { RosterView } from '@jigsaw/contract/roster';
import { may } from '@jigsaw/core/course';
import { only } from '@jigsaw/core/lists';
import { namesTogether } from '@jigsaw/core/text';
import { problemOf, ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Field, FootBar, Muted, Part } from '../look/index.js';
import { WriteSheet } from '../messages/index.js';
import { useAct, useKeptDraft } from '../page/index.js';
import {
  useCreateAudienceMutation,
  useDeleteAudienceMutation,
  useEditAudienceMutation,
  useRestoreAudienceMutation,
  useWhoIsInAudienceQuery,
} from './audiencesApi.js';
import { namesOf, termChoices } from './termChoices.js';
import { TermLines } from './TermLines.js';
import { WhoIsInList } from './WhoIsInList.js';

const Frame = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
  min-width: 0;
  > div {
    overflow: auto;
    background: var(--surface);
  }
  > footer {
    grid-column: 1 / -1;
  }
  @media (max-width: 900px) {
    display: block;
    > div,
    > section {
      overflow: visible;
    }
    > footer {
      position: sticky;
      bottom: 0;
    }
  }
`;

const fields = ['name', 'include', 'exclude'] as const;
const empty: AudienceDraft = { name: '', include: [], exclude: [] };
/** What was changed and not saved, and the version that it answers. */
const Kept = AudienceTerms.extend({ name: z.string() }).partial().extend({ basedOn: z.number() });
type Kept = z.infer<typeof Kept>;
const nothing: Kept = { basedOn: 0 };

interface AudienceEditorProps {
  /** null: a new one. */
  readonly audience: AudienceView | null;
  readonly audiences: readonly AudienceView[];
  readonly roster: RosterView;
  readonly mayChange: boolean;
}

/** An audience as sentences, beside who is in it at this moment. */
export function AudienceEditor({ audience, audiences, roster, mayChange }: AudienceEditorProps) {
  const { course } = useCourse();
  const navigate = useNavigate();
  // What is not saved outlives a look at another audience, and a reload.
  const [{ basedOn, ...typed }, keep, drop] = useKeptDraft<Kept>(
    `audience ${audience?.id ?? `new ${course.id}`}`,
    Kept,
    nothing,
  );
  const saved: AudienceDraft = audience ? only(audience, fields) : empty;
  const draft = { ...saved, ...typed };
  const isChanged = fields.some((field) => JSON.stringify(draft[field]) !== JSON.stringify(saved[field]));
  const { data: members, error: unanswered } = useWhoIsInAudienceQuery({
    courseId: course.id,
    body: { include: draft.include, exclude: draft.exclude, audienceId: audience?.id ?? null },
  });
  const [isWriting, setWriting] = useState(false);
  const acts = useAudienceActs(audience, saved);
  const problem = acts.error === undefined ? null : problemOf(acts.error);
  const current = AudienceView.safeParse(problem?.current);
  const put = (change: Partial<AudienceDraft>) => {
    // It is an answer to what was there when the first of it was changed.
    keep({ ...typed, ...change, basedOn: isChanged ? basedOn : (audience?.version ?? 0) });
  };
  const save = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (!isChanged || !mayChange) return;
    // Those who were told of the conflict and save again mean it.
    const kept = await acts.save(draft, current.success ? current.data.version : basedOn);
    if (!kept) return;
    drop();
    if (!audience) void navigate(`../audiences/${kept.id}`, { replace: true });
  };
  const mayWrite = may(course.role, 'write-to-people');
  const ownId = audience?.id ?? null;
  // Some thousand lines in a large course: not again for every letter of the name.
  const names = useMemo(() => namesOf(roster, audiences), [roster, audiences]);
  const choices = useMemo(
    () => termChoices(roster, audiences, names, ownId),
    [roster, audiences, names, ownId],
  );
  const lines = (side: 'include' | 'exclude', label: string, placeholder: string) => (
    <TermLines
      label={label}
      placeholder={placeholder}
      terms={draft[side]}
      names={names}
      choices={choices}
      isLocked={!mayChange}
      onChange={(terms) => put({ [side]: terms })}
    />
  );
  return (
    <>
      {isWriting && members && (
        <WriteSheet
          people={members.people}
          onClose={() => setWriting(false)}
          onDone={() => setWriting(false)}
        />
      )}
      <Frame aria-label={audience?.name ?? 'New audience'} onSubmit={(event) => void save(event)}>
        <div>
          <Part>
            <header>
              <h2>Name</h2>
              <p>Seen by staff only</p>
            </header>
            <div>
              <Field
                label="Name of the audience"
                value={draft.name}
                onChange={(name) => put({ name })}
                isReadOnly={!mayChange}
                autoFocus={!audience}
                fault={problem?.issues?.find((issue) => issue.path === 'name')?.message}
              />
            </div>
          </Part>
          <Part>
            <header>
              <h2>In it</h2>
              <p>Anyone that one of these finds</p>
            </header>
            <div>{lines('include', 'In it', 'Bench teams, Crock, a name, Mon am…')}</div>
          </Part>
          <Part>
            <header>
              <h2>Except</h2>
              <p>Anyone that one of these finds is removed</p>
            </header>
            <div>{lines('exclude', 'Except', 'No one is removed yet')}</div>
          </Part>
          {members?.circle && (
            <ProblemStrip>
              It would contain itself: {members.circle.join(' → ')}. Remove one of these lines.
            </ProblemStrip>
          )}
          {unanswered !== undefined && <ProblemStrip of={unanswered} />}
          {problem && !problem.issues && <ProblemStrip of={acts.error} />}
        </div>
        {members ? (
          <WhoIsInList members={members} names={names} onWrite={mayWrite ? () => setWriting(true) : null} />
        ) : (
          <div />
        )}

        <FootBar data-acts>
          {mayChange && (
            <>
              <Button
                kind="main"
                type="submit"
                isDisabled={!isChanged || draft.name.trim() === '' || acts.isBusy || members?.circle != null}
              >
                {audience ? 'Save audience' : 'Create audience'}
              </Button>
              {isChanged && (
                <Button
                  onPress={() => {
                    drop();
                    acts.reset();
                  }}
                >
                  Cancel
                </Button>
              )}
            </>
          )}
          <span className="grow" />
          {audience && audience.usedIn.length > 0 && <Muted>Used by {namesTogether(audience.usedIn)}</Muted>}
          {audience && mayChange && (
            <Button
              isDisabled={audience.usedIn.length > 0}
              onPress={() =>
                void acts.remove().then((isGone) => {
                  if (isGone) void navigate('../audiences');
                })
              }
            >
              Delete audience
            </Button>
          )}
        </FootBar>
      </Frame>
    </>
  );
}

/** What can be done with an audience, each with its way back. */
function useAudienceActs(audience: AudienceView | null, saved: AudienceDraft) {
  const { course } = useCourse();
  const back = useAct(useEditAudienceMutation());
  const takeBack = useAct(useDeleteAudienceMutation());
  const restore = useAct(useRestoreAudienceMutation());
  const create = useAct(useCreateAudienceMutation(), {
    says: ({ name }) => `${name} created`,
    isRefusalShown: true,
    undo:
      ({ id }) =>
      () =>
        takeBack({ audienceId: id }),
  });
  const edit = useAct(useEditAudienceMutation(), {
    says: ({ name }) => `${name} saved`,
    isRefusalShown: true,
    undo: (next) => () => back({ audienceId: next.id, body: { ...saved, version: next.version } }),
  });
  const remove = useAct(useDeleteAudienceMutation(), {
    says: () => `${saved.name} deleted`,
    undo: (_done, asked) => () => restore(asked),
  });
  return {
    save: (draft: AudienceDraft, version: number) =>
      audience
        ? edit({ audienceId: audience.id, body: { ...draft, version } })
        : create({ courseId: course.id, body: draft }),
    remove: async () => audience !== null && (await remove({ audienceId: audience.id })) !== null,
    error: audience ? edit.error : create.error,
    isBusy: edit.isBusy || create.isBusy || remove.isBusy,
    reset: () => {
      edit.reset();
      create.reset();
    },
  };
}
