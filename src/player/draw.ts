import { codeOf, QUIET_MODULES } from '../core/links/notices/pages/code';
import { clockWords, shownIn, type Content, type NoticeWorld, type Shown } from '../core/links/notices/pages/content';
import { columnsEm } from '../core/links/notices/pages/fit';
import { paddingPx, zoneBox, type Box } from '../core/links/notices/pages/screen';
import { isBare, type Page, type Zone } from '../core/links/notices/settings';
import type { Show } from '../core/links/notices/pages/show';

/** What a page is drawn with. */
export type Stage = Pick<Show, 'screen' | 'theme' | 'grid'> & {
	/** The address of an entry's file; null: its bytes are not here. */
	mediaOf(entry: string): string | null;
};

const SVG = 'http://www.w3.org/2000/svg';
/** Languages that are written from right to left. Source: CLDR, characterOrder. */
const RIGHT_TO_LEFT = /^(?:ar|ckb|dv|fa|he|ks|ps|sd|ug|ur|yi)\b/;

function element<K extends keyof HTMLElementTagNameMap>(
	name: K,
	className: string,
	...inside: (Node | string)[]
): HTMLElementTagNameMap[K] {
	const made = document.createElement(name);
	if (className) made.className = className;
	// Each runs as its own letters do, whatever the page's language.
	if (name === 'p' || name === 'h2' || name === 'span') made.dir = 'auto';
	// Text becomes text: whatever a feed says, none of it is markup.
	made.append(...inside);
	return made;
}
function drawn(name: string, attributes: Readonly<Record<string, string | number>>, text = ''): SVGElement {
	const made = document.createElementNS(SVG, name);
	for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, String(value));
	if (text) made.textContent = text;
	return made;
}

/** Puts a page into an element and keeps it as it should be at each call; only zones that change are drawn anew. */
export class PageView {
	readonly root: HTMLElement;
	#zones = new Map<string, { readonly at: HTMLElement; said: string }>();
	#page: Page | null = null;
	#stage: Stage | null = null;

	constructor() {
		this.root = element('div', 'notice-page');
	}

	/** Draws the page for an instant. */
	show(page: Page, stage: Stage, world: NoticeWorld): void {
		if (page !== this.#page || stage !== this.#stage) this.#begin(page, stage);
		this.root.dir = RIGHT_TO_LEFT.test(world.language) ? 'rtl' : 'ltr';
		for (const zone of page.zones) {
			const shown = shownIn(zone, world);
			const known = this.#zones.get(zone.id)!;
			const said = JSON.stringify(shown);
			if (said === known.said) continue;
			known.said = said;
			fill(known.at, zone, shown, stage);
		}
	}

	#begin(page: Page, stage: Stage): void {
		this.#page = page;
		this.#stage = stage;
		const { screen, theme } = stage;
		this.root.replaceChildren();
		this.root.classList.toggle('mono', theme.font === 'mono');
		Object.assign(this.root.style, {
			width: `${screen.widthPx}px`,
			height: `${screen.heightPx}px`,
			background: theme.ground,
			color: theme.ink
		});
		this.#zones = new Map(
			page.zones.map((zone) => {
				const at = element('section', `notice-zone ${zone.align}`);
				at.dataset.zone = zone.id;
				const { left, top, width, height } = zoneBox(screen, theme, stage.grid, zone);
				Object.assign(at.style, {
					left: `${left}px`,
					top: `${top}px`,
					width: `${width}px`,
					height: `${height}px`,
					padding: isBare(zone) ? '0' : `${paddingPx(screen)}px`,
					fontSize: `${zone.textPx}px`
				});
				this.root.append(at);
				return [zone.id, { at, said: '' }];
			})
		);
	}
}

function fill(at: HTMLElement, zone: Zone, { content, note }: Shown, stage: Stage): void {
	const { theme, screen } = stage;
	at.replaceChildren();
	at.style.background = content.kind === 'nothing' || isBare(zone) ? 'transparent' : theme.panel;
	if (content.kind === 'nothing') return;
	if (zone.title) {
		const title = element('h2', '', zone.title);
		title.style.color = theme.accent;
		at.append(title);
	}
	const box = zoneBox(screen, theme, stage.grid, zone);
	const pad = isBare(zone) ? 0 : 2 * paddingPx(screen);
	at.append(...bodyOf(zone, content, stage, { ...box, width: box.width - pad, height: box.height - pad }));
	if (note) at.append(element('p', 'note', note));
}

function bodyOf(zone: Zone, content: Content, stage: Stage, box: Box): Node[] {
	const { theme } = stage;
	switch (content.kind) {
		case 'blocks':
			return content.blocks.map(({ kind, runs }) =>
				element(
					'p',
					`block ${kind}`,
					...runs.map(({ text, bold, italic }) =>
						bold
							? element('strong', '', italic ? element('em', '', text) : text)
							: italic
								? element('em', '', text)
								: text
					)
				)
			);
		case 'line':
			return [element('p', 'line', content.text)];
		case 'rows': {
			const { heads, rows } = content;
			const table = element('div', 'rows');
			table.style.gridTemplateColumns = columnsEm(rows, box.width / zone.textPx, theme.font)
				.map((em) => `${(em + 0.02).toFixed(3)}em`)
				.join(' ');
			if (heads.some(Boolean)) table.append(...heads.map((head) => element('span', 'head', head)));
			table.append(...rows.flat().map((cell) => element('span', '', cell)));
			return [table];
		}
		case 'curve':
			return [curve(zone, content, stage, box)];
		case 'code':
			return [code(content.text)];
		case 'media': {
			const address = stage.mediaOf(content.entry);
			if (address === null) return [];
			if (content.shows === 'film') {
				const film = element('video', `fit-${zone.fit}`);
				Object.assign(film, { src: address, loop: true, autoplay: true, muted: true });
				return [film];
			}
			const picture = element('img', `fit-${zone.fit}`);
			Object.assign(picture, { src: address, alt: '' });
			return [picture];
		}
		case 'nothing':
			return [];
	}
}

/** Dark on light, as every reader takes it. */
function code(text: string): SVGElement {
	const svg = drawn('svg', { role: 'img' });
	const modules = codeOf(text);
	if (!modules) return svg;
	const quiet = QUIET_MODULES;
	const side = modules.size + 2 * quiet;
	svg.setAttribute('viewBox', `0 0 ${side} ${side}`);
	svg.append(drawn('rect', { width: side, height: side, fill: '#ffffff' }));
	let path = '';
	for (let y = 0; y < modules.size; y++)
		for (let x = 0; x < modules.size; x++)
			if (modules.data[y * modules.size + x]) path += `M${x + quiet} ${y + quiet}h1v1h-1z`;
	svg.append(drawn('path', { d: path, fill: '#000000', 'shape-rendering': 'crispEdges' }));
	return svg;
}

function curve(zone: Zone, content: Content & { kind: 'curve' }, { theme }: Stage, box: Box): SVGElement {
	const { points, nowWallMs, unit } = content;
	const text = zone.textPx;
	const width = Math.max(1, box.width);
	const height = Math.max(1, box.height - (zone.title ? text * 1.5 : 0));
	const svg = drawn('svg', { viewBox: `0 0 ${width} ${height}`, preserveAspectRatio: 'none' });
	const [from, until] = [points[0]!.wallMs, points.at(-1)!.wallMs];
	const values = points.map(({ value }) => value);
	const [low, high] = [Math.min(...values), Math.max(...values)];
	const x = (wallMs: number): number => ((wallMs - from) / Math.max(1, until - from)) * width;
	// Above the highest and below the lowest is room for a line of text.
	const y = (value: number): number =>
		1.5 * text + (1 - (value - low) / Math.max(0.001, high - low)) * Math.max(1, height - 3 * text);
	const line = points
		.map((point, n) => `${n ? 'L' : 'M'}${x(point.wallMs).toFixed(1)} ${y(point.value).toFixed(1)}`)
		.join('');
	svg.append(
		drawn('path', { d: `${line}V${height}H${x(from)}Z`, fill: theme.accent, opacity: 0.18 }),
		drawn('path', { d: line, fill: 'none', stroke: theme.accent, 'stroke-width': Math.max(2, text * 0.08) }),
		...(nowWallMs === null
			? []
			: [
					drawn('path', {
						d: `M${x(nowWallMs)} 0V${height}`,
						stroke: theme.ink,
						'stroke-width': Math.max(1, text * 0.04),
						'stroke-dasharray': `${text * 0.2} ${text * 0.15}`
					})
				])
	);
	const middle = (low + high) / 2;
	const half = text * 2.7;
	let taken = -Infinity;
	for (const point of points) {
		if (!point.named || (nowWallMs !== null && point.wallMs < nowWallMs)) continue;
		const at = Math.min(width - half, Math.max(half, x(point.wallMs)));
		if (at - taken < 2 * half) continue;
		taken = at;
		const label = drawn('text', {
			x: at,
			y: y(point.value) + (point.value >= middle ? -0.4 : 1.05) * text,
			'text-anchor': 'middle',
			fill: theme.ink,
			'font-size': text
		});
		label.append(
			drawn('tspan', { 'font-weight': 700 }, clockWords(point.wallMs, zone.clock, false)),
			drawn('tspan', { dx: text * 0.25 }, `${point.value.toFixed(1)}${unit ? `\u2009${unit}` : ''}`)
		);
		svg.append(label);
	}
	return svg;
}
