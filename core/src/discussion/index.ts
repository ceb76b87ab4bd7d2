export { requirementsMet, suggestedMark } from './requirements.js';
export type { CountedPost, DiscussionRule, RequirementsMet } from './requirements.js';
export { discussionRules } from './rules.js';
export type { DiscussionAct } from './rules.js';
export { discussionFacts } from './kind.js';
