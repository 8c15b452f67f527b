import { SaxesParser } from 'saxes';
import { fault, ok, type Result } from '../../basics/result';

/** An element with what is in it. Prefixes of names are dropped: `x:title` is `title`. */
export interface XmlElement {
	readonly name: string;
	readonly attributes: Readonly<Record<string, string>>;
	readonly children: readonly XmlElement[];
	/** Its own text, trimmed. */
	readonly text: string;
}
interface Growing {
	name: string;
	attributes: Record<string, string>;
	children: Growing[];
	text: string;
}
interface XmlLimits {
	readonly characters: number;
	readonly depth: number;
	readonly elements: number;
}
const USUAL: XmlLimits = { characters: 16_000_000, depth: 32, elements: 300_000 };
const PIECE = 65_536;

/** Names that lists in the wild use although plain XML does not know them. */
const LENIENT = /^undefined entity/;

/**
 * The elements of an XML document, in linear time. Document type definitions are refused whole: no format of ours has one, and
 * entities defined there can name other files or grow without end. Unknown entities stay as they stand.
 * Faults: `xml-long`, `xml-deep`, `xml-dtd`, `xml-broken`, each with its line.
 */
export function readXml(text: string, limits: XmlLimits = USUAL): Result<XmlElement> {
	if (text.length > limits.characters)
		return fault('xml-long', `It has ${text.length} characters; more than ${limits.characters} are not read.`);
	const top: Growing = { name: '', attributes: {}, children: [], text: '' };
	const open: Growing[] = [top];
	let elements = 0;
	let found: { code: string; message: string; line: number } | null = null;
	const parser = new SaxesParser({ position: true });
	const stop = (code: string, message: string): void => void (found ??= { code, message, line: parser.line });
	parser.on('error', (error) => {
		const message = error.message.replace(/^[\d:]+ /, '');
		if (!LENIENT.test(message)) stop('xml-broken', `The file is not well-formed: ${message.slice(0, 160)}`);
	});
	parser.on('doctype', () =>
		stop('xml-dtd', 'It has a document type definition, which is not read. Take the DOCTYPE out, or save it anew.')
	);
	parser.on('opentag', ({ name, attributes }) => {
		if (open.length > limits.depth) return stop('xml-deep', `It is nested deeper than ${limits.depth} levels.`);
		if (++elements > limits.elements) return stop('xml-long', `It has more than ${limits.elements} elements.`);
		const element = {
			name: name.slice(name.indexOf(':') + 1),
			attributes: attributes as Record<string, string>,
			children: [],
			text: ''
		};
		open.at(-1)!.children.push(element);
		open.push(element);
	});
	parser.on('text', (piece) => void (open.at(-1)!.text += piece));
	parser.on('cdata', (piece) => void (open.at(-1)!.text += piece));
	parser.on('closetag', () => void open.pop());
	try {
		for (let at = 0; at < text.length && !found; at += PIECE) parser.write(text.slice(at, at + PIECE));
		if (!found) parser.close();
	} catch (error) {
		stop('xml-broken', `The file is not well-formed: ${(error as Error).message.slice(0, 160)}`);
	}
	const broken = found as { code: string; message: string; line: number } | null;
	if (broken) return fault(broken.code, broken.message, `line ${broken.line}`);
	const root = top.children[0];
	return root ? ok(trimmed(root)) : fault('xml-broken', 'There is no element in it.', 'line 1');
}

const trimmed = ({ name, attributes, children, text }: Growing): XmlElement => ({
	name,
	attributes,
	children: children.map(trimmed),
	text: text.trim()
});

/** Text as it may stand in an element or in quotes. */
export const xmlText = (text: string): string =>
	text
		.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
		.replaceAll('&', '&amp;')
		.replaceAll('<', '&lt;')
		.replaceAll('>', '&gt;')
		.replaceAll('"', '&quot;');

/** An element's direct children of one name; none of one that is not there. */
export const childrenOf = (element: XmlElement | undefined, name: string): readonly XmlElement[] =>
	element?.children.filter((child) => child.name === name) ?? [];
