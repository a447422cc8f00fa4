import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { act } from '$lib/server/packets/act';
import { copyFile, mayHaveCopies } from '$lib/server/packets/copies';
import { visitorOrError } from '$lib/server/visitor';
import { fileResponse } from '$lib/server/web';

export const GET = async ({ params, locals }) => {
	const { packet, person, proved } = await visitorOrError(params.token, locals);
	if (!proved) error(403, { message: 'Enter your code first.' });
	if (!mayHaveCopies(packet, person.id)) error(403, { message: 'This is no longer needed of you.' });
	const file = copyFile(house(), packet, params.what);
	if (!file) error(404, { message: 'There is no such copy yet.' });
	act(
		house(),
		packet.packet,
		{ kind: 'person', person: person.id },
		{ do: 'recordFetched', person: person.id, what: file.name }
	);
	return fileResponse(file.bytes, file.media, file.name);
};
