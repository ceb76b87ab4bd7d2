import { Module } from '@nestjs/common';
import { Kinds, ReleaseModule } from '../release/index.js';
import { QuestionnaireController } from './questionnaire.controller.js';
import { haveAnswers, questionnaireKind } from './questionnaire.kind.js';
import { QuestionnaireService } from './questionnaire.service.js';

@Module({
  imports: [ReleaseModule],
  controllers: [QuestionnaireController],
  providers: [QuestionnaireService],
})
export class QuestionnaireModule {
  constructor(kinds: Kinds) {
    kinds.register(questionnaireKind);
    kinds.addTrace('work', haveAnswers);
  }
}
