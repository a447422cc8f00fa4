export { default as Rehearsal } from './Rehearsal.svelte';
export { rehearsalKeeper, rehearsed } from './rehearsing';
