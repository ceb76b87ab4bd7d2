import { describe, expect, it } from '@jest/globals';
import { invitation } from './index.js';

describe('an invitation', () => {
  const mail = invitation({
    name: '한서연',
    courseTitle: 'Applied Fermentation',
    courseCode: 'FER 220',
    invitedBy: 'Dr. Ilse Marrow',
    url: 'http://x/welcome#t',
    until: 'Wed 9 Dec, 10:00',
  });

  it('says who asks whom into what, until when, and why it was written', () => {
    expect(mail.subject).toBe('Your place in Applied Fermentation');
    expect(mail.paragraphs.join(' ')).toMatch(
      /한서연.*Dr\. Ilse Marrow.*FER 220.*once, until Wed 9 Dec, 10:00/,
    );
    expect(mail.why).toContain('have not signed in yet');
  });

  it('has the link in one place only', () => {
    expect(mail.link.url).toBe('http://x/welcome#t');
    expect(mail.paragraphs.join(' ')).not.toContain('http');
  });
});
