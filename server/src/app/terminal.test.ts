import { PassThrough } from 'node:stream';
import { describe, expect, it } from '@jest/globals';
import { openTerminal } from './terminal.js';

describe('asking at the terminal', () => {
  it('shows what is typed, except for a secret', async () => {
    const [input, screen] = [new PassThrough(), new PassThrough()];
    let shown = '';
    screen.on('data', (piece: Buffer) => (shown += piece.toString()));
    const terminal = openTerminal(input, screen);
    const name = terminal.ask('Name: ');
    input.write('Ilse\r');
    expect(await name).toBe('Ilse');
    const secret = terminal.askSecret('Password: ');
    input.write('brine and bubbles\r');
    expect(await secret).toBe('brine and bubbles');
    terminal.close();
    expect(shown).toContain('Ilse');
    expect(shown).toContain('Password: ');
    expect(shown).not.toContain('brine');
  });
});
