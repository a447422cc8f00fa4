export { distinctNames, NAMED_BY, nameByPattern, PATTERN, safeName } from './file-names';
export { keptUntil, RetentionRule, ruleInWords, type Kept, type KeptFacts } from './retention';
