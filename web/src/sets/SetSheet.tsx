import { useState } from 'react';
import { styled } from 'styled-components';
import { settingsOf } from '@jigsaw/contract/sets';
import type { GroupSetView, SetSettings, SignUpSettings } from '@jigsaw/contract/sets';
import { ProblemStrip } from '../api/index.js';
import { Button, Choice, DateTimeField, Field, Sheet, Small, useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useChangeGroupSetMutation } from './setsApi.js';

const Fields = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 14px;
  > .wide {
    grid-column: 1 / -1;
  }
`;
export const Tickbox = styled.label`
  display: flex;
  gap: 8px;
  align-items: baseline;
  cursor: pointer;
`;
const Offer = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 14px;
  padding: 12px;
  background: var(--sunk);
  border-radius: var(--r-2);
  > .wide {
    grid-column: 1 / -1;
  }
`;

const latecomerChoices = [
  { id: 'leave', label: 'Stay unplaced' },
  { id: 'smallest', label: 'Join the smallest group with room' },
] as const;

/** When and how students choose their own places. */
export function SignUpFields({
  value,
  onChange,
}: {
  readonly value: SignUpSettings | null;
  readonly onChange: (next: SignUpSettings | null) => void;
}) {
  const { course } = useCourse();
  return (
    <>
      <Tickbox>
        <input
          type="checkbox"
          checked={value !== null}
          onChange={(event) =>
            onChange(event.target.checked ? { opens: null, closes: null, showsNames: true } : null)
          }
        />
        <span>
          <b>Students choose their own place</b>
          <br />
          <Small>
            First come, first served. They can change until sign-up closes, you freeze the set, or their group
            hands in.
          </Small>
        </span>
      </Tickbox>
      {value && (
        <Offer>
          <DateTimeField
            label="Opens (empty: now)"
            value={value.opens}
            timeZone={course.timeZone}
            onChange={(opens) => onChange({ ...value, opens })}
          />
          <DateTimeField
            label="Closes (empty: when you freeze it)"
            value={value.closes}
            timeZone={course.timeZone}
            onChange={(closes) => onChange({ ...value, closes })}
          />
          <Tickbox className="wide">
            <input
              type="checkbox"
              checked={value.showsNames}
              onChange={(event) => onChange({ ...value, showsNames: event.target.checked })}
            />
            Everyone sees who is in each group. Otherwise only its members do
          </Tickbox>
        </Offer>
      )}
    </>
  );
}

/** What a set is called, what its members read, and how it is filled. */
export function SetSheet({ set, onClose }: { readonly set: GroupSetView; readonly onClose: () => void }) {
  const notice = useNotice();
  const [draft, setDraft] = useState<SetSettings>(() => settingsOf(set));
  const [change, { error, isLoading }] = useChangeGroupSetMutation();
  const put = (part: Partial<SetSettings>) => setDraft({ ...draft, ...part });
  const isChanged = JSON.stringify(draft) !== JSON.stringify(settingsOf(set));
  const save = async () => {
    const answer = await change({ setId: set.id, body: draft });
    if (!('data' in answer) || !answer.data) return;
    notice(`${answer.data.name} saved`);
    onClose();
  };
  return (
    <Sheet title={set.name} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isChanged && draft.name.trim() !== '') void save();
        }}
      >
        {error && <ProblemStrip of={error} />}
        <Fields>
          <Field
            label="Name of the set"
            value={draft.name}
            onChange={(name) => put({ name })}
            maxLength={120}
            autoFocus
          />
          <Field
            label="Places in each group"
            inputMode="numeric"
            value={draft.capacity === null ? '' : String(draft.capacity)}
            onChange={(text) =>
              put({
                capacity:
                  text.replace(/\D/g, '') === '' ? null : Math.max(1, Number(text.replace(/\D/g, ''))),
              })
            }
            hint="Empty: no limit. A group may have its own."
          />
          <div className="wide">
            <Field
              label="What it is for"
              lines={2}
              value={draft.description}
              onChange={(description) => put({ description })}
              maxLength={2000}
            />
            <Tickbox style={{ marginTop: 6 }}>
              <input
                type="checkbox"
                checked={draft.isDescriptionShown}
                onChange={(event) => put({ isDescriptionShown: event.target.checked })}
              />
              Members read this
            </Tickbox>
          </div>
          <div className="wide">
            <Choice
              label="Students who join later"
              value={draft.latecomers}
              choices={latecomerChoices}
              onChange={(latecomers) => put({ latecomers })}
            />
          </div>
          <div className="wide" style={{ display: 'grid', gap: 8 }}>
            {!set.isSynchronised && (
              <Tickbox>
                <input
                  type="checkbox"
                  checked={!draft.isExclusive}
                  onChange={(event) =>
                    put({ isExclusive: !event.target.checked, ...(event.target.checked && { signUp: null }) })
                  }
                />
                <span>
                  A student may be in several of its groups <Small>Otherwise everyone has one place.</Small>
                </span>
              </Tickbox>
            )}
            <Tickbox>
              <input
                type="checkbox"
                checked={draft.hasLeaders}
                onChange={(event) => put({ hasLeaders: event.target.checked })}
              />
              <span>
                Groups have a leader among their students{' '}
                <Small>One per group, chosen on the Board with L.</Small>
              </span>
            </Tickbox>
            <Tickbox>
              <input
                type="checkbox"
                checked={draft.membersName}
                onChange={(event) => put({ membersName: event.target.checked })}
              />
              <span>
                Members name their own group and give it a motto <Small>Until it is locked or frozen.</Small>
              </span>
            </Tickbox>
          </div>
          {!set.isSynchronised && !set.isFormedAtHandIn && draft.isExclusive && (
            <div className="wide" style={{ display: 'grid', gap: 10 }}>
              <SignUpFields value={draft.signUp} onChange={(signUp) => put({ signUp })} />
            </div>
          )}
        </Fields>
        <footer>
          <Button onPress={onClose}>Cancel</Button>
          <Button kind="main" type="submit" isDisabled={!isChanged || isLoading || draft.name.trim() === ''}>
            {isLoading ? 'Saving…' : 'Save'}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
