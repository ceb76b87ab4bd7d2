import { describe, expect, it } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { RichText } from './RichText.js';

const values = { groupName: 'Crock', groupNumber: 1, memberNames: ['Noor', 'Jorge'] };
const paragraph = (...content: object[]) =>
  ({ type: 'doc', content: [{ type: 'paragraph', content }] }) as never;

describe('rich text', () => {
  it('fills the blanks of a group’s copy', () => {
    render(
      <RichText
        node={paragraph(
          { type: 'text', text: 'For ' },
          { type: 'placeholder', attrs: { what: 'group-name' } },
        )}
        values={values}
      />,
    );
    expect(screen.getByText('Crock')).toBeInTheDocument();
  });

  it('shows the blank itself where no group is meant', () => {
    render(<RichText node={paragraph({ type: 'placeholder', attrs: { what: 'group-members' } })} />);
    expect(screen.getByText('group’s members')).toBeInTheDocument();
  });

  it('leaves out nodes and links that the editor cannot make', () => {
    const { container } = render(
      <RichText
        node={{
          type: 'doc',
          content: [
            { type: 'script', content: [{ type: 'text', text: 'alert(1)' }] },
            {
              type: 'paragraph',
              content: [
                {
                  type: 'text',
                  text: 'press me',
                  marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }],
                },
              ],
            },
          ],
        }}
      />,
    );
    expect(container).toHaveTextContent(/^press me$/);
    expect(container.querySelector('a, script')).toBeNull();
  });
});
