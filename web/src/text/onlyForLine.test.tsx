import { describe, expect, it } from '@jest/globals';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { RichTextNode } from '@jigsaw/core/text';
import { id } from '../test/data.js';
import RichTextEditor from './RichTextEditor.js';

const groups = ['Crock', 'Tun', 'Cask'].map((name, at) => ({ id: id<'group'>(name), name, number: at + 1 }));
const says: RichTextNode = { type: 'paragraph', content: [{ type: 'text', text: 'You changed the salt.' }] };
const line = (...names: string[]): RichTextNode => ({
  type: 'doc',
  content: [
    { type: 'onlyFor', attrs: { groupIds: names.map((name) => id<'group'>(name)) }, content: [says] },
  ],
});

describe('a line for some groups in the editor', () => {
  const shown = (value: RichTextNode) => {
    const heard: RichTextNode[] = [];
    render(
      <RichTextEditor label="Brief" value={value} groups={groups} onChange={(next) => heard.push(next)} />,
    );
    return heard;
  };

  it.each([
    [[], 'No one sees this line yet.'],
    [['Crock'], 'The other 2 groups do not see this line.'],
    [['Crock', 'Tun'], 'The other 1 group does not see this line.'],
    [['Crock', 'Tun', 'Cask'], 'Every group sees this line.'],
    [['Sunken'], 'No one sees this line yet.'],
    [['Crock', 'Sunken'], 'The other 2 groups do not see this line.'],
  ])('says of %j who does not see it', async (names, sentence) => {
    shown(line(...names));
    expect(await screen.findByText(sentence)).toBeInTheDocument();
  });

  it('is for another group at a press, without one, and for everyone again', async () => {
    const heard = shown(line('Crock', 'Sunken'));
    await userEvent.click(
      await screen.findByRole('button', { name: 'Without a group that does not get this' }),
    );
    await waitFor(() => expect(heard.at(-1)?.content?.[0]).toEqual(line('Crock').content?.[0]));
    await userEvent.click(screen.getByRole('button', { name: /Add a group that reads this line/ }));
    await userEvent.click(await screen.findByRole('option', { name: 'Tun' }));
    await waitFor(() => expect(heard.at(-1)?.content?.[0]).toEqual(line('Crock', 'Tun').content?.[0]));
    await userEvent.click(screen.getByRole('button', { name: 'For everyone' }));
    await waitFor(() => expect(heard.at(-1)?.content?.[0]).toEqual(says));
  });
});
