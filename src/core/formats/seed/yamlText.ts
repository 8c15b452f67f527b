/**
 * A string in YAML, whatever is in it: double quotes with JSON's escapes, which YAML 1.2 section 5.7 includes.
 * Emoji stay as they are: escaped halves would come out broken.
 */
export const yamlText = (text: string): string =>
	JSON.stringify(text)
		.replaceAll('\u2028', '\\u2028')
		.replaceAll('\u2029', '\\u2029')
		.replaceAll('\u0085', '\\u0085')
		.replaceAll('\u007f', '\\u007f');
