import { partsJsonSchema } from '$core/parts/file';
import { weatherJsonSchema } from '$core/links/notices/feeds/weather';
import { type Command, sayJson } from '../say';

export const schema: Command = ([which]) => {
	sayJson(which === 'weather' ? weatherJsonSchema() : partsJsonSchema());
	return 0;
};
