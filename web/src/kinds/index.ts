export { draftOfKind } from './draft.js';
export { sayHappening, sayHappenings, sayTimes } from './happening.js';
export type { KindOnPages, SettingsFormProps } from './kind.js';
export { kindOf, kinds, registerKind } from './registry.js';
