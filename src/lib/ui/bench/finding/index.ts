export { default as FindText } from './FindText.svelte';
export { default as Findings } from './Findings.svelte';
