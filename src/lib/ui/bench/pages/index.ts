export { default as PasteDialog } from './PasteDialog.svelte';
export { default as RepeatDialog } from './RepeatDialog.svelte';
export { default as Sheets } from './Sheets.svelte';
export { default as Tray } from './Tray.svelte';
export { sheetLayout, visibleSheets } from './layout';
