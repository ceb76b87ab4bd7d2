import type { ReactNode } from 'react';
import { lazy, Suspense, useState } from 'react';
import { styled } from 'styled-components';
import type { CopyAnswers, Question } from '@jigsaw/contract/questionnaire';
import { leastAnonymous, sayAnswer, tally } from '@jigsaw/core/questionnaire';
import { counted, namesTogether } from '@jigsaw/core/text';
import { Button, Muted, PersonName, Small } from '../look/index.js';

const BarsChart = lazy(() => import('./BarsChart.js'));

const Cards = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 480px), 1fr));
  align-items: start;
  gap: 14px;
  > section {
    padding: 14px 18px 16px;
    border: var(--hair);
    border-radius: var(--r-3);
    background: var(--surface);
  }
  > [data-text] {
    grid-column: 1 / -1;
  }
  h2 {
    font: 620 15px/21px var(--font-text);
    overflow-wrap: anywhere;
  }
  .bars {
    display: grid;
    grid-template-columns: minmax(180px, 2fr) minmax(0, 3fr);
    gap: 4px 16px;
    align-items: start;
    margin-top: 8px;
  }
  .bars li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 10px;
    height: 32px;
    align-items: center;
  }
  .bars li span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .texts {
    margin-top: 10px;
  }
  .texts ul {
    display: grid;
    gap: 8px;
    margin-bottom: 8px;
  }
  .texts li {
    padding: 8px 12px;
    border-left: 2px solid var(--line);
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  .texts small {
    display: block;
    color: var(--ink-2);
    font: var(--t-12);
  }
  details {
    margin-top: 8px;
  }
  summary {
    cursor: pointer;
    font: var(--t-12);
    color: var(--ink-2);
  }
  details li {
    display: grid;
    grid-template-columns: minmax(120px, 1fr) 2fr;
    gap: 12px;
    padding: 4px 0;
    border-bottom: var(--hair);
  }
  @media (max-width: 560px) {
    .bars {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

interface ResultsProps {
  readonly questions: readonly Question[];
  readonly isAnonymous: boolean;
  /** One copy, or several together. */
  readonly copies: readonly CopyAnswers[];
}

/** What was answered, question by question. */
export function Results({ questions, isAnonymous, copies }: ResultsProps) {
  const sheets = copies.flatMap((copy) =>
    copy.sheets.map((sheet) => ({ ...sheet, group: copies.length > 1 ? (copy.group?.name ?? null) : null })),
  );
  return (
    <>
      <Summary copies={copies} isAnonymous={isAnonymous} />
      {sheets.length > 0 && (
        <Cards>
          {questions.map((question, at) => {
            const { answered, middle } = tally(question, sheets.map(({ answers }) => answers)); // prettier-ignore
            return (
              <section
                key={question.id}
                aria-label={`Question ${at + 1}`}
                data-text={isText(question) || undefined}
              >
                <h2>
                  {at + 1}. {question.text}
                </h2>
                <Small>
                  {answered} of {counted(sheets.length, 'answer sheet')}
                  {middle !== null && `, in the middle: ${middle}`}
                </Small>
                {isText(question) ? (
                  <Texts question={question} sheets={sheets} />
                ) : (
                  <>
                    <Bars question={question} sheets={sheets} />
                    {!isAnonymous && <WhoChose question={question} sheets={sheets} />}
                  </>
                )}
              </section>
            );
          })}
        </Cards>
      )}
    </>
  );
}

const isText = ({ kind }: Question) => kind === 'short' || kind === 'long';

type Sheet = CopyAnswers['sheets'][number] & { readonly group: string | null };
interface OfQuestion {
  readonly question: Question;
  readonly sheets: readonly Sheet[];
}

function Summary({ copies, isAnonymous }: Omit<ResultsProps, 'questions'>) {
  const answered = copies.reduce((sum, copy) => sum + copy.answered, 0);
  const members = copies.reduce((sum, copy) => sum + copy.members, 0);
  const waiting = copies.flatMap((copy) => copy.waiting ?? []).map(({ name }) => name);
  const heldBack = copies.filter((copy) => copy.isHeldBack);
  return (
    <section aria-label="Who has answered">
      <p>
        <b>
          {answered} of {members} have answered.
        </b>{' '}
        {waiting.length > 0 && <Muted>Waiting for {namesTogether(waiting, 8)}.</Muted>}
      </p>
      {isAnonymous && heldBack.length > 0 && (
        <p>
          {copies.length === 1
            ? `Answers are shown once ${leastAnonymous} have answered, so that no one can be told apart.`
            : `Left out, as fewer than ${leastAnonymous} have answered there: ${heldBack.map((copy) => copy.group?.name ?? 'all').join(', ')}.`}
        </p>
      )}
    </section>
  );
}

function Bars({ question, sheets }: OfQuestion) {
  const { counts, answered } = tally(question, sheets.map(({ answers }) => answers)); // prettier-ignore
  const bars = labelsOf(question).map((label, at) => ({ label, count: counts[at] ?? 0 }));
  return (
    <div className="bars">
      <ul>
        {bars.map(({ label, count }, at) => (
          <li key={at}>
            <span title={label}>{label}</span>
            <Small>
              {count} · {answered === 0 ? 0 : Math.round((count / answered) * 100)}%
            </Small>
          </li>
        ))}
      </ul>
      <Suspense fallback={<span />}>
        <BarsChart bars={bars} of={answered} />
      </Suspense>
    </div>
  );
}

function labelsOf(question: Question): readonly string[] {
  if (question.kind === 'choice') return question.options.map(({ text }) => text);
  if (question.kind !== 'scale') return [];
  const { steps, low, high } = question;
  const meaning = (step: number) => (step === 1 ? low : step === steps ? high : '');
  return Array.from({ length: steps }, (_, index) => {
    const means = meaning(index + 1);
    return means === '' ? String(index + 1) : `${index + 1}: ${means}`;
  });
}

function WhoChose({ question, sheets }: OfQuestion) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Who answered what</summary>
      {isOpen && (
        <SomeAtATime
          items={sheets}
          show={(sheet) => (
            <>
              <Author sheet={sheet} />
              <span>{sayAnswer(question, sheet.answers[question.id]) || <Muted>no answer</Muted>}</span>
            </>
          )}
        />
      )}
    </details>
  );
}

function Texts({ question, sheets }: OfQuestion) {
  const given = sheets.filter((sheet) => sayAnswer(question, sheet.answers[question.id]) !== '');
  if (given.length === 0) return <Muted> Nothing written.</Muted>;
  return (
    <div className="texts">
      <SomeAtATime
        items={given}
        show={(sheet) => (
          <>
            <bdi>{sayAnswer(question, sheet.answers[question.id])}</bdi>
            <small>
              <Author sheet={sheet} />
            </small>
          </>
        )}
      />
    </div>
  );
}

const atATime = 40;

/** A class of hundreds answers in hundreds of lines; no one reads more than some at once. */
function SomeAtATime({
  items,
  show,
}: {
  readonly items: readonly Sheet[];
  readonly show: (item: Sheet) => ReactNode;
}) {
  const [most, setMost] = useState(atATime);
  const left = items.length - most;
  return (
    <>
      <ul>
        {items.slice(0, most).map((item, at) => (
          <li key={at}>{show(item)}</li>
        ))}
      </ul>
      {left > 0 && (
        <Button isSmall onPress={() => setMost(most + atATime)}>
          Show {Math.min(atATime, left)} more of {left}
        </Button>
      )}
    </>
  );
}

function Author({ sheet: { by, group } }: { readonly sheet: Sheet }) {
  return (
    <span>
      {by && <PersonName name={by.name} reading={by.reading} />}
      {by && group !== null && ', '}
      {group}
    </span>
  );
}
