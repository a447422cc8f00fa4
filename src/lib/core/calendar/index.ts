export * from './deadline';
export * from './reminders';
