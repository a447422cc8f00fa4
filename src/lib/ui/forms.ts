import type { SubmitFunction } from '@sveltejs/kit';

/** For `use:enhance`: what was entered stays in the form when the answer has come. */
export const keepFilled: SubmitFunction =
	() =>
	({ update }) =>
		update({ reset: false });
