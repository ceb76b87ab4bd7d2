import { Copy, PenLine } from 'lucide-react';
import { useState } from 'react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { sure } from '@jigsaw/core/lists';
import { useCourse, useListCoursesQuery } from '../course/index.js';
import { kinds } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { Button, Popup, Small } from '../look/index.js';
import { FromCourseSheet } from './FromCourseSheet.js';

const List = styled(Popup)`
  width: 360px;
  [role='menuitem'] {
    grid-template-columns: 24px minmax(0, 1fr);
    gap: 2px 10px;
    padding: 8px 10px;
  }
  [role='menuitem'] > :last-child {
    grid-column: 2;
  }
  b {
    font-weight: 620;
  }
`;

/** No kind is called so. */
const fromCourse = 'from course';

/** The kinds of activity, each with what it is for. */
export function WriteMenu({
  isDisabled,
  onChoose,
}: {
  readonly isDisabled: boolean;
  readonly onChoose: (kind: KindOnPages) => void;
}) {
  const { course } = useCourse();
  const { data } = useListCoursesQuery();
  const [isCopying, setCopying] = useState(false);
  const others = (data?.courses ?? []).filter(({ id, role }) => id !== course.id && role === 'instructor');
  return (
    <>
      <MenuTrigger>
        <Button kind="main" isDisabled={isDisabled}>
          <PenLine size={16} aria-hidden="true" />
          New activity
        </Button>
        <List placement="bottom end">
          <Menu
            aria-label="Kind of activity"
            onAction={(name) =>
              name === fromCourse
                ? setCopying(true)
                : onChoose(sure(kinds.find((kind) => kind.name === name)))
            }
          >
            {kinds.map((kind) => (
              <MenuItem key={kind.name} id={kind.name} textValue={kind.word}>
                <kind.icon size={19} aria-hidden="true" />
                <b>{kind.word}</b>
                <Small>{kind.says}</Small>
              </MenuItem>
            ))}
            {others.length > 0 && (
              <MenuItem id={fromCourse} textValue="Copy from another course">
                <Copy size={19} aria-hidden="true" />
                <b>Copy from another course…</b>
                <Small>Activities that you wrote elsewhere, as drafts.</Small>
              </MenuItem>
            )}
          </Menu>
        </List>
      </MenuTrigger>
      {isCopying && <FromCourseSheet courses={others} onClose={() => setCopying(false)} />}
    </>
  );
}
