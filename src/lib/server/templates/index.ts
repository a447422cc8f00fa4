export { joinAsDraft, partsOf } from './joining';
export { foldersOf, listTemplates, SHOWN, type Shown, type TemplateRow } from './list';
export { recognise, type Recognised } from './recognition';
export * from './store';
export { dropText, savedTexts, saveText, type SavedText } from './texts';
export { draftFromTemplate, planForUse, sendTemplate } from './use';
