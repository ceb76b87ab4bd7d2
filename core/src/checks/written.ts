import { Decimal } from 'decimal.js';
import type { ActivityId, GroupId } from '../ids/index.js';
import { mostOf } from '../marks/index.js';
import { groupsOfLine, onlyFor, reachesGroup } from '../release/index.js';
import type { ReleaseFacts } from '../release/index.js';
import type { RichTextNode } from '../text/index.js';
import type { Check, WrittenFacts } from './facts.js';

/** What stands in an activity and cannot have been meant so.
 * @param release null: a draft, which goes to no one yet.
 * @param setOf which set each group of the course is in. */
export function* checkWritten(
  activityId: ActivityId,
  written: WrittenFacts,
  release: ReleaseFacts | null,
  setOf: ReadonlyMap<GroupId, ReleaseFacts['audience']['include'][number] & { readonly kind: 'group' }>,
): Iterable<Check> {
  const { rubric, points, brief } = written;
  if (rubric !== null) {
    const sum = rubric.criteria.reduce((all, criterion) => all.plus(mostOf(criterion)), new Decimal(0));
    if (points === null || !sum.eq(points))
      yield { code: 'rubric-points', activityId, sum: sum.toString(), points };
  }
  const words = [...new Set(typedPlaceholders(brief))];
  if (words.length > 0) yield { code: 'typed-placeholder', activityId, words };
  for (const groupIds of linesOf(brief)) {
    const reaches = (groupId: GroupId) => {
      const group = setOf.get(groupId);
      return group !== undefined && (release === null || reachesGroup(release.audience, group));
    };
    const isForAll = release?.audience.include.some(({ kind }) => kind === 'class') ?? false;
    if (!groupIds.some((groupId) => (isForAll ? setOf.has(groupId) : reaches(groupId))))
      yield { code: 'line-for-no-one', activityId, groupIds };
  }
}

/** Words in braces that look like a placeholder and are only letters. */
const braced = /\{\{?\s*[a-z][a-z _-]{1,30}\s*\}?\}/giu;

function* typedPlaceholders(node: RichTextNode): Iterable<string> {
  if (node.type === 'codeBlock' || node.marks?.some(({ type }) => type === 'code')) return;
  for (const [found] of (node.text ?? '').matchAll(braced)) yield found;
  for (const child of node.content ?? []) yield* typedPlaceholders(child);
}

function* linesOf(node: RichTextNode): Iterable<readonly GroupId[]> {
  if (node.type === onlyFor) yield groupsOfLine(node);
  for (const child of node.content ?? []) yield* linesOf(child);
}
