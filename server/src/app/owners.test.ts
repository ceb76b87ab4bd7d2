import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..');
const order = (
  JSON.parse(readFileSync(path.join(root, '../../areas.json'), 'utf8')) as { server: readonly string[] }
).server;

interface Source {
  readonly area: string;
  readonly file: string;
  readonly text: string;
}

const sources: readonly Source[] = order.flatMap((area) =>
  readdirSync(path.join(root, area)).flatMap((file) =>
    file.endsWith('.ts') && !file.includes('.test.')
      ? [{ area, file: `${area}/${file}`, text: readFileSync(path.join(root, area, file), 'utf8') }]
      : [],
  ),
);

/** Which area owns which table, read from the entities. */
const ownerOfTable = new Map(
  sources.flatMap(({ area, text }) =>
    [...text.matchAll(/@Entity\('(\w+)'\)/g)].map(([, table]) => [sure(table), area] as const),
  ),
);

/** Which area owns which entity class. */
const ownerOfRow = new Map(
  sources.flatMap(({ area, text }) =>
    [...text.matchAll(/@Entity\('\w+'\)[\s\S]*?export class (\w+Row)/g)].map(
      ([, row]) => [sure(row), area] as const,
    ),
  ),
);

/** Which area offers which view. */
const ownerOfView = new Map([
  ['account', 'identity'],
  ['course_person', 'course'],
  ['author', 'course'],
  ['present_student', 'course'],
  ['set_group', 'sets'],
  ['course_set', 'sets'],
  ['seat', 'placing'],
  ['stay', 'placing'],
  ['released_copy', 'release'],
]);

/** Names that stand where a statement names what it reads or writes. */
const named = (text: string): string[] =>
  [...text.matchAll(/`[^`]*`|'[^'\n]*'/g)].flatMap(([literal]) =>
    [...literal.matchAll(/(?:\bFROM|\bJOIN|\bINTO|\bUPDATE|\bUSING|,)\s+"(\w+)"(?!\s*[.=])/g)].map(
      ([, name]) => sure(name),
    ),
  );

const isAbove = (area: string, other: string) => order.indexOf(area) > order.indexOf(other);

describe('the tables of the database', () => {
  it('are known with their owners', () => {
    expect(ownerOfTable.size).toBeGreaterThan(25);
    expect(ownerOfRow.size).toBe(ownerOfTable.size);
    const offered = readdirSync(path.join(root, 'migrations')).flatMap((file) =>
      [...readFileSync(path.join(root, 'migrations', file), 'utf8').matchAll(/^ {2}(\w+): `\s*SELECT/gm)].map(
        ([, view]) => sure(view),
      ),
    );
    expect(offered.sort()).toEqual([...ownerOfView.keys()].sort());
  });

  it('are named in the statements of their owner only', () => {
    const foreign = sources.flatMap(({ area, file, text }) =>
      named(text).flatMap((table) => {
        const owner = ownerOfTable.get(table);
        return owner === undefined || owner === area ? [] : [`${file} names ${table} of ${owner}`];
      }),
    );
    expect(foreign).toEqual([]);
  });

  it('are reached through entities by their owner only; others refer to them in foreign keys', () => {
    const foreign = sources.flatMap(({ area, file, text }) =>
      [...text.matchAll(/^import \{([^}]*)\} from/gm)].flatMap(([, names]) =>
        sure(names)
          .split(',')
          .flatMap((each) => {
            const row = each.trim();
            const owner = ownerOfRow.get(row);
            if (owner === undefined || owner === area || file === 'app/dataSource.ts') return [];
            const uses = sure(text.match(new RegExp(`\\b${row}\\b`, 'g'))).length - 1;
            const keys = text.match(new RegExp(`ForeignKey\\(\\(\\) => ${row}[,)]`, 'g'))?.length ?? 0;
            return uses === keys ? [] : [`${file} uses ${row} of ${owner}`];
          }),
      ),
    );
    expect(foreign).toEqual([]);
  });

  it('are offered upwards, as views', () => {
    const upward = sources.flatMap(({ area, file, text }) =>
      named(text).flatMap((view) => {
        const owner = ownerOfView.get(view);
        return owner !== undefined && owner !== area && !isAbove(area, owner)
          ? [`${file} reads ${view} of ${owner}, which lies above it`]
          : [];
      }),
    );
    expect(upward).toEqual([]);
  });

  it('have one writer of memberships', () => {
    const writers = sources.filter(({ text }) =>
      /(INSERT INTO|UPDATE|DELETE FROM) "membership"|(insert|update|delete|save)\(\s*MembershipRow/.test(
        text,
      ),
    );
    expect(writers.map(({ file }) => file)).toEqual(['placing/memberships.ts']);
  });
});
