export { checkRule, typeName, type RuleKeys } from './check';
export { findCycle, type Graph } from './cycle';
export { evaluate, holds, type RuleWorld } from './evaluate';
export { FUNCTIONS } from './functions';
export { isFault, keysOf, LENGTH, parseRule, type Node, type RuleFault } from './parse';
export { howsFor, ruleOf, simpleOf, type How } from './simple';
export { asText, dayOf, Dec, decimal, isDay, isNumber, type RuleType, type RuleValue } from './value';
