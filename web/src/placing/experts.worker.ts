import { expose } from 'comlink';
import { cutAgain, rebalanced } from '@jigsaw/core/dealing';

/** Works off the page's own thread: a large class takes a second. */
expose({ cutAgain, rebalanced });
