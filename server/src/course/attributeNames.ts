import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { CourseId } from '@jigsaw/core/ids';
import { renameKind } from './attributes.js';

export interface RenamedAttribute {
  readonly from: string;
  readonly to: string;
}
type Follow = (manager: EntityManager, courseId: CourseId, renamed: RenamedAttribute) => Promise<void>;

/** What an attribute is called; whatever names one by its name follows, in the same transaction. */
@Injectable()
export class AttributeNames {
  private readonly followers: Follow[] = [];

  /** For areas above that keep names of attributes. */
  follow(follow: Follow): void {
    this.followers.push(follow);
  }

  async rename(manager: EntityManager, courseId: CourseId, renamed: RenamedAttribute): Promise<void> {
    await renameKind(manager, courseId, renamed);
    for (const follow of this.followers) await follow(manager, courseId, renamed);
  }
}
