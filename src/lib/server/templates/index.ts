export { joinAsDraft, partsOf } from './joining';
export { foldersOf, listTemplates, SHOWN, templateNames, type Shown } from './list';
export * from './making';
export { recognise } from './recognition';
export { binTemplate, describeTemplate, mayChange, ownTemplate, readTemplate, SHARED, sharesOf } from './store';
export { dropText, savedTexts, saveText } from './texts';
export { draftFromTemplate, planForUse, sendTemplate, sendUsed } from './use';
export { bringBack, planOfVersion, putInUse, versionsOf } from './versions';
