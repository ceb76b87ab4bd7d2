import { History, Upload, UserPlus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { RosterEntry } from '@jigsaw/contract/roster';
import { may } from '@jigsaw/core/course';
import { ProblemStrip, unshown } from '../api/index.js';
import {
  Bar,
  Button,
  ButtonLink,
  Choice,
  Empty,
  Page,
  Segments,
  useNotice,
  Waiting,
  FootBar,
} from '../look/index.js';
import { InviteSheet } from '../mail/index.js';
import { useAudienceFilter } from '../audiences/index.js';
import { useCourse, useReadRosterQuery } from '../course/index.js';
import { ChangesSheet } from './ChangesSheet.js';
import { ColumnChoice } from './ColumnChoice.js';
import { columnsOf, useColumnChoice, useFound } from './columns.js';
import { PersonSheet } from './PersonSheet.js';
import { ExportMenu, FindPeople, InStep, InviteMenu } from './RosterTools.js';
import { RosterTable } from './RosterTable.js';
import { SelectionBar } from './SelectionBar.js';
import { SignInLinksDialog } from './SignInLinksDialog.js';
import { useRosterAct } from './useRosterAct.js';
import { counted } from '@jigsaw/core/text';

const Frame = styled(Page)`
  grid-template-rows: auto minmax(0, 1fr) auto;
`;
const anyone = 'anyone';
type View = 'here' | 'students' | 'staff' | 'left';
const inView: Readonly<Record<View, (entry: RosterEntry) => boolean>> = {
  here: (entry) => entry.leftAt === null,
  students: (entry) => entry.leftAt === null && entry.role === 'student',
  staff: (entry) => entry.leftAt === null && entry.role !== 'student',
  left: (entry) => entry.leftAt !== null,
};
const viewWords: Readonly<Record<View, string>> = {
  here: 'All',
  students: 'Students',
  staff: 'Staff',
  left: 'Left',
};

export function RosterPage() {
  const { course } = useCourse();
  const roster = useReadRosterQuery(course.id);
  const [sought, setSought] = useState('');
  const [view, setView] = useState<View>('here');
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<'links' | 'invite' | 'changes' | 'new' | RosterEntry | null>(null);
  const columns = useMemo(() => (roster.data ? columnsOf(roster.data) : []), [roster.data]);
  const choice = useColumnChoice(course.id, columns);
  const [audienceId, setAudienceId] = useState(anyone);
  const audience = useAudienceFilter(course.id, audienceId);
  const { people, isChosen } = audience;
  const entries = useMemo(
    () =>
      (roster.data?.entries ?? []).filter(
        (entry) => inView[view](entry) && (!isChosen || people?.has(entry.enrolmentId) === true),
      ),
    [roster.data, view, isChosen, people],
  );
  const found = useFound(entries, sought);
  const mayManage = course.role === 'instructor';
  const maySelect = may(course.role, 'write-to-people');
  const { act } = useRosterAct();
  const notice = useNotice();
  if (unshown(roster) !== undefined)
    return <ProblemStrip of={roster.error} onRetry={() => void roster.refetch()} />;
  if (!roster.data) return <Waiting what="the roster" rows={14} />;
  const everyone = roster.data.entries;
  const waiting = everyone.filter((entry) => entry.leftAt === null && !entry.hasComeIn);
  const isEmpty = !everyone.some((entry) => entry.role === 'student');
  const views = (Object.keys(viewWords) as View[]).filter(
    (each) => each === 'here' || everyone.some(inView[each]),
  );
  const chosen = entries.filter((entry) => selected.has(entry.enrolmentId));
  const used = new Set(everyone.flatMap((entry) => Object.keys(entry.attributes)));
  const setAttribute = (entry: RosterEntry, name: string, value: string | null) => {
    const from = entry.attributes[name] ?? null;
    const edits = [
      {
        enrolmentId: entry.enrolmentId,
        from: { attributes: { [name]: from } },
        to: { attributes: { [name]: value } },
      },
    ];
    void act(
      { act: 'edit', edits },
      `${name} of ${entry.name}: ${from ?? 'nothing'} → ${value ?? 'nothing'}`,
      notice,
    );
  };
  const show = (next: View) => {
    setView(next);
    setSelected(new Set());
  };
  return (
    <Frame>
      <Bar>
        <h1>Roster</h1>
        <FindPeople value={sought} onChange={setSought} />
        <div style={{ flex: 'none' }}>
          <Segments
            label="Who is shown"
            value={view}
            choices={views.map((id) => ({
              id,
              label: `${viewWords[id]} ${everyone.filter(inView[id]).length}`,
            }))}
            onChange={show}
          />
        </div>
        {audience.choices.length > 0 && (
          <div style={{ flex: '0 0 148px', minWidth: 0 }}>
            <Choice
              label="Audience"
              isLabelHidden
              // One that is gone meanwhile narrows nothing.
              value={isChosen ? audienceId : anyone}
              choices={[
                { id: anyone, label: 'Any audience' },
                ...audience.choices.map(({ id, name }) => ({ id, label: name })),
              ]}
              onChange={(next) => {
                setAudienceId(next);
                setSelected(new Set());
              }}
            />
          </div>
        )}
        <span className="grow" />
        <ColumnChoice
          columns={columns}
          choice={choice}
          attributes={mayManage ? roster.data.attributes : null}
          used={used}
        />
        {mayManage && (
          <>
            <ExportMenu courseId={course.id} />
            <Button
              kind="quiet"
              isIconOnly
              aria-label="Changes of the roster"
              onPress={() => setOpen('changes')}
            >
              <History size={16} aria-hidden="true" />
            </Button>
            <InviteMenu
              waiting={waiting.length}
              onInvite={() => setOpen('invite')}
              onLinks={() => setOpen('links')}
            />
            <Button kind="quiet" onPress={() => setOpen('new')}>
              <UserPlus size={16} aria-hidden="true" />
              Add a person…
            </Button>
            <ButtonLink kind={isEmpty ? 'main' : 'plain'} to="import">
              <Upload size={16} aria-hidden="true" />
              Import people
            </ButtonLink>
          </>
        )}
      </Bar>
      {isChosen && people === null ? (
        audience.error === undefined ? (
          <Waiting what="the people of this audience" rows={12} />
        ) : (
          <ProblemStrip of={audience.error} />
        )
      ) : isEmpty ? (
        <Empty
          title="No students yet"
          action={
            mayManage ? (
              <ButtonLink kind="main" to="import">
                Import a class file
              </ButtonLink>
            ) : undefined
          }
        >
          Import the class list from a spreadsheet, or paste a list of addresses. You see every change first.
        </Empty>
      ) : (
        <RosterTable
          entries={entries}
          found={found}
          columns={choice.shown}
          selected={maySelect ? selected : null}
          onSelect={setSelected}
          onOpen={(entry) => mayManage && setOpen(entry)}
          onAttribute={mayManage ? setAttribute : null}
        />
      )}
      <FootBar>
        {chosen.length > 0 ? (
          <SelectionBar
            selected={chosen}
            attributes={roster.data.attributes}
            sets={roster.data.sets}
            onDone={() => setSelected(new Set())}
            onOpen={setOpen}
          />
        ) : (
          <span>
            {found.length < entries.length && `${found.length} of `}
            {counted(entries.length, 'person', 'people')}
            {mayManage &&
              entries.length > 0 &&
              '. Press a row or Enter to edit, a cell or F2 for attributes; select several by their boxes or with Shift.'}
          </span>
        )}
        {mayManage && chosen.length === 0 && roster.data.syncedAt && (
          <InStep syncedAt={roster.data.syncedAt} />
        )}
      </FootBar>
      {open === 'links' && (
        <SignInLinksDialog courseId={course.id} waiting={waiting} onClose={() => setOpen(null)} />
      )}
      {open === 'invite' && (
        <InviteSheet people={waiting} onClose={() => setOpen(null)} onDone={() => setOpen(null)} />
      )}
      {open === 'changes' && <ChangesSheet onClose={() => setOpen(null)} />}
      {open !== null && open !== 'links' && open !== 'invite' && open !== 'changes' && (
        <PersonSheet
          key={open === 'new' ? open : open.enrolmentId}
          entry={open === 'new' ? null : open}
          attributes={roster.data.attributes}
          onClose={() => setOpen(null)}
        />
      )}
    </Frame>
  );
}
