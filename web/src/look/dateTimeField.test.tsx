import { describe, expect, it } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { DateTimeField } from './DateTimeField.js';

function Form() {
  const [due, setDue] = useState<string | null>(null);
  return (
    <>
      <DateTimeField label="Due" value={due} onChange={setDue} timeZone="Europe/Lisbon" />
      <button type="button">{due ?? 'no date'}</button>
    </>
  );
}

describe('a field for a moment', () => {
  const typed = async (keys: string) => {
    render(<Form />);
    await userEvent.click(screen.getByRole('spinbutton', { name: /day, Due/ }));
    if (keys !== '') await userEvent.keyboard(keys);
    await userEvent.click(screen.getByRole('button', { name: /no date|2026/ }));
  };

  it('asks for what is missing where it is filled in part', async () => {
    await typed('12112026');
    expect(await screen.findByText('Add a time.')).toBeInTheDocument();
  });

  it('says so for part of a date, too', async () => {
    await typed('12');
    expect(await screen.findByText('Complete the date or clear it.')).toBeInTheDocument();
  });

  it('is a moment once all of it is there', async () => {
    await typed('121120261730');
    expect(screen.getByRole('button', { name: '2026-11-12T17:30:00.000Z' })).toBeInTheDocument();
    expect(screen.queryByText(/^(Add a time|Complete)/)).not.toBeInTheDocument();
  });

  it('may be left empty', async () => {
    await typed('');
    expect(screen.queryByText(/^(Add a time|Complete)/)).not.toBeInTheDocument();
  });
});
