import { Download, Mail, RefreshCw } from 'lucide-react';
import { useRef } from 'react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { apiAddress } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, ButtonLink, FindField, Popup } from '../look/index.js';
import { useKey } from '../page/index.js';

/** Since when the class is as the registrar had it, and the way to look again. */
export function InStep({ syncedAt }: { readonly syncedAt: string }) {
  const { dates } = useCourse();
  return (
    <>
      <span className="grow" />
      <span>Synced with the registrar on {dates.dateTime(syncedAt)}</span>
      <ButtonLink kind="quiet" to="import?from=registrar">
        <RefreshCw size={14} aria-hidden="true" />
        Sync…
      </ButtonLink>
    </>
  );
}

export function ExportMenu({ courseId }: { readonly courseId: string }) {
  const base = apiAddress(`courses/${courseId}/roster`);
  return (
    <MenuTrigger>
      <Button kind="quiet" isIconOnly aria-label="Export roster">
        <Download size={16} aria-hidden="true" />
      </Button>
      <Popup placement="bottom end">
        <Menu aria-label="Export roster">
          <MenuItem href={`${base}.csv`} download="roster.csv">
            As CSV, with everyone’s groups
          </MenuItem>
          <MenuItem href={`${base}.zip`} download="roster.zip">
            As a OneRoster bundle
          </MenuItem>
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}

interface InviteMenuProps {
  /** How many have not signed in yet. */
  readonly waiting: number;
  readonly onInvite: () => void;
  readonly onLinks: () => void;
}

/** How people come in for the first time: by mail, or by a link that is handed to them. */
export function InviteMenu({ waiting, onInvite, onLinks }: InviteMenuProps) {
  const navigate = useNavigate();
  return (
    <MenuTrigger>
      <Button kind="quiet">
        <Mail size={16} aria-hidden="true" />
        Invite…
      </Button>
      <Popup placement="bottom end">
        <Menu
          aria-label="Invite"
          disabledKeys={waiting === 0 ? ['all'] : []}
          onAction={(key) => {
            if (key === 'all') onInvite();
            else if (key === 'links') onLinks();
            else void navigate('../outbox');
          }}
        >
          <MenuItem id="all">
            {waiting === 0
              ? 'Everyone has signed in'
              : waiting === 1
                ? 'Invite the one who has not signed in yet…'
                : `Invite the ${waiting} who have not signed in yet…`}
          </MenuItem>
          <MenuItem id="links">Create sign-in links…</MenuItem>
          <MenuItem id="outbox">Outbox</MenuItem>
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}

export function FindPeople({
  value,
  onChange,
}: {
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  useKey('/', () => input.current?.focus());
  return (
    <FindField
      label="Find people"
      placeholder="Find a name or a value"
      value={value}
      onChange={onChange}
      inputRef={input}
      width={260}
    />
  );
}
