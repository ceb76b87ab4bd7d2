import { sure } from '@jigsaw/core/lists';
import type { Vessel } from './people.js';
import { figuresOf, text } from './texts.js';

const noses = [
  'cut grass and something like the inside of a walnut, less cabbage than on day nine',
  'steamed rice and wet stone, much quieter than last week when it smelled of radish',
  'green apple first, then a cellar smell that went away after half a minute in the glass',
  'a little yeast, a little butter, and under both of them the leaf itself',
  'sharp at the rim and almost flat in the middle, as if two jars had been mixed',
];
const sips = [
  'The first sip is salt, then a clean sourness along the sides; after about ten seconds it turns faintly bitter and dry.',
  'The first sip is thin, then sour at the back of the tongue, and I had to wait for the salt, which surprised me.',
  'It fizzes more than I expected from the look of it, and the fizz carries the acid so that it seems younger than it is.',
  'It is round rather than sharp, and the sourness comes late, so I would have guessed two days less in the brine.',
];
const guesses = [
  'I would have guessed a pH of 3.8, and the meter said otherwise, so my tongue runs behind the acid.',
  'I tasted before I read the meter, on purpose, and was off by two tenths in the usual direction.',
  'The number made me look for sourness, and I think I found some that was not there before I knew it.',
];
const changes = [
  'Next time I would taste blind and let someone else pour, because I knew which jar stood nearest the window.',
  'The one thing I would change is the shelf: the jar at the top was two degrees warmer, and we treated them as one.',
  'I would weigh the stones again before day twenty-one, since a leaf stood out for a night and the film began there.',
  'I would keep one jar without starter for the whole time, as it is the only one that can tell us we are wrong.',
];
const tails = [
  'It is worth saying that two of us had a cold, and that the shop’s jar we used to compare had been open for a week.',
  'The panel agreed on clean and disagreed on strong, which is about what one expects of six people and one spoon each.',
  'None of this is in the readings, but it is what I would tell the next group before they read a single figure.',
  'On day seven I wrote the opposite, so either the jar changed or I did, and I would like to know which.',
];
const pick = <Item>(items: readonly Item[], at: number): Item =>
  sure(items[((at % items.length) + items.length) % items.length]);

/** What one student writes of the tasting: about 130 words, or a few where they had no time. */
export function critique(vessel: Vessel, at: number, isShort = false) {
  const { end, temperature, salt } = figuresOf(vessel);
  if (isShort) return text(`Nose: ${pick(noses, at)}. More when I have tasted the second jar.`);
  return text(
    `Nose: ${pick(noses, at)}. ${pick(sips, at + 1)}`,
    `The meter says ${end} in ${salt} % brine and the shelf was at ${temperature} °C. ${pick(guesses, at)}`,
    `${pick(changes, at)} ${pick(tails, at + 2)}`,
  );
}

const answers = [
  'I had the bitterness later, after the salt, and only in the jar nearest the window. Could that be the warm shelf and not the acid at all? I will taste both blind tomorrow and write down which one I took for which before I look.',
  'Your walnut was my toast, so I went back and smelled it again next to the shop’s jar. With that beside it I would also say walnut; alone I would not have. Perhaps we should always keep something known on the table when we taste.',
  'Did you rinse between the two glasses? I did not, and I think half of what I took for a difference in salt was the first jar still on my tongue. The second time with water between them they were much closer together.',
  'I read the meter first, so take what I say about sour with care. What I am sure of is the fizz: it was stronger in the jar that stood lower, which is the opposite of what I would expect from the temperature we logged.',
];
const shortAnswers = [
  'Same here, with the green apple.',
  'Agreed, and thank you for pouring.',
  'I would not have guessed that from the smell.',
];

export const answer = (at: number, isShort = false) =>
  text(isShort ? pick(shortAnswers, at) : pick(answers, at));

export const benchTalk = [
  {
    opens: 'Has anybody else a white film after day ten? Ours wipes off and comes back.',
    answers: [
      'Ours too, from the day the lid stood open.',
      'Wipe it, top up with boiled brine, and do not stir it in. It is yeast, and it is not dangerous.',
    ],
  },
  {
    opens: 'We have a spare pH probe until Friday, calibrated on Monday. Ask before you take it.',
    answers: ['Could we have it on Thursday after the lab?'],
  },
  {
    opens:
      'Our cabbage was from the market and not from the store. Does anybody else see more gas in the first two days?',
    answers: [
      'Yes, and a softer leaf. We thought it was the knife.',
      'Write down which one it was; it belongs in the method.',
    ],
  },
] as const;

export const askTheLab = [
  {
    asks: 'May we open the incubator on Saturday, or is the building locked?',
    answers:
      'The building is open until 14:00. Sign the sheet at the door and leave the shelf as you found it.',
  },
  {
    asks: 'Is table salt with iodine a problem for the second trial?',
    answers:
      'A small one: it slows things in the first days. Use the sea salt in the blue tub, and say so in your method.',
  },
  { asks: 'Where do we hand back the borrowed lids?', answers: null },
] as const;

export const staffWord =
  'Tasting before reading: yes. Do that on day 21 as well and tell us whether it changed anything.';
