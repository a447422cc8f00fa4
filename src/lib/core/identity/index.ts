export * from './answers';
export * from './asked';
export * from './checks';
export * from './measure';
export { nameAgainst } from './names';
export * from './picture';
export type { IdentityLook, IdentityToShow, LookedAt } from './views';
export { readZone, toldApart } from './zone';
export { zoneLines } from './zone-lines';
