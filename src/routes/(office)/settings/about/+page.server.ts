import parts from '$lib/third-party.json';
import { version } from '../../../../../package.json';

export const load = () => ({ parts, version });
