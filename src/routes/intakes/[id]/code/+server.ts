import { house } from '$lib/server';
import { codeAsPng, codeAsSvg, readIntake } from '$lib/server/intakes';
import { fileResponse, orError } from '$lib/server/web';

/** The QR code of an intake's address. */
export const GET = async ({ params, url }) => {
	const intake = orError(readIntake(house(), params.id));
	const address = `${house().config.origin}/i/${intake.slug}`;
	if (url.searchParams.get('as') === 'png') return fileResponse(await codeAsPng(address), 'image/png', 'Code.png');
	return fileResponse(new TextEncoder().encode(await codeAsSvg(address)), 'image/svg+xml', 'Code.svg');
};
