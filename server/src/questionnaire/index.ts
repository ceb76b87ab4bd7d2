export { QuestionnaireModule } from './questionnaire.module.js';
export { AnsweredRow, AnswerSheetRow } from './questionnaire.rows.js';
