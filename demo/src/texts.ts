import { sure } from '@jigsaw/core/lists';
import type { Vessel } from './people.js';
import { vessels } from './people.js';

/** Figures that differ from bench to bench but are the same at every load. */
export function figuresOf(vessel: Vessel) {
  const at = vessels.indexOf(vessel);
  return {
    start: (6.3 - at * 0.02).toFixed(2),
    end: (3.9 + ((at * 7) % 11) * 0.05).toFixed(2),
    hours: 52 + ((at * 13) % 24),
    temperature: (18.5 + ((at * 5) % 9) * 0.6).toFixed(1),
    salt: (2 + (at % 3) * 0.5).toFixed(1),
  };
}

const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
const words = (text: string) => ({ type: 'text', text });
const bold = (text: string) => ({ type: 'text', text, marks: [{ type: 'bold' }] });
const blank = (what: 'group-name' | 'group-members') => ({ type: 'placeholder', attrs: { what } });
const list = (...items: readonly string[]) => ({
  type: 'bulletList',
  content: items.map((item) => ({ type: 'listItem', content: [paragraph(words(item))] })),
});
const doc = (...content: object[]) => ({ type: 'doc' as const, content });

/** What is required in the large course. */
export const largeBrief = (title: string) =>
  doc(
    paragraph(
      words(`${title}: write what `),
      blank('group-name'),
      words(' saw at the line this week, with the readings of each shift and what you would change.'),
    ),
    list('Say who took which reading.', 'One page is enough.', 'Name what surprised you.'),
  );

export const briefs = {
  salt: doc(
    paragraph(
      words('Weigh the salt for '),
      blank('group-name'),
      words(' at 1.5, 2.5 and 3.5 % of the cabbage and taste on days 3, 7 and 14.'),
    ),
    paragraph(words('Hand in one table of pH and one paragraph on which you would serve, and why.')),
  ),
  report: doc(
    paragraph(
      words('Write up what '),
      blank('group-name'),
      words(
        ' fermented in the first five weeks, as if the next class had to repeat it from your report alone.',
      ),
    ),
    list(
      'Method, with the control you kept and what it rules out',
      'The pH curve, with the hour at which it bends',
      'What the panel tasted, tied to the figures',
      'One thing you would change',
    ),
    paragraph(
      bold('One report a bench, '),
      words('with your readings beside it as they came from the logger; no one has to retype them.'),
    ),
  ),
  kinetics: doc(
    paragraph(
      words('Fit a first-order curve to the sugar of '),
      blank('group-name'),
      words(' and say from where on it no longer fits.'),
    ),
    paragraph(
      words('Eight short questions are on the sheet from Tuesday. '),
      blank('group-members'),
      words(': split them as you like, but each of you must be able to explain every answer.'),
    ),
  ),
  tasting: doc(
    paragraph(
      words('Bring one jar from '),
      blank('group-name'),
      words(' and twelve spoons. Hand in your tasting card by the evening.'),
    ),
  ),
  shelf: doc(
    paragraph(
      words(
        'How long would you sell it for, and what would have to be on the label? One page, with a source for the limit you take.',
      ),
    ),
    // Typed, where it should have been inserted.
    paragraph(words('Put “Shelf life of {group name}” above it.')),
  ),
};

export const moreBriefs = {
  /** @param groupIds of the benches that read a line more. */
  critique: (groupIds: readonly string[]) =>
    doc(
      paragraph(
        words('Taste what '),
        blank('group-name'),
        words(' set up, on day 14. Say what you notice in order: nose, first sip, after.'),
      ),
      paragraph(
        words(
          'Then name one thing you would change next time, and why the numbers agree or do not. When you have posted, answer two others of ',
        ),
        blank('group-name'),
        words('.'),
      ),
      {
        type: 'onlyFor',
        attrs: { groupIds },
        content: [paragraph(words('You changed the salt on day 9. Say whether you can taste it.'))],
      },
    ),
  benchTalk: doc(
    paragraph(
      words(
        'For everything that is not handed in: what works at your bench, what does not, what you can lend. The other benches read along.',
      ),
    ),
  ),
  kombucha: doc(
    paragraph(
      words('For the benches that keep a mother: where it came from, how you feed it, and who has a spare.'),
    ),
  ),
  ask: doc(
    paragraph(
      words('Questions to the lab that others may have too. Someone of the staff looks in once a day.'),
    ),
  ),
  certificate: doc(
    paragraph(
      words(
        'Insert your hygiene certificate. No one of the class sees it, and without it you cannot pour on tasting day.',
      ),
    ),
  ),
};

export const text = (...sentences: string[]) =>
  doc(...sentences.map((sentence) => paragraph(words(sentence))));

export const parts = [
  (vessel: Vessel) => {
    const { start, end, hours, salt } = figuresOf(vessel);
    return text(
      `We started at pH ${start} in ${salt} % brine and ended at ${end}. The curve bends at hour ${hours}; before it the fall is close to linear, after it the acid itself seems to slow things down.`,
      'The control without starter fell too, but half a day later, so the starter changed the speed and not the end.',
    );
  },
  (vessel: Vessel) => {
    const { temperature } = figuresOf(vessel);
    return text(
      `The shelf was at ${temperature} °C on average, with a warm Thursday that we did not correct for. A rough Q10 of 2 puts its effect at about four hours, less than the distance between two of our readings.`,
      'If we did it again we would log the temperature and not only read it.',
    );
  },
  (vessel: Vessel) =>
    text(
      `Six people tasted ${vessel} blind against the shop's jar. Five found ours sharper and four would buy it again. The words that came up most were green apple, cellar and clean.`,
      'The bitterness that came on day 9 was gone on day 14; we think it was the cabbage and not the microbes.',
    ),
  (vessel: Vessel) =>
    text(
      `I weighed and packed ${vessel} and kept the lid book: opened eleven times, topped up twice with boiled brine, no film on top.`,
      'The weight slipped on day 4 and three leaves stood out for a night. We took them off and wrote it down.',
    ),
];

/** A bench's report as one text file: its members' parts under headings. */
export function reportText(vessel: Vessel, names: readonly string[]): string {
  const headings = ['1. Method and curve', '2. Temperature', '3. Sensory panel', '4. Handling'];
  const sections = parts.map((part, at) => {
    const lines = part(vessel).content.map((node) =>
      (node as { content: { text: string }[] }).content.map((piece) => piece.text).join(''),
    );
    return `${sure(headings[at])}\n\n${lines.join('\n\n')}`;
  });
  return `${vessel}: what fermented in five weeks\n${names.join(', ')}\n\n${sections.join('\n\n')}\n`;
}

export function readingsCsv(vessel: Vessel): string {
  const { start, end, hours } = figuresOf(vessel);
  const rows = Array.from({ length: 15 }, (_, at) => {
    const hour = at * 8;
    const fall = (Number(start) - Number(end)) * (1 - Math.exp(-hour / (hours / 1.6)));
    return `${hour},${(Number(start) - fall).toFixed(2)},${(19 + ((at * 3) % 5) * 0.4).toFixed(1)}`;
  });
  return `hour,pH,temperature\n${rows.join('\n')}\n`;
}
