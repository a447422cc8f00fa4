export { default as Rehearsal } from './Rehearsal.svelte';
export { default as Turn } from './Turn.svelte';
