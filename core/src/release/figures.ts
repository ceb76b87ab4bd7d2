import type { Role } from '../course/index.js';
import { unreachable } from '../ids/index.js';
import type { Part } from './decide.js';

/** Whose figures someone is shown: everyone's, their own, or no one's. */
export type Whose = 'all' | 'own' | 'none';
type Onlooker = 'member' | 'staff' | 'observer' | 'reader';

/** The figures about single people that stand beside the work of a copy, and who sees whose. A new figure, or a new part, does not compile
 * before it is said. */
const shown = {
  /** How much of the requirement each has done. */
  'what-each-did': { staff: 'all', observer: 'all', member: 'own', reader: 'none' },
  /** The marks that this comes to. */
  'suggested-marks': { staff: 'all', observer: 'all', member: 'none', reader: 'none' },
  /** What each answered to questions. */
  'answers-of-each': { staff: 'all', observer: 'all', member: 'own', reader: 'none' },
  /** How much of one text that all write each of them wrote. */
  'share-of-the-text': { staff: 'all', observer: 'all', member: 'all', reader: 'none' },
} as const satisfies Record<string, Record<Onlooker, Whose>>;

export type Figure = keyof typeof shown;

/** Those of another group who read along see the work, and nothing of what is counted about the people behind it. */
export const whoseFigures = (figure: Figure, part: Part, role: Role): Whose =>
  shown[figure][onlookerOf(part, role)];

function onlookerOf(part: Part, role: Role): Onlooker {
  switch (part) {
    case 'member':
    case 'staff':
      return part;
    case 'reader':
      return role === 'observer' ? 'observer' : 'reader';
    default:
      return unreachable(part);
  }
}
