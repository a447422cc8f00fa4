import type { Plan } from './plan';

/** The digests of all documents, attachments, pictures and files that a plan names, each once. */
export function filesIn(plan: Plan): string[] {
	const named = [
		...plan.papers.map((paper) => paper.digest),
		...plan.attachments.map((attachment) => attachment.digest),
		...plan.fields.map((field) => field.settings['picture']),
		...Object.values(plan.answers ?? {}).flatMap((answer) => {
			const { file, digest } = answer as { file?: unknown; digest?: unknown };
			return [file, digest];
		})
	];
	return [...new Set(named.filter((one): one is string => typeof one === 'string' && /^[0-9a-f]{64}$/.test(one)))];
}
