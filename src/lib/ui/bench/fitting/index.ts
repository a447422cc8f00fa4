export { default as FitDialog } from './FitDialog.svelte';
export { withTemplate } from './fitting';
export { landmarkWords, landmarksShown, phrasePlaces, pinned, wordsIn } from './pins';
