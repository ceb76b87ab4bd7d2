export { draftOfKind } from './draft.js';
export type { KindOnPages, SettingsFormProps } from './kind.js';
export { kindOf, kinds, registerKind } from './registry.js';
