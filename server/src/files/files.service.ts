import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { Inject, Injectable } from '@nestjs/common';
import { fileTypeFromBuffer } from 'file-type';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull, LessThan } from 'typeorm';
import type { FileId, PersonId } from '@jigsaw/core/ids';
import { AtOnce } from '../platform/atOnce.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { BlobChunkRow, BlobRow, FileRow } from './files.rows.js';

const chunkBytes = 1024 * 1024;
/** So much of a file's beginning is looked at to tell what it is. */
const headBytes = 64 * 1024;
const abandonedAfterMs = 24 * 3_600_000;

/** Bytes that have arrived whole and wait for someone to refer to them. */
export interface Arrived {
  readonly blobId: string;
  readonly sizeBytes: number;
  readonly sha256: string;
  /** The ending that the bytes speak for, like "pdf"; null: they look like no known kind, as plain text does. */
  readonly found: string | null;
}

/** Three browsers of one person, each sending all that it can. */
const mostAtOnce = 20;

@Injectable()
export class FilesService {
  private readonly arriving = new AtOnce(mostAtOnce, 0, () =>
    problems.tooManyAtOnce(
      `${mostAtOnce} of your files are on their way already. Add this one when one of them has arrived.`,
    ),
  );

  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Takes bytes in as they come, a chunk at a time, without holding a transaction over a slow network.
   * If the sender breaks off or goes over the limit, nothing stays. */
  async receive(sender: PersonId, source: Readable, announcedBytes: number | null): Promise<Arrived> {
    const { largestFileBytes } = this.config;
    if (announcedBytes !== null && announcedBytes > largestFileBytes) throw tooLarge(largestFileBytes);
    return this.arriving.run(sender, () => this.take(source));
  }

  private async take(source: Readable): Promise<Arrived> {
    await this.dropAbandoned();
    const blobId = newId<'blob'>();
    await this.dataSource
      .getRepository(BlobRow)
      .insert({ id: blobId, sha256: null, sizeBytes: '0', startedAt: this.clock.now() });
    try {
      const { head, ...stored } = await this.store(blobId, source, this.config.largestFileBytes);
      return { blobId, ...stored, found: (await fileTypeFromBuffer(head))?.ext ?? null };
    } catch (error) {
      await this.drop(this.dataSource.manager, blobId);
      throw error;
    }
  }

  /** Files by id; who may know of them is the caller's to decide. */
  named(manager: EntityManager, fileIds: readonly FileId[]): Promise<FileRow[]> {
    return fileIds.length === 0 ? Promise.resolve([]) : manager.findBy(FileRow, { id: In([...fileIds]) });
  }

  /** Gives arrived bytes a name. Bytes that are here already are not kept twice. */
  async keep(
    manager: EntityManager,
    { blobId, sizeBytes, sha256 }: Arrived,
    name: string,
    mediaType: string,
  ): Promise<FileRow> {
    await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [sha256]); // two people handing in the same bytes take turns
    const known = await manager.findOneBy(BlobRow, { sha256 });
    if (known) await this.drop(manager, blobId);
    else await manager.update(BlobRow, blobId, { sha256, sizeBytes: String(sizeBytes) });
    const id = newId<'file'>();
    await manager.insert(FileRow, {
      id,
      blobId: known?.id ?? blobId,
      name,
      mediaType,
      sizeBytes: String(sizeBytes),
      sha256,
      createdAt: this.clock.now(),
    });
    return manager.findOneByOrFail(FileRow, { id });
  }

  /** Arrived bytes that no one will refer to. */
  async discard({ blobId }: Arrived): Promise<void> {
    await this.drop(this.dataSource.manager, blobId);
  }

  /** A file's bytes, one chunk in memory at a time. */
  async *chunksOf(file: FileRow): AsyncGenerator<Buffer> {
    const chunks = this.dataSource.getRepository(BlobChunkRow);
    for (let position = 0; ; position += 1) {
      const chunk = await chunks.findOneBy({ blobId: file.blobId, position });
      if (!chunk) return;
      yield chunk.bytes;
    }
  }

  private async store(
    blobId: string,
    source: Readable,
    mostBytes: number,
  ): Promise<{ sizeBytes: number; sha256: string; head: Buffer }> {
    const digest = createHash('sha256');
    const chunks = this.dataSource.getRepository(BlobChunkRow);
    let waiting: Buffer[] = [];
    let waitingBytes = 0;
    let sizeBytes = 0;
    let position = 0;
    let head: Buffer = Buffer.alloc(0);
    const flush = async () => {
      const bytes = Buffer.concat(waiting);
      if (position === 0) head = Buffer.from(bytes.subarray(0, headBytes));
      await chunks.insert({ blobId, position, bytes });
      position += 1;
      waiting = [];
      waitingBytes = 0;
    };
    for await (const piece of source as AsyncIterable<Buffer>) {
      sizeBytes += piece.length;
      if (sizeBytes > mostBytes) throw tooLarge(mostBytes);
      digest.update(piece);
      waiting.push(piece);
      waitingBytes += piece.length;
      if (waitingBytes >= chunkBytes) await flush();
    }
    if (waitingBytes > 0) await flush();
    return { sizeBytes, sha256: digest.digest('hex'), head };
  }

  private async drop(manager: EntityManager, blobId: string): Promise<void> {
    await manager.delete(BlobChunkRow, { blobId });
    await manager.delete(BlobRow, { id: blobId });
  }

  /** A server that was killed in the middle of an upload leaves chunks that no one refers to. */
  private async dropAbandoned(): Promise<void> {
    const before = new Date(this.clock.now().getTime() - abandonedAfterMs);
    const abandoned = await this.dataSource
      .getRepository(BlobRow)
      .find({ where: { sha256: IsNull(), startedAt: LessThan(before) }, take: 5 });
    for (const blob of abandoned) await this.drop(this.dataSource.manager, blob.id);
  }
}

const tooLarge = (mostBytes: number) =>
  problems.tooLarge(
    `The file is over ${Math.floor(mostBytes / 1024 / 1024)} MB, the most allowed here. Make it smaller or hand in a link.`,
  );
