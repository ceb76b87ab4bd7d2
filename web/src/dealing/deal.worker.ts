import { expose } from 'comlink';
import { answer } from './dealMessages.js';

/** Works off the page's own thread; the code that started it hears how far it is, and stops it by ending it. */
expose({ answer });
