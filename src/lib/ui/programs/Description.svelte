<script lang="ts">
	import 'swagger-ui-dist/swagger-ui.css';

	/** An OpenAPI description, to be read: drawn by a kept viewer, which is fetched only here and brings its own main landmark. */
	let { address }: { address: string } = $props();

	async function draw(node: HTMLElement) {
		const { default: viewer } = await import('swagger-ui-dist/swagger-ui-es-bundle.js');
		viewer({
			url: address,
			domNode: node,
			deepLinking: false,
			validatorUrl: null,
			supportedSubmitMethods: [],
			docExpansion: 'list',
			defaultModelsExpandDepth: 0,
			onComplete: () => within(node)
		});
	}
	/** Its headings come after the page's own. */
	function within(node: HTMLElement) {
		for (const heading of node.querySelectorAll('.opblock-tag, .models h4')) {
			heading.setAttribute('role', 'heading');
			heading.setAttribute('aria-level', '2');
		}
	}
</script>

<div class="described" {@attach (node) => void draw(node as HTMLElement)}></div>

<style>
	.described :global {
		.swagger-ui,
		.swagger-ui :is(p, span, div, a, h1, h2, h3, h4, h5, td, th, table, button, label, code, pre, li, small, i) {
			color: var(--color-ink);
			font-family: inherit;
		}
		.swagger-ui :is(code, pre, .opblock-summary-path, .url) {
			font-family: var(--font-mono);
		}
		.swagger-ui .wrapper {
			max-width: none;
			padding: 0;
		}
		/* where it is, is said above; keys are made elsewhere */
		.swagger-ui :is(.scheme-container, .info, .servers, .authorization__btn) {
			display: none;
		}
		.swagger-ui .opblock-tag {
			border-bottom: 1px solid var(--color-hairline);
			font-size: 17px;
		}
		.swagger-ui .opblock,
		.swagger-ui section.models,
		.swagger-ui .model-box {
			border: 1px solid var(--color-hairline);
			border-radius: 2px;
			background: var(--color-sheet);
			box-shadow: none;
		}
		.swagger-ui .opblock .opblock-summary,
		.swagger-ui .opblock .opblock-section-header {
			border: 0;
			background: none;
			box-shadow: none;
		}
		.swagger-ui .opblock .opblock-summary-method {
			min-width: 76px;
			border: 1px solid var(--color-line);
			border-radius: 2px;
			background: var(--color-linen);
			color: var(--color-ink);
			text-shadow: none;
		}
		.swagger-ui svg {
			fill: var(--color-ink);
		}
		.swagger-ui :is(.highlight-code, .microlight, pre, .model-example) {
			background: var(--color-linen) !important;
			color: var(--color-ink) !important;
		}
	}
</style>
