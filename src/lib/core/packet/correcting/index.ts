export { changesOf, SEEN_PARTS, type PlanChange, type SeenPart } from './changes';
export { correctionFault } from './fault';
export { groundOf, presentPlan, SHUT_MINUTES, type Ground } from './ground';
export { rebased } from './rebase';
