export { kindOfAct, kindsOfActs, placesOf, sayAct, typesOfKind } from './acts.js';
export type { ActType, KindOfAct } from './acts.js';
