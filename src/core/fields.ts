/** Every field of the worktops by its setting; a test holds the list against what the worktops show. */
import type { SettingPath } from './link/setting';
import { byFolder, type Field, type Fields } from './manifest';

const found = byFolder(
	import.meta.glob<Fields<Record<string, unknown>>>('./links/*/fields.ts', { eager: true, import: 'default' })
);

/** Setting and field, links by name. */
export const fields: readonly (readonly [path: SettingPath, field: Field])[] = Object.entries(found).flatMap(
	([link, own]) => Object.entries(own!).map(([key, field]) => [`${link}.${key}` as SettingPath, field!] as const)
);
const byPath: ReadonlyMap<string, Field> = new Map(fields);

/** What the field of a setting is called; its own key where it has none. */
export const labelOf = (path: SettingPath): string => byPath.get(path)?.label ?? path.split('.').at(-1)!;
