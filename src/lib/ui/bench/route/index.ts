export { default as PersonInspector } from './PersonInspector.svelte';
export { default as Route } from './Route.svelte';
export { default as SenderPart } from './SenderPart.svelte';
