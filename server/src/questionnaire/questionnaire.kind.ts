import type { EntityManager } from 'typeorm';
import { In } from 'typeorm';
import { QuestionnaireSettings } from '@jigsaw/contract/questionnaire';
import type { Progress } from '@jigsaw/contract/release';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import { questionnaireFacts, whyNotChanged } from '@jigsaw/core/questionnaire';
import { whoseFigures } from '@jigsaw/core/release';
import type { ActivityKind, Asked, CopyAccess } from '../release/index.js';
import { AnsweredRow } from './questionnaire.rows.js';

export const haveAnswers = (manager: EntityManager, copyIds: readonly CopyId[]): Promise<boolean> =>
  manager.existsBy(AnsweredRow, { copyId: In([...copyIds]) });

/** Who has answered, by copy. */
export async function whoAnswered(
  manager: EntityManager,
  copyIds: readonly CopyId[],
): Promise<(copyId: CopyId) => ReadonlySet<EnrolmentId>> {
  const rows = await manager.find(AnsweredRow, { where: { copyId: In([...copyIds]) } });
  const byCopy = groupedBy(rows, (row) => row.copyId);
  const ids = new Map([...byCopy].map(([id, own]) => [id, new Set(own.map((row) => row.enrolmentId))]));
  return (copyId) => ids.get(copyId) ?? noOne;
}

const noOne: ReadonlySet<EnrolmentId> = new Set();

/** Of an anonymous one no one but themselves learns even that they answered: someone who sits in as them is not told. */
export const isTheirsToKnow = ({ person, activity }: CopyAccess): boolean =>
  person.sitsIn === null || !QuestionnaireSettings.parse(activity.settings).isAnonymous;

/** As it stands for anyone who has not answered, without saying that they have not. */
const untold = ({ decision }: CopyAccess): Progress => ({
  state: 'not-started',
  isYours: false,
  owes: decision.part === 'member' && decision.access === 'open',
  at: null,
  late: null,
  done: null,
  asked: null,
});

/** Nothing that is answered is news to anyone by itself, and nothing of it is marked or stands beside a mark. */
export const questionnaireKind: ActivityKind<QuestionnaireSettings> = {
  ...questionnaireFacts,
  settings: QuestionnaireSettings,
  itemsSql: (copies) =>
    `SELECT "copyId", "copyId" AS "subjectId", 0 AS "version", NULL::uuid AS "authorId", NULL::uuid AS "ownerId", now() AS "at", '' AS "excerpt"
       FROM "answered" WHERE "copyId" = ANY(${copies}) AND false`,
  progress: async ({ accesses, manager, membersOf }: Asked) => {
    const answeredIn = await whoAnswered(
      manager,
      accesses.map(({ copy }) => copy.id),
    );
    return new Map(
      accesses.map((access): [string, Progress] => {
        const { copy, decision, viewer } = access;
        if (!isTheirsToKnow(access)) return [copy.id, untold(access)];
        const answered = answeredIn(copy.id);
        const whose = whoseFigures('answers-of-each', decision.part, viewer.role);
        const isMember = whose === 'own';
        const counted = whose === 'all' ? membersOf(copy.id) : isMember ? [viewer.enrolmentId] : [];
        const done = counted.filter((id) => answered.has(id)).length;
        const isDone = counted.length > 0 && done === counted.length;
        return [
          copy.id,
          {
            state: isDone ? 'done' : done > 0 ? 'in-work' : 'not-started',
            isYours: isMember,
            owes: isMember && decision.access === 'open' && !isDone,
            at: null,
            late: null,
            done: whose === 'all' ? done : null,
            asked: whose === 'all' ? counted.length : null,
          },
        ];
      }),
    );
  },
  works: () => Promise.resolve([]),
  evidence: () => Promise.resolve(new Map<string, never>()),
  whyNotChanged: async ({ manager, copyIds, before, after }) => {
    const why = whyNotChanged(before, after);
    return why !== null && (await haveAnswers(manager, copyIds)) ? why : null;
  },
};
