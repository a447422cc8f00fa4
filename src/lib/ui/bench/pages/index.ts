export { default as PasteDialog } from './PasteDialog.svelte';
export { default as RepeatDialog } from './RepeatDialog.svelte';
export { default as Sheets } from './Sheets.svelte';
export { default as Tray } from './Tray.svelte';
export { blockOf, copyFields, copyFor, pasteBlock, peopleHere, readBlock, repeatOn, type Block } from './copying';
export { sheetLayout, visibleSheets } from './layout';
