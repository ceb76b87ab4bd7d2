export { checkedUntil } from './checkedUntil.js';
export { checksOf } from './checksOf.js';
export type { Check, CheckFacts, WrittenFacts } from './facts.js';
