import { expose } from 'comlink';
import { sightWork } from './sightWork.js';

/** Works off the page's own thread: a large course asks the decision function some ten thousand times. */
expose(sightWork());
