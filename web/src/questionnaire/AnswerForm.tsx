import { useRef, useState } from 'react';
import { styled } from 'styled-components';
import { Answers } from '@jigsaw/contract/questionnaire';
import type { Question, QuestionnaireView } from '@jigsaw/contract/questionnaire';
import type { Answer } from '@jigsaw/core/questionnaire';
import { faultsOf, isAnswered, onlyAnswered } from '@jigsaw/core/questionnaire';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { Button, Muted, Small } from '../look/index.js';
import { useKeptDraft } from '../page/index.js';

const Form = styled.form`
  display: grid;
  gap: 14px;
  footer {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 14px;
  }
  @media (max-width: 560px) {
    footer > button {
      min-height: 44px;
    }
  }
`;
const Frame = styled.fieldset`
  min-width: 0;
  margin: 0;
  padding: 14px 18px 16px;
  border: var(--hair);
  border-radius: var(--r-3);
  background: var(--surface);
  &[data-fault] {
    border-color: var(--ink);
    box-shadow: inset 3px 0 0 var(--ink);
  }
  legend {
    padding: 0;
    float: left;
    width: 100%;
    margin-bottom: 10px;
    font: 620 15px/21px var(--font-text);
    overflow-wrap: anywhere;
  }
  legend + * {
    clear: both;
  }
  .choices label {
    display: flex;
    align-items: baseline;
    gap: 10px;
    min-height: 32px;
    padding: 5px 0;
    cursor: pointer;
    overflow-wrap: anywhere;
  }
  .steps {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  .steps label {
    position: relative;
    display: grid;
    place-items: center;
    min-width: 44px;
    height: 44px;
    border: 1px solid var(--edge);
    border-radius: var(--r-2);
    font: 650 15px/1 var(--font-text);
    cursor: pointer;
  }
  .steps label:has(:checked) {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--on-ink);
  }
  .steps label:has(:focus-visible) {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  .steps input {
    position: absolute;
    inset: 0;
    opacity: 0;
    cursor: pointer;
  }
  .steps:has(:disabled) label {
    cursor: default;
  }
  .scale {
    width: fit-content;
    max-width: 100%;
  }
  .ends {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 2px 16px;
    margin-bottom: 8px;
  }
  textarea,
  input[type='text'] {
    width: 100%;
    padding: 8px 10px;
    border: 1px solid var(--edge);
    border-radius: var(--r-2);
    background: var(--surface);
    font: var(--t-15);
  }
  textarea {
    min-height: 110px;
    resize: vertical;
  }
  .fault {
    display: block;
    margin-top: 8px;
    font: 620 13px/18px var(--font-text);
  }
  @media (max-width: 560px) {
    padding: 12px 14px 14px;
  }
`;

/** Under which name what is typed is kept. */
export const draftOf = (copyId: string): string => `answers ${copyId}`;

interface AnswerFormProps {
  readonly copyId: string;
  readonly isAnonymous: boolean;
  readonly questions: readonly Question[];
  readonly view: QuestionnaireView;
  readonly isBusy: boolean;
  /** Why they were refused; undefined: they were not. */
  readonly error: unknown;
  /** @returns whether they were taken. */
  readonly onSend: (answers: Answers) => Promise<boolean>;
}

/** The questions as a student answers them. What is typed outlives a reload until it is sent. */
export function AnswerForm({ copyId, isAnonymous, questions, view, isBusy, error, onSend }: AnswerFormProps) {
  const { mine, mayAnswer } = view;
  const sent = mine?.answers ?? {};
  const [answers, setAnswers, forget] = useKeptDraft(draftOf(copyId), Answers, sent);
  const [isTried, setTried] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const faults = faultsOf(questions, answers);
  const inOrder = (given: Answers) => JSON.stringify(onlyAnswered(questions, given));
  const isChanged = inOrder(answers) !== inOrder(sent);
  const open = questions.filter(({ id }) => !isAnswered(answers[id])).length;
  const answer = (id: string, given: Answer | null) => {
    const { [id]: _before, ...others } = answers;
    setAnswers(given === null ? others : { ...others, [id]: given });
  };
  const send = async () => {
    setTried(true);
    if (faults.size > 0) {
      const first = questions.find(({ id }) => faults.has(id));
      form.current
        ?.querySelector<HTMLElement>(`[data-question="${first?.id}"] :is(input, textarea)`)
        ?.focus();
      return;
    }
    if (await onSend(answers)) forget();
  };
  return (
    <Form
      ref={form}
      noValidate
      aria-label="Your answers"
      // Enter in a field ends a line for many. What cannot be taken back is sent by its button alone.
      onSubmit={(event) => event.preventDefault()}
    >
      {questions.map((question, at) => {
        // What is missing is said once it is missed; what is wrong, at once.
        const fault = isTried || isAnswered(answers[question.id]) ? faults.get(question.id) : undefined;
        return (
          <QuestionField
            key={question.id}
            number={at + 1}
            question={question}
            answer={answers[question.id]}
            fault={fault}
            isDisabled={!mayAnswer}
            onChange={(given) => answer(question.id, given)}
          />
        );
      })}
      {error !== undefined && <ProblemStrip of={error} />}
      {mayAnswer && (
        <footer>
          <Button
            kind="main"
            isDisabled={isBusy || (mine !== null && !isChanged)}
            onPress={() => void send()}
          >
            {isBusy ? 'Sending…' : mine ? 'Send changed answers' : 'Send answers'}
          </Button>
          {mine && isChanged && <Button onPress={forget}>Discard changes</Button>}
          <Muted role="status">
            {isTried && faults.size > 0
              ? `${counted(faults.size, 'question')} to look at again.`
              : isAnonymous
                ? 'Once sent they cannot be changed, since no one can tell which are yours.'
                : open > 0 && !mine
                  ? `${counted(open, 'question')} open.`
                  : ''}
          </Muted>
        </footer>
      )}
    </Form>
  );
}

interface QuestionFieldProps extends InputProps {
  readonly number: number;
  readonly fault?: string | undefined;
  readonly isDisabled: boolean;
}

/** One question with what is answered to it. */
export function QuestionField({ number, question, answer, fault, isDisabled, onChange }: QuestionFieldProps) {
  const faultId = `fault-${question.id}`;
  return (
    <Frame
      data-question={question.id}
      data-fault={fault === undefined ? undefined : ''}
      aria-describedby={fault === undefined ? undefined : faultId}
      disabled={isDisabled}
    >
      <legend>
        {number}. {question.text} {question.isRequired && <Small>Has to be answered</Small>}
      </legend>
      <Input question={question} answer={answer} onChange={onChange} />
      {!isDisabled && canBeCleared(question) && isAnswered(answer) && (
        <Button kind="quiet" isSmall aria-label={`Clear question ${number}`} onPress={() => onChange(null)}>
          Clear
        </Button>
      )}
      {fault !== undefined && (
        <span className="fault" id={faultId}>
          {fault}
        </span>
      )}
    </Frame>
  );
}

/** What was chosen by mistake; texts and boxes are emptied where they are. */
const canBeCleared = (question: Question) =>
  question.kind === 'scale' || (question.kind === 'choice' && !question.isSeveral);

interface InputProps {
  readonly question: Question;
  readonly answer: Answer | undefined;
  readonly onChange: (answer: Answer | null) => void;
}

function Input({ question, answer, onChange }: InputProps) {
  switch (question.kind) {
    case 'choice': {
      // A choice that was removed meanwhile could not be seen, nor unchosen.
      const known = new Set(question.options.map(({ id }) => id));
      const chosen = typeof answer === 'object' ? answer.filter((id) => known.has(id)) : [];
      return (
        <div className="choices">
          {question.options.map(({ id, text }) => (
            <label key={id}>
              <input
                type={question.isSeveral ? 'checkbox' : 'radio'}
                name={question.id}
                checked={chosen.includes(id)}
                onChange={(event) => {
                  const rest = question.isSeveral ? chosen.filter((each) => each !== id) : [];
                  onChange(event.target.checked ? [...rest, id] : rest);
                }}
              />
              {text}
            </label>
          ))}
        </div>
      );
    }
    case 'scale':
      return (
        <div className="scale">
          {(question.low !== '' || question.high !== '') && (
            <div className="ends">
              <Small>1: {question.low || 'the least'}</Small>
              <Small>
                {question.steps}: {question.high || 'the most'}
              </Small>
            </div>
          )}
          <div className="steps">
            {Array.from({ length: question.steps }, (_, index) => index + 1).map((step) => (
              <label key={step}>
                <input
                  type="radio"
                  name={question.id}
                  checked={answer === step}
                  onChange={() => onChange(step)}
                />
                {step}
              </label>
            ))}
          </div>
        </div>
      );
    case 'short':
    case 'long': {
      const given = {
        'aria-label': question.text,
        value: typeof answer === 'string' ? answer : '',
        onChange: (event: { target: { value: string } }) => onChange(event.target.value),
      };
      return question.kind === 'short' ? <input type="text" {...given} /> : <textarea {...given} />;
    }
  }
}
