export { default as RuleBox } from './RuleBox.svelte';
export { default as WhenPart } from './WhenPart.svelte';
