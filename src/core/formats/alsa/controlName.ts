/**
 * Names of simple mixer controls as amixer takes them: "Master", "PCM,1" for the second of that name, quoted where the name
 * itself has a comma or begins with a space or a quote. Source: alsa-lib, snd_mixer_selem_id_parse.
 */
const NUMBERED = /^(.*),(\d{1,4})$/;

/** The word for amixer of a control that is kept as "name" or "name,number". */
export function controlWord(control: string): string {
	const numbered = NUMBERED.exec(control);
	const name = numbered ? numbered[1]! : control;
	const number = numbered ? Number(numbered[2]) : 0;
	if (/^[^\s,'"][^,]*$/.test(name)) return number ? `${name},${number}` : name;
	const quote = name.includes("'") ? '"' : "'";
	return `${quote}${name}${quote},${number}`;
}

/** What alsa-lib makes of such a word, kept in the same form; null where it refuses it. */
export function readControlWord(word: string): string | null {
	const text = word.replace(/^[ \t]+/, '');
	const quote = text[0] === "'" || text[0] === '"' ? text[0] : null;
	const end = quote ? text.indexOf(quote, 1) : text.indexOf(',');
	const name = text.slice(quote ? 1 : 0, end < 0 ? text.length : end);
	const rest = end < 0 ? '' : text.slice(end + (quote ? 1 : 0));
	if (text === '' || !/^(?:,\d+)?$/.test(rest)) return null;
	const number = Number(rest.slice(1) || 0);
	return number ? `${name},${number}` : name;
}
