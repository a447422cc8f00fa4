export * from './geometry';
