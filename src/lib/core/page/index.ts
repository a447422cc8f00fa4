export * from './geometry';
export { textNeeds } from './text-room';
export * from './printed';
