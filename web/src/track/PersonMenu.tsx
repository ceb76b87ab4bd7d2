import { lazy, Suspense, useState } from 'react';
import { Header, Menu, MenuItem, MenuSection, MenuTrigger, Popover, Separator } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import type { SessionView } from '@jigsaw/contract/identity';
import { OpenSessions, useSignOutMutation } from '../identity/index.js';
import { Button, chooseTheme, chosenTheme, initials } from '../look/index.js';
import type { Theme } from '../look/index.js';
import { forgetBelongings, useAct } from '../page/index.js';

/** Fetched when someone asks for it: no one waits for it with their first page. */
const CalendarSheet = lazy(async () => ({ default: (await import('../calendar/index.js')).CalendarSheet }));

const Place = styled.div`
  display: flex;
  align-items: center;
  padding: 0 var(--s-4) 0 var(--s-3);
  flex: none;
  button {
    width: 32px;
    padding: 0;
    font: 650 12px/1 var(--font-head);
  }
`;
const Sheet = styled(Popover)`
  min-width: 220px;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  padding: 6px;
  [role='menu'] {
    outline: 0;
  }
  [role='menuitem'],
  [role='menuitemradio'] {
    display: flex;
    justify-content: space-between;
    padding: 6px 10px;
    border-radius: var(--r-1);
    cursor: pointer;
    outline-offset: -2px;
  }
  [data-focused] {
    background: var(--wash-2);
  }
  [data-selected] {
    font-weight: 650;
  }
  header {
    padding: 6px 10px;
    font: var(--t-12);
    color: var(--ink-2);
  }
  [role='separator'] {
    border-top: var(--hair);
    margin: 6px 0;
  }
`;

interface PersonMenuProps {
  readonly session: SessionView;
  /** Where the settings of the course are; null: they are not the reader's to see. */
  readonly settings: string | null;
}

export function PersonMenu({ session, settings }: PersonMenuProps) {
  const [theme, setTheme] = useState<Theme>(chosenTheme);
  const [showsCalendar, setShowsCalendar] = useState(false);
  const [showsSessions, setShowsSessions] = useState(false);
  const signOut = useAct(useSignOutMutation());
  const navigate = useNavigate();
  const leave = async () => {
    if ((await signOut()) === null) return; // still signed in, and told so
    forgetBelongings();
    window.location.assign('/'); // a full load: nothing of theirs stays in memory
  };
  return (
    <Place>
      <MenuTrigger>
        <Button aria-label={`${session.person.name}: your account`}>{initials(session.person.name)}</Button>
        <Sheet placement="bottom end">
          <Menu aria-label="Your account">
            <MenuSection>
              <Header>{session.person.name}</Header>
              {!session.sitsIn && <MenuItem onAction={() => void navigate('/')}>Courses</MenuItem>}
              {settings !== null && (
                <MenuItem onAction={() => void navigate(settings)}>Course settings</MenuItem>
              )}
            </MenuSection>
            <Separator />
            <MenuSection
              aria-label="Light or dark"
              selectionMode="single"
              selectedKeys={[theme]}
              onSelectionChange={(keys) => {
                const next = [...(keys as Set<Theme>)][0] ?? 'system';
                setTheme(next);
                chooseTheme(next);
              }}
            >
              <MenuItem id="light">Light</MenuItem>
              <MenuItem id="dark">Dark</MenuItem>
              <MenuItem id="system">Match this device</MenuItem>
            </MenuSection>
            {/* What is their account's is shown to no one who sits in. */}
            {!session.sitsIn && (
              <>
                <Separator />
                <MenuItem onAction={() => setShowsCalendar(true)}>Your calendar</MenuItem>
                <MenuItem onAction={() => setShowsSessions(true)}>Where you are signed in</MenuItem>
                <MenuItem onAction={() => void leave()}>Sign out</MenuItem>
              </>
            )}
          </Menu>
        </Sheet>
      </MenuTrigger>
      {showsCalendar && (
        <Suspense>
          <CalendarSheet onClose={() => setShowsCalendar(false)} />
        </Suspense>
      )}
      {showsSessions && <OpenSessions onClose={() => setShowsSessions(false)} />}
    </Place>
  );
}
