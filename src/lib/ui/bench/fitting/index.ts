export { default as FitDialog } from './FitDialog.svelte';
export { landmarkWords, landmarksShown, phrasePlaces, pinned, wordsIn } from './pins';
