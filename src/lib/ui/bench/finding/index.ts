export { default as FindText } from './FindText.svelte';
export { default as Findings } from './Findings.svelte';
export { likelyOwner, namedElsewhere, placeAtHits, stillFree, takePlaces, type FreePlace } from './found-places';
export { isMarkerKnown, markerFields } from './marked';
