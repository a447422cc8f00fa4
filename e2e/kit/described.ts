import validator from 'openapi-response-validator';

/** As much of an OpenAPI description as answers are held against. */
export interface Described {
	paths: Record<string, Record<string, { responses: object }>>;
	components: object;
}

// some runners hand a CommonJS module's default over within the default
const Validator = (validator as unknown as { default?: typeof validator }).default ?? validator;

/** What is wrong with an answer, by the description of the operation at this path; undefined where nothing is. */
export function answerFault(
	{ paths, components }: Described,
	method: string,
	path: string,
	status: number,
	body: unknown
) {
	const { responses } = paths[path]![method.toLowerCase()]!;
	return new Validator({ responses, components } as never).validateResponse(status, body);
}
