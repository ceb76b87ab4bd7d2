import { expose } from 'comlink';
import { reading } from './reading.js';

/** Reads files that anybody may have made, apart from the page; the code that started it ends it when it takes too long. */
expose(reading);
