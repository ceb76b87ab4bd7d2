import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';
import type { EntityManager } from 'typeorm';
import { DataSource, In } from 'typeorm';
import { QuestionnaireSettings } from '@jigsaw/contract/questionnaire';
import type {
  AllAnswers,
  Answers,
  CopyAnswers,
  GiveAnswers,
  QuestionnaireView,
} from '@jigsaw/contract/questionnaire';
import type { ActivityId, CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import {
  faultsOf,
  isHeldBack,
  onlyAnswered,
  questionnaireFacts,
  questionnaireRules,
  sayAnswer,
} from '@jigsaw/core/questionnaire';
import { mayAct, whoseFigures } from '@jigsaw/core/release';
import { authorsById } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import type { Work } from '../platform/unitOfWork.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, hearersOf, holdActivity, membersOfCopies } from '../release/index.js';
import { groupTags, inOrderOf } from '../sets/index.js';
import { isTheirsToKnow, whoAnswered } from './questionnaire.kind.js';
import { AnsweredRow, AnswerSheetRow } from './questionnaire.rows.js';

@Injectable()
export class QuestionnaireService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly gate: Gate,
  ) {}

  async read(person: SignedIn, copyId: CopyId): Promise<QuestionnaireView> {
    return this.view(this.dataSource.manager, await this.enter(person, copyId));
  }

  /** One's own answers: by name they can be changed for as long as it is open; anonymous ones are sent once, as no one can tell whose they are. */
  async give(
    person: SignedIn,
    copyId: CopyId,
    { answers: given, version, isAnonymous: isPromised }: GiveAnswers,
  ): Promise<QuestionnaireView> {
    const access = await this.enter(person, copyId);
    if (!mayAct(questionnaireRules, 'answer', access.decision))
      throw access.decision.part === 'member'
        ? problems.closed()
        : problems.notYours('Its members answer this.');
    const { enrolmentId } = access.viewer;
    return this.unitOfWork.run(async (work) => {
      const { manager, record } = work;
      // Questions change before these answers or after them, not meanwhile.
      const { isAnonymous, questions } = settingsOf(await holdActivity(manager, access));
      // No one gives their name without knowing, nor is held to an answer that they believe no one can tell.
      if (isAnonymous !== isPromised)
        throw problems.conflict(
          `This was changed while you had it open. It is ${isAnonymous ? 'anonymous' : 'by name'} now. Read it again, then send.`,
        );
      const answers = json(checked(questions, given));
      const isFirst = await noteAnswered(manager, copyId, enrolmentId);
      if (isAnonymous) {
        if (!isFirst) throw problems.conflict('You have answered this already. Thank you.');
        await manager.insert(AnswerSheetRow, { ...anonymousSheet, id: randomUUID(), copyId, answers });
      } else await this.keepByName(work, access, answers, version);
      await record({
        type: 'answers.given',
        courseId: access.release.courseId,
        actorId: isAnonymous ? null : person.id,
        subjectId: copyId,
        ...hearersOf(access, enrolmentId),
      });
      return this.view(manager, access);
    });
  }

  private async keepByName(
    { manager, now }: Work,
    access: CopyAccess,
    answers: object,
    version: number,
  ): Promise<void> {
    const own = { copyId: access.copy.id, enrolmentId: access.viewer.enrolmentId };
    const known = await manager.findOne(AnswerSheetRow, {
      where: own,
      lock: { mode: 'pessimistic_write' },
    });
    if ((known?.version ?? 0) !== version)
      throw problems.staleWrite(
        await this.view(manager, access),
        'You sent other answers meanwhile, from another page. Look at them, then send again.',
      );
    const columns = { answers, version: version + 1, at: now };
    if (known) await manager.update(AnswerSheetRow, known.id, columns);
    else await manager.insert(AnswerSheetRow, { ...own, ...columns, id: randomUUID() });
  }

  /** What was answered in every copy of an activity that this person may read.
   * @throws not-found where they may read of no one's. */
  async all(person: SignedIn, activityId: ActivityId): Promise<AllAnswers> {
    return { copies: await this.results(this.dataSource.manager, await this.enterAll(person, activityId)) };
  }

  /** One line for each who answered. */
  async csv(person: SignedIn, activityId: ActivityId): Promise<string> {
    const accesses = await this.enterAll(person, activityId);
    const { isAnonymous, questions } = settingsOf(accesses[0]?.activity);
    const copies = await this.results(this.dataSource.manager, accesses);
    const rows = copies.flatMap(({ group, sheets }) =>
      sheets.map(({ by, answers }) => [
        group ? group.name : 'all',
        ...(isAnonymous ? [] : [by?.name ?? '']),
        ...questions.map((question) => sayAnswer(question, answers[question.id])),
      ]),
    );
    const header = ['Group', ...(isAnonymous ? [] : ['Name']), ...questions.map(({ text }) => text)];
    return stringify([header, ...rows], { bom: true, escape_formulas: true, record_delimiter: '\r\n' });
  }

  private async view(manager: EntityManager, access: CopyAccess): Promise<QuestionnaireView> {
    const { copy, viewer, decision } = access;
    const whose = whoseFigures('answers-of-each', decision.part, viewer.role);
    const own = { copyId: copy.id, enrolmentId: viewer.enrolmentId };
    const mine = whose === 'own' ? await manager.findOneBy(AnswerSheetRow, own) : null;
    return {
      mine: mine && { answers: mine.answers, version: mine.version, at: mine.at?.toISOString() ?? '' }, // prettier-ignore
      hasAnswered: whose === 'own' && isTheirsToKnow(access) && (await manager.existsBy(AnsweredRow, own)),
      mayAnswer: mayAct(questionnaireRules, 'answer', decision),
      results: whose === 'all' ? ((await this.results(manager, [access]))[0] ?? null) : null,
    };
  }

  /** Of copies of one activity; a few queries, however many there are. */
  private async results(manager: EntityManager, accesses: readonly CopyAccess[]): Promise<CopyAnswers[]> {
    const copyIds = accesses.map(({ copy }) => copy.id);
    const membersOf = await membersOfCopies(manager, accesses);
    const answeredIn = await whoAnswered(manager, copyIds);
    // Ids of sheets are drawn at random, so that their order tells nothing.
    const sheets = await manager.find(AnswerSheetRow, {
      where: { copyId: In(copyIds) },
      order: { id: 'ASC' },
    });
    const ofCopy = groupedBy(sheets, (sheet) => sheet.copyId);
    const tags = await groupTags(manager, accesses.map(({ copy }) => copy.groupId)); // prettier-ignore
    const named = sheets.flatMap((sheet) => sheet.enrolmentId ?? []);
    const nameOf = await authorsById(manager, [...named, ...copyIds.flatMap((id) => [...membersOf(id)])], '');
    const nameOnly = (id: EnrolmentId) => {
      const { name, reading } = nameOf(id);
      return { name, reading };
    };
    const views = accesses.map(({ copy, activity }): CopyAnswers => {
      const { isAnonymous } = settingsOf(activity);
      const members = membersOf(copy.id);
      const answered = answeredIn(copy.id);
      const own = ofCopy.get(copy.id) ?? [];
      const isHidden = isHeldBack(isAnonymous, own.length);
      const shown = own.map(({ enrolmentId, answers }) => ({ by: enrolmentId && nameOnly(enrolmentId), answers: answers })); // prettier-ignore
      return {
        copyId: copy.id,
        group: tags.get(copy.groupId ?? '') ?? null,
        members: members.length,
        answered: members.filter((id) => answered.has(id)).length,
        waiting: isAnonymous ? null : members.filter((id) => !answered.has(id)).map(nameOnly),
        isHeldBack: isHidden,
        sheets: isHidden ? [] : byName(shown),
      };
    });
    const inOrder = inOrderOf(tags);
    return views.sort((a, b) => inOrder(a.group, b.group));
  }

  private async enter(person: SignedIn, copyId: CopyId): Promise<CopyAccess> {
    const access = await this.gate.enter(person, copyId);
    if (access.activity.kind !== questionnaireFacts.name) throw problems.notFound();
    return access;
  }

  private async enterAll(person: SignedIn, activityId: ActivityId): Promise<readonly CopyAccess[]> {
    const accesses = (await this.gate.enterActivity(person, activityId)).filter(
      ({ activity, decision, viewer }) =>
        activity.kind === questionnaireFacts.name &&
        whoseFigures('answers-of-each', decision.part, viewer.role) === 'all',
    );
    if (accesses.length === 0) throw problems.notFound();
    return accesses;
  }
}

const anonymousSheet = { enrolmentId: null, at: null, version: 1 };

const settingsOf = (activity: CopyAccess['activity'] | undefined): QuestionnaireSettings =>
  QuestionnaireSettings.parse(activity?.settings ?? {});

/** @throws invalid-input that names each question by its number. */
function checked(questions: QuestionnaireSettings['questions'], given: Answers): Answers {
  const faults = faultsOf(questions, given);
  const issues = questions.flatMap(({ id }, index) => {
    const why = faults.get(id);
    return why === undefined ? [] : [{ path: `answers.${id}`, message: `Question ${index + 1}: ${why}` }];
  });
  if (issues.length > 0) throw problems.invalidInput(issues[0]?.message, { issues });
  const answers = onlyAnswered(questions, given);
  if (Object.keys(answers).length === 0) throw problems.invalidInput('Answer at least one question.');
  return answers;
}

/** @returns whether they had not before. */
async function noteAnswered(
  manager: EntityManager,
  copyId: CopyId,
  enrolmentId: EnrolmentId,
): Promise<boolean> {
  const rows = await manager.query<unknown[]>(
    `INSERT INTO "answered" ("copyId", "enrolmentId") VALUES ($1, $2) ON CONFLICT DO NOTHING RETURNING 1`,
    [copyId, enrolmentId],
  );
  return rows.length > 0;
}

const byName = (sheets: CopyAnswers['sheets']) =>
  sheets.toSorted((a, b) => (a.by?.name ?? '').localeCompare(b.by?.name ?? ''));
