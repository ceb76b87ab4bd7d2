import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { styled } from 'styled-components';
import type { Answers, QuestionnaireView } from '@jigsaw/contract/questionnaire';
import { QuestionnaireSettings } from '@jigsaw/contract/questionnaire';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { apiAddress, ProblemStrip, sitsIn } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Segments, Waiting } from '../look/index.js';
import { forgetKeptDraft, useAct } from '../page/index.js';
import { Brief, CopyFrame } from '../rooms/index.js';
import { AnswerForm, draftOf } from './AnswerForm.js';
import { useGiveAnswersMutation, useReadAllAnswersQuery, useReadAnswersQuery } from './questionnaireApi.js';
import { Results } from './Results.js';

const Room = styled.div`
  overflow: auto;
  padding: 20px 32px 32px;
  > div {
    max-width: 860px;
    &[data-wide] {
      max-width: 1240px;
    }
    display: grid;
    gap: 16px;
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`;
const State = styled.p`
  padding: 10px 14px;
  border-left: 3px solid var(--ink);
  background: var(--wash);
  border-radius: 0 var(--r-2) var(--r-2) 0;
`;
const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  a {
    display: inline-flex;
    align-items: center;
    gap: 6px;
  }
`;

/** Its members answer; staff read what was answered. */
export default function QuestionnairePage({ head }: { readonly head: CopyHead }) {
  const settings = QuestionnaireSettings.parse(head.settings);
  const view = useReadAnswersQuery(head.id);
  return (
    <CopyFrame head={head}>
      <Room>
        <div data-wide={view.data?.results ? '' : undefined}>
          <Brief head={head} />
          {view.error && <ProblemStrip of={view.error} onRetry={() => void view.refetch()} />}
          {!view.data && !view.error && <Waiting what="the questions" rows={4} />}
          {view.data &&
            (view.data.results ? (
              <OfStaff head={head} settings={settings} view={view.data} />
            ) : (
              <OfMember head={head} settings={settings} view={view.data} />
            ))}
        </div>
      </Room>
    </CopyFrame>
  );
}

interface PartProps {
  readonly head: CopyHead;
  readonly settings: QuestionnaireSettings;
  readonly view: QuestionnaireView;
}

function OfMember({ head, settings: { isAnonymous, questions }, view }: PartProps) {
  const { dates } = useCourse();
  const give = useAct(useGiveAnswersMutation(), { says: () => 'Answers sent', isRefusalShown: true });
  const { mine, hasAnswered, mayAnswer } = view;
  const isDone = isAnonymous && hasAnswered;
  // What was typed in another tab before it was sent from here would tell whose it is.
  useEffect(() => {
    if (isDone) forgetKeptDraft(draftOf(head.id));
  }, [isDone, head.id]);
  const send = async (answers: Answers) =>
    (await give({ copyId: head.id, body: { answers, version: mine?.version ?? 0, isAnonymous } })) !== null;
  if (isDone)
    return (
      <State role="status">
        <b>You have answered. Thank you.</b> Your answers are among the others, and no one can tell which are
        yours.
      </State>
    );
  return (
    <>
      {mine && (
        <State role="status">
          <b>You answered {dates.dateTime(mine.at)}.</b> Staff read your answers.
          {mayAnswer ? ' You can change them while this is open.' : ''}
        </State>
      )}
      {isAnonymous && sitsIn() && (
        <State role="status">
          <b>Only they know whether they have answered.</b> This is what they see until they have.
        </State>
      )}
      {!mine && (
        <p>
          {!mayAnswer
            ? 'It is closed. Answers can no longer be sent.'
            : isAnonymous
              ? 'Anonymous: no one, staff neither, can tell whose answers are whose.'
              : 'Staff see your answers with your name. The others in your group do not see them.'}
        </p>
      )}
      <AnswerForm
        key={mine?.version ?? 0}
        copyId={head.id}
        isAnonymous={isAnonymous}
        questions={questions}
        view={view}
        isBusy={give.isBusy}
        error={give.error}
        onSend={send}
      />
    </>
  );
}

function OfStaff({ head, settings: { isAnonymous, questions }, view }: PartProps) {
  const [whose, setWhose] = useState<'copy' | 'all'>('copy');
  const all = useReadAllAnswersQuery(head.activityId, { skip: whose === 'copy' });
  const copies = whose === 'copy' ? (view.results ? [view.results] : []) : all.data?.copies;
  return (
    <>
      <Tools>
        {head.others.length > 0 && (
          <Segments
            label="Whose answers"
            value={whose}
            choices={[
              { id: 'copy', label: head.group?.name ?? 'All' },
              { id: 'all', label: `All ${head.others.length + 1} groups` },
            ]}
            onChange={setWhose}
          />
        )}
        <a href={apiAddress(`activities/${head.activityId}/answers.csv`)} download>
          <Download size={15} aria-hidden="true" />
          Download all answers (CSV)
        </a>
      </Tools>
      {all.error && <ProblemStrip of={all.error} onRetry={() => void all.refetch()} />}
      {copies ? (
        <Results questions={questions} isAnonymous={isAnonymous} copies={copies} />
      ) : (
        !all.error && <Waiting what="the answers of all groups" rows={4} />
      )}
    </>
  );
}
