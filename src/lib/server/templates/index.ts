export { joinAsDraft, partsOf } from './joining';
export { foldersOf, listTemplates, SHOWN, type Shown } from './list';
export { recognise } from './recognition';
export * from './store';
export { dropText, savedTexts, saveText } from './texts';
export { draftFromTemplate, planForUse, sendTemplate } from './use';
