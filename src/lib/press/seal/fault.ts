/** Why a sealed file is not genuine, as a sentence; '' where it was said already. */
export class Fault extends Error {}

export const fault = (say: string): never => {
	throw new Fault(say);
};
