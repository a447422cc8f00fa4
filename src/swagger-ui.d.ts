/** As much of the viewer's own bundle as is used; its package ships no types. */
declare module 'swagger-ui-dist/swagger-ui-es-bundle.js' {
	const draw: (how: {
		url: string;
		domNode: HTMLElement;
		deepLinking: boolean;
		validatorUrl: null;
		supportedSubmitMethods: string[];
		docExpansion: 'list' | 'full' | 'none';
		defaultModelsExpandDepth: number;
		onComplete: () => void;
	}) => void;
	export default draw;
}
