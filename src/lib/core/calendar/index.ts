export * from './deadline';
