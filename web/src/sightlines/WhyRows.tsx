import type { ReactNode } from 'react';
import { Check, EyeOff, Lock, UserMinus } from 'lucide-react';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { Decision, Wording } from '@jigsaw/core/release';
import { explain } from '@jigsaw/core/release';
import type { Explained, FormerMember } from '@jigsaw/core/sightlines';
import { namesTogether } from '@jigsaw/core/text';
import { PersonName, Tag } from '../look/index.js';

/** What is said of all its members alike; null: they do not all see the same. */
export function inCommon(members: readonly Explained[], wording: Wording): readonly string[] | null {
  const [first] = members;
  if (!first) return null;
  const said = explain(first.decision, wording);
  return members.every(({ decision }) => explain(decision, wording).join() === said.join()) ? said : null;
}

export function InCommon({
  said,
  members,
}: {
  readonly said: readonly string[] | null;
  readonly members: readonly Explained[];
}) {
  if (members.length === 0) return null;
  if (said === null) return <p>They do not all see the same.</p>;
  return (
    <ol aria-label="Why">
      {said.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </ol>
  );
}

interface PersonProps {
  readonly name: string;
  readonly reading: string | null;
  readonly explained: Explained;
  readonly wording: Wording;
  /** The reasons stand above, for all. */
  readonly isSaid?: boolean;
  /** Beside the name. */
  readonly act?: ReactNode;
}
export function Person({
  name,
  reading,
  explained: { decision },
  wording,
  isSaid = false,
  act,
}: PersonProps) {
  const said = explain(decision, wording);
  return (
    <li>
      <AccessIcon access={decision.access} />
      <span>
        <b>
          <PersonName name={name} reading={reading} />
        </b>{' '}
        {act}
        <p>{isSaid ? said[0] : said.join(' ')}</p>
      </span>
    </li>
  );
}

interface FormerProps {
  readonly name: string;
  readonly reading: string | null;
  readonly former: FormerMember;
  readonly nowIn: readonly string[];
  readonly wording: Wording;
}
export function Former({ name, reading, former: { until, decision }, nowIn, wording }: FormerProps) {
  return (
    <li>
      <UserMinus size={15} aria-hidden="true" />
      <span>
        <b>
          <PersonName name={name} reading={reading} />
        </b>{' '}
        <Tag>left the group</Tag>
        <p>
          Was in it until {wording.dateTime(until)}
          {nowIn.length > 0 && `, and is in ${namesTogether(nowIn)} now`}. What they wrote stays here under
          their name. {explain(decision, wording)[0]}
        </p>
      </span>
    </li>
  );
}

function AccessIcon({ access }: Pick<Decision, 'access'>) {
  if (access === 'hidden') return <EyeOff size={15} aria-hidden="true" />;
  if (access === 'listed') return <Lock size={15} aria-hidden="true" />;
  return <Check size={15} aria-hidden="true" />;
}

/** The groups in which someone sits at a moment. */
export const nowIn = ({ seats }: SightlinesView, { enrolmentId }: Explained, at: number) =>
  seats.flatMap((seat) =>
    seat.enrolmentId === enrolmentId &&
    Date.parse(seat.from) <= at &&
    (seat.until === null || Date.parse(seat.until) > at)
      ? [seat.groupId]
      : [],
  );
