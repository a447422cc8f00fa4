/** What lies over the page looks the same everywhere; the one shadow there is. */
export const FLOATS = 'rounded-sm border border-hairline bg-sheet shadow-(--float)';

/**
 * Where what opens over the page is put: into the dialog or the landmark that its button stands in, so that who reads by landmarks
 * finds it there, and a dialog keeps it within its keys.
 */
export function overOf(button: HTMLElement | null): HTMLElement | undefined {
	return button?.closest<HTMLElement>('[role="dialog"], main, header') ?? undefined;
}
