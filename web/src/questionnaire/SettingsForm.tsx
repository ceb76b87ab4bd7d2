import { useRef } from 'react';
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import { styled } from 'styled-components';
import type { Question, QuestionnaireSettings } from '@jigsaw/contract/questionnaire';
import { NumberInLine, OptionCard, OptionCards, Sentence } from '../form/index.js';
import type { SettingsFormProps } from '../kinds/index.js';
import { Button, Field, Small, useNotice } from '../look/index.js';
import { aChoice, aQuestion, kindsOfQuestion, movedBy, wordOf } from './questions.js';

const List = styled.ol`
  display: grid;
  gap: 10px;
  margin: 12px 0;
  > li {
    display: grid;
    gap: 8px;
    padding: 10px 12px 12px;
    border: var(--hair);
    border-radius: var(--r-2);
    background: var(--surface);
  }
  header {
    display: flex;
    align-items: center;
    gap: 4px;
    > b {
      font: var(--h-17);
      margin-right: 6px;
    }
    > span {
      flex: 1;
    }
  }
  .choice {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 4px;
    align-items: end;
  }
  .ends {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
    gap: 8px;
  }
  .marks {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
  }
  label > input[type='checkbox'] {
    margin-right: 8px;
  }
`;
const Add = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
`;

/** Who can tell whose answers are whose, and what they answer. */
export default function SettingsForm({ settings, onChange }: SettingsFormProps<QuestionnaireSettings>) {
  const { questions } = settings;
  const notice = useNotice();
  const list = useRef<HTMLOListElement>(null);
  const put = (next: readonly Question[]) => onChange({ ...settings, questions: [...next] });
  const add = (kind: Question['kind']) => {
    put([...questions, aQuestion(kind)]);
    // It is there after the next rendering.
    setTimeout(() => list.current?.querySelector<HTMLElement>('li:last-child input')?.focus());
  };
  const remove = (question: Question, number: number) => {
    put(questions.filter((each) => each !== question));
    notice(`Question ${number} removed`, { label: 'Undo', do: () => put(questions) });
  };
  return (
    <>
      <OptionCards
        aria-label="Whose answers are whose"
        value={settings.isAnonymous ? 'anonymous' : 'named'}
        onChange={(value) => onChange({ ...settings, isAnonymous: value === 'anonymous' })}
      >
        <OptionCard value="named">
          <b>By name</b>
          <Small>Staff see who answered what. Students see their own, and can change them.</Small>
        </OptionCard>
        <OptionCard value="anonymous">
          <b>Anonymous</b>
          <Small>
            No one can tell whose answers are whose. Staff see those of a copy once 3 have answered in it.
          </Small>
        </OptionCard>
      </OptionCards>
      <List ref={list}>
        {questions.map((question, at) => {
          const number = at + 1;
          const change = (next: Question) => put(questions.map((each) => (each === question ? next : each)));
          return (
            <li key={question.id} aria-label={`Question ${number}`}>
              <header>
                <b>{number}</b>
                <span>{wordOf(question.kind)}</span>
                <Button
                  kind="quiet"
                  isIconOnly
                  aria-label={`Move question ${number} up`}
                  isDisabled={at === 0}
                  onPress={() => put(movedBy(questions, at, -1))}
                >
                  <ArrowUp size={15} aria-hidden="true" />
                </Button>
                <Button
                  kind="quiet"
                  isIconOnly
                  aria-label={`Move question ${number} down`}
                  isDisabled={number === questions.length}
                  onPress={() => put(movedBy(questions, at, 1))}
                >
                  <ArrowDown size={15} aria-hidden="true" />
                </Button>
                <Button
                  kind="quiet"
                  isIconOnly
                  aria-label={`Remove question ${number}`}
                  onPress={() => remove(question, number)}
                >
                  <X size={15} aria-hidden="true" />
                </Button>
              </header>
              <Field
                label="Question"
                value={question.text}
                onChange={(text) => change({ ...question, text })}
                maxLength={500}
              />
              <Details question={question} onChange={change} />
              <div className="marks">
                <Tick
                  label="Has to be answered"
                  isOn={question.isRequired}
                  onChange={(isRequired) => change({ ...question, isRequired })}
                />
                {question.kind === 'choice' && (
                  <Tick
                    label="Several can be chosen"
                    isOn={question.isSeveral}
                    onChange={(isSeveral) => change({ ...question, isSeveral })}
                  />
                )}
              </div>
            </li>
          );
        })}
      </List>
      <Add>
        <Small>Add a question:</Small>
        {kindsOfQuestion.map(({ kind, word }) => (
          <Button key={kind} isSmall onPress={() => add(kind)}>
            <Plus size={14} aria-hidden="true" />
            {word}
          </Button>
        ))}
      </Add>
    </>
  );
}

function Tick({
  label,
  isOn,
  onChange,
}: {
  readonly label: string;
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
}) {
  return (
    <label>
      <input type="checkbox" checked={isOn} onChange={(event) => onChange(event.target.checked)} />
      {label}
    </label>
  );
}

interface DetailsProps {
  readonly question: Question;
  readonly onChange: (question: Question) => void;
}

/** What can be chosen, or what the ends of a scale mean; texts have nothing more. */
function Details({ question, onChange }: DetailsProps) {
  if (question.kind === 'scale')
    return (
      <>
        <Sentence>
          From 1 to{' '}
          <NumberInLine
            label="Steps"
            value={question.steps}
            onChange={(steps) => onChange({ ...question, steps: Math.min(10, steps) })}
          />
        </Sentence>
        {question.steps < 2 && <Small>A scale has 2 to 10 steps.</Small>}
        <div className="ends">
          <Field
            label="1 means"
            value={question.low}
            onChange={(low) => onChange({ ...question, low })}
            maxLength={100}
          />
          <Field
            label={`${question.steps} means`}
            value={question.high}
            onChange={(high) => onChange({ ...question, high })}
            maxLength={100}
          />
        </div>
      </>
    );
  if (question.kind !== 'choice') return null;
  const { options } = question;
  const put = (next: typeof options) => onChange({ ...question, options: next });
  return (
    <>
      {options.map((option, at) => (
        <div className="choice" key={option.id}>
          <Field
            label={`Choice ${at + 1}`}
            value={option.text}
            onChange={(text) => put(options.map((each) => (each === option ? { ...option, text } : each)))}
            maxLength={300}
          />
          <Button
            kind="quiet"
            isIconOnly
            aria-label={`Remove choice ${at + 1}`}
            isDisabled={options.length <= 2}
            onPress={() => put(options.filter((each) => each !== option))}
          >
            <X size={15} aria-hidden="true" />
          </Button>
        </div>
      ))}
      <div>
        <Button isSmall isDisabled={options.length >= 20} onPress={() => put([...options, aChoice()])}>
          <Plus size={14} aria-hidden="true" />
          Choice
        </Button>
      </div>
    </>
  );
}
