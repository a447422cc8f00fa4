export { default as LooksDialog } from './LooksDialog.svelte';
export { default as Notes } from './Notes.svelte';
export { default as Papers } from './Papers.svelte';
export { Adding } from './adding.svelte';
export { Scanning } from './scanning.svelte';
