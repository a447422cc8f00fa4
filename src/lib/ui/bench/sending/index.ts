export { default as CorrectSheet } from './CorrectSheet.svelte';
export { default as CorrectingNote } from './CorrectingNote.svelte';
export { default as LetterPart } from './LetterPart.svelte';
export { default as PutInUse } from './PutInUse.svelte';
export { default as Scheduled } from './Scheduled.svelte';
export { default as SendSheet } from './SendSheet.svelte';
export { default as SendingPart } from './SendingPart.svelte';
