import type { CopyHead } from '@jigsaw/contract/rooms';
import { ProblemStrip, unshown } from '../api/index.js';
import { valuesOf } from '../rooms/index.js';
import { PersonName, Small, Waiting } from '../look/index.js';
import { RichText } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { useReadPageQuery, useReadWikiQuery } from './wikiApi.js';
import { sayChange } from './words.js';
import { counted } from '@jigsaw/core/text';

/** A group's pages, one after the other, as they lie on the Marking desk; for one student with what they saved. */
export default function DeskWiki({
  head,
  student,
}: {
  readonly head: CopyHead;
  readonly student: string | null;
}) {
  const wiki = useReadWikiQuery(head.id);
  if (unshown(wiki) !== undefined)
    return <ProblemStrip of={wiki.error} onRetry={() => void wiki.refetch()} />;
  if (!wiki.data) return <Waiting what="the wiki" rows={5} />;
  return wiki.data.pages
    .filter((page) => !page.isDeleted)
    .map((page) => <DeskPage key={page.id} head={head} pageId={page.id} student={student} />);
}

function DeskPage({
  head,
  pageId,
  student,
}: {
  readonly head: CopyHead;
  readonly pageId: string;
  readonly student: string | null;
}) {
  const { dates } = useCourse();
  const page = useReadPageQuery({ copyId: head.id, pageId });
  if (!page.data) return <Waiting what="a page" rows={3} />;
  const { title, words, revisions, text } = page.data;
  const own = revisions.filter((revision) => revision.author.enrolmentId === student);
  return (
    <section>
      <header>
        <b>{title}</b>
        <span>
          {words} words, {counted(revisions.length, 'version')}
        </span>
      </header>
      {student !== null && (
        <p>
          <Small>
            {own[0] ? (
              <>
                <PersonName name={own[0].author.name} /> saved {own.length} of them:{' '}
                {own.map((each) => `${dates.day(each.savedAt)} ${sayChange(each)}`).join(', ')}.
              </>
            ) : (
              'Nothing saved on this page.'
            )}
          </Small>
        </p>
      )}
      <RichText node={text} values={valuesOf(head)} />
    </section>
  );
}
