export { default as AmendStrip } from './AmendStrip.svelte';
export { default as Changes } from './Changes.svelte';
