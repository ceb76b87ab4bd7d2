import { sure } from '@jigsaw/core/lists';
import type { Vessel } from './people.js';
import { figuresOf } from './texts.js';

const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
const words = (said: string) => ({ type: 'text', text: said });
const heading = (said: string) => ({ type: 'heading', attrs: { level: 2 }, content: [words(said)] });
const linkTo = (said: string, pageId: string) => ({
  type: 'text',
  text: said,
  marks: [{ type: 'pageLink', attrs: { pageId } }],
});
const doc = (...content: object[]) => ({ type: 'doc' as const, content });

export const blankPage = doc({ type: 'paragraph' });

/** The first page of every bench's log. */
export const logPrompt = {
  promptTitle: 'How we keep this log',
  promptText: doc(
    paragraph(
      words('This is the log of '),
      { type: 'placeholder', attrs: { what: 'group-name' } },
      words('. Anyone who opens a jar writes what they saw, on the day they saw it.'),
    ),
    paragraph(
      words(
        'One page a week. For each day: the hour, the pH, the shelf, what it smelled of, and who read it. Do not tidy up what turned out wrong; write beside it.',
      ),
    ),
  ),
};
export const logBrief = doc(
  paragraph(
    words(
      'Keep the log of your starter from day 1 to day 28. All of you write in it; it is how the next class will know what you did.',
    ),
  ),
);

export interface Save {
  /** Which member of the bench, by place. */
  readonly by: number;
  readonly title: string;
  readonly text: object;
  /** Days before today, and the hour. */
  readonly daysAgo: number;
  readonly at: string;
}

const smells = [
  'of radish and wet stone',
  'of green walnut',
  'of cut grass',
  'of pear, and quieter',
  'of bread crust',
];
const notes = [
  'Topped up with boiled brine; two leaves stood out and were pressed down.',
  'The film at the rim is thinner than yesterday and wipes off.',
  'Both probes were checked against the buffer, 0.02 apart.',
  'Jar 3 stands nearer the window; we move it down on Thursday.',
  'Opened for a minute only, since the gas was still strong.',
];
const pick = <Item>(items: readonly Item[], at: number): Item => sure(items[at % items.length]);

/** How the page of a bench's second fortnight grew: each day someone adds to it, and mends what another one wrote. */
export function growth(vessel: Vessel, members: number, days: number): Save[] {
  const { end, temperature } = figuresOf(vessel);
  const saves: Save[] = [];
  const lines: { day: number; said: string }[] = [];
  for (let at = 0; at < days; at += 1) {
    const day = 15 + at;
    const pH = (Number(end) + 0.3 - at * 0.03).toFixed(2);
    lines.push({
      day,
      said: `pH ${pH} at ${temperature} °C. Jar 2 smells ${pick(smells, at + vessel.length)}. ${pick(notes, at)}`,
    });
    // A later reader mends what an earlier one took for granted.
    if (at % 3 === 2)
      lines[at - 1] = {
        day: day - 1,
        said: sure(lines[at - 1]).said.replace(
          'Jar 2 smells',
          'Jar 2, tasted before the meter was read, smells',
        ),
      };
    saves.push({
      by: at % members,
      title: 'Days 15 to 28',
      text: doc(...lines.flatMap((line) => [heading(`Day ${line.day}`), paragraph(words(line.said))])),
      daysAgo: days - at + 1,
      at: `${String(9 + ((at * 5 + vessel.length) % 11)).padStart(2, '0')}:${String(12 + ((at * 7) % 40))}`,
    });
  }
  return saves;
}

export const saltMistake = (daysPage: string) =>
  doc(
    paragraph(
      words(
        'On day 4 the second jar got its salt twice. We noticed at the tasting and not at the scale, which is the lesson.',
      ),
    ),
    paragraph(
      words(
        'What we did: poured off a third, filled up with water that had been boiled, and wrote it down here. See the days after it in ',
      ),
      linkTo('Days 15 to 28', daysPage),
      words('.'),
    ),
  );

export const filledPrompt = (vessel: Vessel) =>
  doc(
    ...logPrompt.promptText.content,
    paragraph(
      words(
        `We at ${vessel} read at breakfast and in the evening. The person who reads puts their initials behind the figure, and no one rounds.`,
      ),
    ),
  );
