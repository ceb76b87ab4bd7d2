import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { AttachedFile } from '@jigsaw/contract/release';
import type { ActivityId, CopyId, FileId } from '@jigsaw/core/ids';
import type { FileRow, Upload } from '../files/index.js';
import { FilesService } from '../files/index.js';
import type { SignedIn } from '../identity/index.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { ActivitiesService } from './activities.service.js';
import { lockActivity } from './locks.js';
import { Gate } from './gate.js';
import { attached } from './knownFiles.js';
import { ActivityFileRow } from './release.rows.js';

interface Download {
  readonly file: FileRow;
  readonly chunks: AsyncIterable<Buffer>;
}

/** Files that staff attach to an activity. They reach its groups with its text, so not before that is published. */
@Injectable()
export class AttachedService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly activities: ActivitiesService,
    private readonly gate: Gate,
    private readonly files: FilesService,
  ) {}

  /** Uploads a file for an activity. It is attached once the activity is saved with it. */
  async add(person: SignedIn, activityId: ActivityId, upload: Upload): Promise<AttachedFile> {
    await this.activities.forStaff(person, activityId);
    const arrived = await this.files.receive(person.id, upload.source, upload.sizeBytes);
    try {
      return await this.unitOfWork.run(async ({ manager }) => {
        await lockActivity(manager, activityId);
        const file = await this.files.keep(manager, arrived, upload.name, upload.mediaType);
        await manager.insert(ActivityFileRow, { activityId, fileId: file.id });
        return attached(file);
      });
    } catch (error) {
      await this.files.discard(arrived);
      throw error;
    }
  }

  /** For staff who write the activity, also before anyone has it. */
  async ofActivity(person: SignedIn, activityId: ActivityId, fileId: FileId): Promise<Download> {
    await this.activities.forStaff(person, activityId);
    if (!(await this.dataSource.manager.existsBy(ActivityFileRow, { activityId, fileId })))
      throw problems.notFound();
    return this.download(fileId);
  }

  /** For those who have a copy. */
  async ofCopy(person: SignedIn, copyId: CopyId, fileId: FileId): Promise<Download> {
    const { activity } = await this.gate.enter(person, copyId);
    if (!activity.files.some((file) => file.id === fileId)) throw problems.notFound();
    return this.download(fileId);
  }

  private async download(fileId: FileId): Promise<Download> {
    const [file] = await this.files.named(this.dataSource.manager, [fileId]);
    if (!file) throw problems.notFound();
    return { file, chunks: this.files.chunksOf(file) };
  }
}
