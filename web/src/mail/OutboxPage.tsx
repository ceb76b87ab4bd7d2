import { Inbox } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { MailView } from '@jigsaw/contract/mail';
import { counted, fold } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import {
  Bar,
  ButtonLink,
  Empty,
  FindField,
  hueOfGroup,
  Muted,
  Page,
  PersonName,
  Small,
  Waiting,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useReadOutboxQuery } from './mailApi.js';

const Frame = styled(Page)`
  grid-template-rows: auto auto minmax(0, 1fr);
`;
/** Perforated, as where a sheet is torn off: what is below it stays here. */
const Notice = styled.p`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 9px var(--s-4);
  background: var(--surface);
  border-bottom: 3px dashed var(--ink);
`;
const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(320px, 1fr) minmax(360px, 508px);
  min-height: 0;
`;
const List = styled.nav`
  overflow: auto;
  background: var(--surface);
  h2 {
    padding: 5px var(--s-4);
    background: var(--wash-2);
    font: 600 12px/20px var(--font-text);
  }
  a {
    display: grid;
    grid-template-columns: 52px minmax(0, 1fr) minmax(0, 1.2fr);
    gap: 12px;
    align-items: center;
    min-height: 40px;
    padding: 4px var(--s-4);
    border-bottom: var(--hair);
    text-decoration: none;
    outline-offset: -3px;
  }
  a:hover {
    background: var(--wash);
  }
  a[aria-current] {
    background: var(--wash-2);
  }
  b,
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const Reading = styled.article`
  overflow: auto;
  border-left: 1px solid var(--ink);
  background: var(--wash-2);
  > header {
    background: var(--surface);
    border-bottom: var(--hair);
    padding: 12px 20px;
  }
  > header h2 {
    font: var(--h-17);
    margin-bottom: 6px;
  }
  dl {
    display: grid;
    grid-template-columns: 62px 1fr;
    gap: 3px;
    font: var(--t-13);
  }
  dt {
    color: var(--ink-2);
  }
`;
const Letter = styled.div`
  margin: 18px 20px;
  padding: 24px 28px;
  background: var(--surface);
  border: var(--hair);
  display: grid;
  gap: 12px;
  justify-items: start;
  font: var(--t-15, 15px/23px var(--font-text));
  footer {
    border-top: var(--hair);
    padding-top: 10px;
    width: 100%;
  }
`;

/** Mail as it would have gone, newest first, each as its reader would have had it. */
export function OutboxPage() {
  const { course, dates } = useCourse();
  const outbox = useReadOutboxQuery(course.id);
  const [params] = useSearchParams();
  const [sought, setSought] = useState('');
  const all = outbox.data?.mails;
  const mails = useMemo(() => {
    const words = fold(sought).split(/\s+/).filter(Boolean);
    return (all ?? []).filter((mail) => {
      const text = fold(`${mail.toName} ${mail.toAddress} ${mail.subject} ${mail.paragraphs.join(' ')}`);
      return words.every((word) => text.includes(word));
    });
  }, [all, sought]);
  if (unshown(outbox) !== undefined)
    return <ProblemStrip of={outbox.error} onRetry={() => void outbox.refetch()} />;
  if (!outbox.data) return <Waiting what="the outbox" rows={10} />;
  const { total } = outbox.data;
  const open = mails.find((mail) => mail.id === params.get('mail')) ?? mails[0];
  const days = [...new Set(mails.map((mail) => dates.day(mail.at)))];
  return (
    <Frame>
      <Bar>
        <h1>Outbox</h1>
        <Muted>
          {counted(total, 'message')}
          {total > outbox.data.mails.length && `, the latest ${outbox.data.mails.length} shown`}
        </Muted>
        <span className="grow" />
        <FindField
          label="Find mail"
          placeholder="Find a person or words"
          value={sought}
          onChange={setSought}
          width={260}
        />
        <ButtonLink kind="quiet" to="../people">
          Back to the roster
        </ButtonLink>
      </Bar>
      <Notice>
        <Inbox size={17} aria-hidden="true" />
        <span>
          <b>Nothing here leaves this machine.</b> Each row is a message as it was written, without personal
          sign-in links.
        </span>
      </Notice>
      {mails.length === 0 ? (
        <Empty title={total === 0 ? 'Nothing written yet' : 'No message like that'}>
          {total === 0
            ? 'Invitations appear here once you invite people from the roster.'
            : 'Try a part of the name or of the text.'}
        </Empty>
      ) : (
        <Body>
          <List aria-label="Messages">
            {days.map((day) => (
              <section key={day} aria-label={day}>
                <h2>{day}</h2>
                {mails
                  .filter((mail) => dates.day(mail.at) === day)
                  .map((mail) => (
                    <Link
                      key={mail.id}
                      to={`?mail=${mail.id}`}
                      aria-current={mail.id === open?.id ? 'true' : undefined}
                    >
                      <Small>{dates.time(mail.at)}</Small>
                      <b>
                        <PersonName name={mail.toName} />
                      </b>
                      <span>{mail.subject}</span>
                    </Link>
                  ))}
              </section>
            ))}
          </List>
          {open && <OneMail mail={open} />}
        </Body>
      )}
    </Frame>
  );
}

function OneMail({ mail }: { readonly mail: MailView }) {
  const { course, dates } = useCourse();
  return (
    <Reading aria-label={mail.subject} style={hueOfGroup(1)}>
      <header>
        <h2>{mail.subject}</h2>
        <dl>
          <dt>To</dt>
          <dd>
            <b>
              <PersonName name={mail.toName} />
            </b>{' '}
            &lt;{mail.toAddress}&gt;
          </dd>
          <dt>Written</dt>
          <dd>{dates.dateTime(mail.at)}</dd>
        </dl>
      </header>
      <Letter>
        {mail.paragraphs.map((paragraph, at) => (
          <p key={at}>{paragraph}</p>
        ))}
        {mail.link.url === null ? (
          <p>
            <b>{mail.link.label}</b>
            <br />
            <Small>Only {mail.toName} receives this link.</Small>
          </p>
        ) : (
          <a href={mail.link.url}>{mail.link.label}</a>
        )}
        <footer>
          <Small>
            {course.title}, {course.code}. {mail.why}
          </Small>
        </footer>
      </Letter>
    </Reading>
  );
}
