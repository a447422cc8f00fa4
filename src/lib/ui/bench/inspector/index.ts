export { default as FieldList } from './FieldList.svelte';
export { default as Inspector } from './Inspector.svelte';
