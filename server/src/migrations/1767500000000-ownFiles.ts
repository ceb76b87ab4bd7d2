import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Files of which each copy has its own, with every version. */
export class OwnFiles1767500000000 implements MigrationInterface {
  async up(run: QueryRunner): Promise<void> {
    await run.query(
      `CREATE TABLE "own_file_version" ("copyId" uuid NOT NULL, "originalId" uuid NOT NULL, "number" integer NOT NULL, "fileId" uuid NOT NULL, "by" uuid NOT NULL, "at" TIMESTAMP WITH TIME ZONE NOT NULL, "restored" integer, CONSTRAINT "PK_6b5faf7d7b2d4bd52a06b6354b8" PRIMARY KEY ("copyId", "originalId", "number"))`,
    );
    for (const [name, column, table] of [
      ['FK_3cd81d59901847d1eaaa69d6318', 'copyId', 'copy'],
      ['FK_9a6e5d6e9bc9655ec3fbc6431b4', 'originalId', 'file'],
      ['FK_288b25f5a19d70ac41af3f05ab5', 'fileId', 'file'],
      ['FK_8b33d224ad611a13d6e214307e1', 'by', 'enrolment'],
    ])
      await run.query(
        `ALTER TABLE "own_file_version" ADD CONSTRAINT "${name}" FOREIGN KEY ("${column}") REFERENCES "${table}"("id") ON DELETE NO ACTION ON UPDATE NO ACTION`,
      );
    // What was attached until now is for all to read.
    for (const statement of eachFile(`file || '{"isPerGroup": false}'`)) await run.query(statement);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const statement of eachFile(`file - 'isPerGroup'`)) await run.query(statement);
    await run.query(`DROP TABLE "own_file_version"`);
  }
}

/** Writes anew what is attached to activities, as groups have it and as it is in work.
 * @param changed an expression over one `file`. */
function eachFile(changed: string): readonly string[] {
  const all = (files: string) =>
    `(SELECT jsonb_agg(${changed} ORDER BY at) FROM jsonb_array_elements(${files}) WITH ORDINALITY AS each(file, at))`;
  return [
    `UPDATE "activity" SET "files" = ${all('"files"')} WHERE jsonb_array_length("files") > 0`,
    `UPDATE "activity" SET "inWork" = jsonb_set("inWork", '{files}', ${all(`"inWork"->'files'`)}) WHERE jsonb_array_length("inWork"->'files') > 0`,
  ];
}
