import type { RoomLine } from '@jigsaw/contract/rooms';
import { WriteButton } from '../messages/index.js';

/** To the rooms that are shown, however they were narrowed down; to those that someone is in. */
export function WriteTo({ lines }: { readonly lines: readonly RoomLine[] }) {
  const groups = lines.flatMap(({ group, members }) => (members.length > 0 ? [group] : []));
  const label =
    groups.length === 1 ? `Write to ${groups[0]?.name}…` : `Write to these ${groups.length} groups…`;
  return <WriteButton label={label} groups={groups} />;
}
