import { styled } from 'styled-components';
import type { QuestionnaireSettings } from '@jigsaw/contract/questionnaire';
import { QuestionField } from './AnswerForm.js';

const List = styled.div`
  display: grid;
  gap: 10px;
  margin-top: 14px;
`;

/** The questions as they will be answered. */
export default function Foreseen({ settings }: { readonly settings: QuestionnaireSettings }) {
  return (
    <List>
      {settings.questions.map((question, at) => (
        <QuestionField
          key={question.id}
          number={at + 1}
          question={question}
          answer={undefined}
          isDisabled
          onChange={() => undefined}
        />
      ))}
    </List>
  );
}
