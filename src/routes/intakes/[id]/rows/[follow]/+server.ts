import { house } from '$lib/server';
import { readIntake, rowsThatFollowed } from '$lib/server/intakes';
import { asFile } from '$lib/server/leaving';
import { fileResponse, orError } from '$lib/server/web';

/** The sheet of rows that have followed from cases. */
export const GET = async ({ params, url }) => {
	const intake = orError(readIntake(house(), params.id));
	const { columns, rows } = rowsThatFollowed(house(), params.id, params.follow);
	const { bytes, media, name } = await asFile(
		intake.setting.heading || 'Cases',
		columns,
		rows,
		url.searchParams.get('as') ?? 'csv'
	);
	return fileResponse(bytes, media, name);
};
