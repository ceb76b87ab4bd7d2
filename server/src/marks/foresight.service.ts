import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { ForeseeMarks, ForeseenMarks } from '@jigsaw/contract/marks';
import type { ActivityId } from '@jigsaw/core/ids';
import type { GivenMark, MarkChange } from '@jigsaw/core/marks';
import { changesBetween, markToGive, sayChange } from '@jigsaw/core/marks';
import { authorsById } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import type { CopyAccess } from '../release/index.js';
import { ActivitiesService, asIf, Gate, withContent } from '../release/index.js';
import { groupTags } from '../sets/index.js';
import type { Marking } from './markings.js';
import { Markings } from './markings.js';

/** Tells what a change of an activity does to marks that students have, before it is made. */
@Injectable()
export class ForesightService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly activities: ActivitiesService,
    private readonly markings: Markings,
  ) {}

  async foresee(
    person: SignedIn,
    activityId: ActivityId,
    { extension }: ForeseeMarks,
  ): Promise<ForeseenMarks> {
    const activity = await this.activities.forStaff(person, activityId);
    const { entered } = await this.gate.enterAll(person, activity.courseId);
    const copies = entered.filter((access) => access.activity.id === activityId);
    const next = activity.inWork ? withContent(activity, activity.inWork) : activity;
    const after = extension
      ? copies.flatMap((access) => withExtension(access, extension))
      : copies.map((access) => asIf(access, { activity: next }));
    return { changes: await this.said(await this.changed(copies, after)) };
  }

  private async changed(before: readonly CopyAccess[], after: readonly CopyAccess[]) {
    const { manager } = this.dataSource;
    const then = new Map(
      (await this.markings.of(after, manager)).map((marking) => [keyOf(marking), marking]),
    );
    const ids = new Set(after.map((access) => access.copy.id));
    const now = await this.markings.of(
      before.filter((access) => ids.has(access.copy.id)),
      manager,
    );
    return now.flatMap((marking) => {
      const would = then.get(keyOf(marking));
      return changesBetween(toGive(marking), would ? toGive(would) : new Map()).flatMap((change) => {
        const from = marking.sheet.given.get(change.enrolmentId);
        return from ? [{ groupId: marking.access.copy.groupId, change: { ...change, from } }] : [];
      });
    });
  }

  private async said(
    changed: readonly { readonly groupId: CopyAccess['copy']['groupId']; readonly change: MarkChange }[],
  ): Promise<ForeseenMarks['changes']> {
    if (changed.length === 0) return [];
    const { manager } = this.dataSource;
    const member = await authorsById(
      manager,
      changed.map(({ change }) => change.enrolmentId),
      '',
    );
    const tags = await groupTags(
      manager,
      changed.map(({ groupId }) => groupId),
    );
    return changed
      .map(({ groupId, change }) => ({
        group: (groupId && tags.get(groupId)) ?? null,
        member: member(change.enrolmentId),
        says: sayChange(change),
      }))
      .sort(
        (a, b) =>
          (a.group?.number ?? 0) - (b.group?.number ?? 0) || a.member.name.localeCompare(b.member.name),
      );
  }
}

/** Copies that it would change, as they would be. */
function withExtension(access: CopyAccess, extension: NonNullable<ForeseeMarks['extension']>): CopyAccess[] {
  const granted = extension.due === null ? null : { due: new Date(extension.due), closes: null, reason: '' };
  if ('groupId' in extension)
    return access.copy.groupId === extension.groupId ? [asIf(access, { extension: granted })] : [];
  const ownTime = new Map(access.ownTime);
  if (granted) ownTime.set(extension.enrolmentId, granted);
  else ownTime.delete(extension.enrolmentId);
  return [asIf(access, { ownTime })];
}

const keyOf = ({ access, unit }: Marking) => `${access.copy.id} ${unit}`;

const toGive = ({ sheet }: Marking): ReadonlyMap<string, GivenMark> =>
  new Map(sheet.credited.map((id) => [id, markToGive(sheet, id)]));
