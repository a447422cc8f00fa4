export { changesOf, type PlanChange, type SeenPart } from './changes';
export { correctionFault } from './fault';
export { groundOf, presentPlan, type Ground } from './ground';
export { rebased } from './rebase';
